import { useState } from 'react';
import type { Command } from '@wunsch/core/commands';
import type { GrindView } from '@wunsch/core/api/types';
import { refresh, send } from '../parts/api';
import { Refusal } from '../parts/pieces';
import { NOBODY, useSave } from '../parts/save';
import { useHere, useShow } from '../parts/workshop';

type What = Extract<Command, { kind: 'reading' }>['what'];
type Cause = Extract<Command, { kind: 'reading' }>['cause'];

const CAUSES = [
  ['power', 'Power cut'],
  ['night', 'Off for the night'],
  ['stalled', 'They stalled: too full'],
  ['other', 'Something else'],
] as const;

const newest = (grind: GrindView, ...whats: readonly What[]): { what: string; at: number } | undefined =>
  grind.readings.findLast(({ what }) => (whats as readonly string[]).includes(what));

/** Whether the stones of a batch stand, or are lifted, by what was said last. */
export const standsSince = (grind: GrindView): number | null => {
  const last = newest(grind, 'stones-stop', 'stones-run', 'move');
  return last?.what === 'stones-stop' ? last.at : null;
};
const liftedSince = (grind: GrindView): number | null => {
  const last = newest(grind, 'stones-up', 'stones-down', 'move');
  return last?.what === 'stones-up' ? last.at : null;
};

/** The stones stop and run again, go up and down, and what went wrong: what they stand still does not count as grinding. */
export function StonesSwitch({ grind }: { grind: GrindView }) {
  const { personId } = useHere();
  const show = useShow();
  const { busy, error, run, fail } = useSave();
  const [asking, setAsking] = useState(false);
  const [stands, lifted] = [standsSince(grind), liftedSince(grind)];
  const say = (what: What, cause?: Cause): void => {
    if (personId === null) return fail(NOBODY);
    setAsking(false);
    void run(async () => {
      await send('POST', '/api/ledger/steps', {
        personId,
        command: {
          kind: 'reading',
          batchId: grind.batch.id,
          what,
          value: null,
          note: '',
          ...(cause === undefined ? {} : { cause }),
        },
      });
      await refresh();
    });
  };
  const conches = grind.machine?.conches === true;
  return (
    <>
      {stands !== null ? (
        <button type="button" className="button button-main" disabled={busy} onClick={() => say('stones-run')}>
          Stones run again
        </button>
      ) : (
        <button
          type="button"
          className="chip"
          aria-expanded={asking}
          disabled={busy}
          onClick={() => setAsking(!asking)}
        >
          Stones stop
        </button>
      )}
      {!conches && grind.machine?.coarse !== true && (
        <button
          type="button"
          className="chip"
          aria-pressed={lifted !== null}
          disabled={busy}
          onClick={() => say(lifted === null ? 'stones-up' : 'stones-down')}
        >
          {lifted === null ? 'Stones up' : 'Stones down'}
        </button>
      )}
      {asking && (
        <div role="group" aria-label="Why they stop" className="flex w-full flex-wrap items-center gap-2">
          <span className="text-sm text-soft">They stop because:</span>
          {CAUSES.map(([cause, words]) => (
            <button
              key={cause}
              type="button"
              className="chip"
              disabled={busy}
              onClick={() => say('stones-stop', cause)}
            >
              {words}
            </button>
          ))}
          <span className="ml-2 text-sm text-soft">They run, but:</span>
          <button type="button" className="chip" disabled={busy} onClick={() => say('spilled')}>
            It spilled over
          </button>
          <button type="button" className="chip" disabled={busy} onClick={() => say('starved')}>
            Stone on stone: too empty
          </button>
        </div>
      )}
      {stands !== null && (
        <p className="w-full text-sm font-semibold text-crimson">They stand since {show.moment(stands)}.</p>
      )}
      {lifted !== null && (
        <p className="w-full text-sm">The stones are up since {show.moment(lifted)}: it is conched, not ground.</p>
      )}
      <Refusal error={error} />
    </>
  );
}
