import { Dialog } from 'radix-ui';
import { KEYS } from './keys';

export function KeyHelp({ open, setOpen }: { open: boolean; setOpen: (open: boolean) => void }) {
  return (
    <Dialog.Root open={open} onOpenChange={setOpen}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-black/40" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed top-[12vh] left-1/2 z-50 w-[min(34rem,92vw)] -translate-x-1/2 rounded-xl bg-sheet p-6 shadow-2xl"
        >
          <Dialog.Title className="text-2xl">Keys</Dialog.Title>
          <dl className="rows mt-3">
            {KEYS.map(([key, what]) => (
              <div key={key} className="grid grid-cols-[8rem_1fr] gap-3 py-2">
                <dt className="code">{key}</dt>
                <dd>{what}</dd>
              </div>
            ))}
          </dl>
          <Dialog.Close className="button mt-4">Close</Dialog.Close>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
