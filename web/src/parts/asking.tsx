import { useSyncExternalStore } from 'react';
import { AlertDialog } from 'radix-ui';

interface Question {
  title: string;
  /** What is lost by it, and what stays. */
  what: string;
  /** The word on the button that does it. */
  yes: string;
}

interface Asked extends Question {
  answer: (sure: boolean) => void;
}

let asked: Asked | null = null;
const listeners = new Set<() => void>();

function put(next: Asked | null): void {
  asked = next;
  for (const listener of listeners) listener();
}

/** Asks whether somebody is sure, naming what would be lost. @returns whether they are */
export const isSure = (question: Question): Promise<boolean> =>
  new Promise((resolve) => {
    asked?.answer(false);
    put({
      ...question,
      answer: (sure) => {
        put(null);
        resolve(sure);
      },
    });
  });

function listen(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

/** Where the question is shown. */
export function Asking() {
  const question = useSyncExternalStore(listen, () => asked);
  return (
    <AlertDialog.Root open={question !== null} onOpenChange={(open) => !open && question?.answer(false)}>
      <AlertDialog.Portal>
        <AlertDialog.Overlay className="fixed inset-0 z-40 bg-black/40" />
        <AlertDialog.Content className="fixed top-[18vh] left-1/2 z-50 w-[min(30rem,92vw)] -translate-x-1/2 rounded-xl bg-sheet p-6 shadow-2xl">
          <AlertDialog.Title className="text-2xl">{question?.title}</AlertDialog.Title>
          <AlertDialog.Description className="mt-2">{question?.what}</AlertDialog.Description>
          <div className="mt-5 flex flex-wrap gap-3">
            <AlertDialog.Cancel className="button">Leave it</AlertDialog.Cancel>
            <button type="button" className="button button-main" onClick={() => question?.answer(true)}>
              {question?.yes}
            </button>
          </div>
        </AlertDialog.Content>
      </AlertDialog.Portal>
    </AlertDialog.Root>
  );
}
