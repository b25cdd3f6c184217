import { nextOfFill, NEXT_WORDS, type MouldFill } from '@wunsch/core/work/moulding';
import { useNow } from '../app/DueLine';
import { span } from '../parts/workshop';

const DONE_WORDS = { tip: 'Tipped out', fill: 'Filled', close: 'Closed' } as const;

/** A group of moulds and its clock: what is done with it next, and when. */
export function Fill({
  fill,
  setMin,
  shellSec,
  busy,
  turnOut,
  shell,
}: {
  fill: MouldFill;
  setMin: number;
  shellSec: number | null;
  busy: boolean;
  turnOut: (out: boolean) => void;
  shell: (act: 'tip' | 'fill' | 'close') => void;
}) {
  const now = useNow(1000);
  const next = nextOfFill(fill, setMin, shellSec);
  const left = next.at - now;
  const { act } = next;
  // Seconds count while a shell stands.
  const clock = left < 120_000 ? `${Math.ceil(left / 1000)} s` : span(left);
  return (
    <li className="flex min-h-11 flex-wrap items-center gap-x-4 border-t border-rule py-1">
      <span className="flex-1">
        {fill.moulds} {fill.moulds === 1 ? 'mould' : 'moulds'},{' '}
        {act === 'none' ? (
          <span className="text-soft">out after {span(next.at - fill.at)}</span>
        ) : left > 0 ? (
          <>
            {act === 'out' ? '' : `${NEXT_WORDS[act].toLowerCase()} in `}
            <strong>{act === 'out' ? `${span(left)} more` : clock}</strong>
          </>
        ) : (
          <strong className="text-leaf">
            {act === 'out' ? 'may be turned out' : `${NEXT_WORDS[act].toLowerCase()} now`}
          </strong>
        )}
      </span>
      {act === 'tip' || act === 'fill' || act === 'close' ? (
        <button type="button" className="button" disabled={busy} onClick={() => shell(act)}>
          {DONE_WORDS[act]}
        </button>
      ) : (
        <button
          type="button"
          className="button button-quiet"
          disabled={busy}
          onClick={() => turnOut(fill.outAt === null)}
        >
          {fill.outAt === null ? 'Turned out' : 'Not after all'}
        </button>
      )}
    </li>
  );
}
