import { createContext } from 'react';
import { Link } from 'react-router';
import type { EnteredStep } from '@wunsch/core/api/types';
import { Verdict } from '../parts/Verdict';
import { useIntoView } from './into-view';

export interface SavedEntry {
  saved: EnteredStep;
  /** The server had it already: another tab, or a second press. */
  replayed: boolean;
}

/** Where a bench shows what was just saved: the form itself may be gone, with the last tub. */
export const SavedHere = createContext<((entry: SavedEntry | null) => void) | null>(null);

export function SavedNote({ entry: { saved, replayed } }: { entry: SavedEntry }) {
  const made = saved.step.lines.find((line) => line.holdingId !== null && line.massMg > 0);
  const box = useIntoView<HTMLDivElement>(saved.step.id);
  return (
    <div ref={box} role="status" className="my-5 scroll-mt-40">
      <p className="text-lg">
        {replayed ? 'This was saved already, perhaps in another tab: nothing was entered twice. ' : 'Saved. '}
        {made?.code && (
          <>
            It is <strong className="code">{made.code}</strong>.{' '}
          </>
        )}
        <Link className="link" to={`/step/${saved.step.id}`}>
          See or correct it
        </Link>
      </p>
      {saved.judgement && (
        <div className="mt-3 max-w-2xl">
          <Verdict title="This one" judgement={saved.judgement} stepId={saved.step.id} />
        </div>
      )}
    </div>
  );
}
