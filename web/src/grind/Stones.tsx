import type { GrindView } from '@wunsch/core/api/types';
import { getJson, refresh, send } from '../parts/api';
import { newKey } from '../parts/draft';
import { Refusal } from '../parts/pieces';
import { NOBODY, useSave } from '../parts/save';
import { useHere, useShow } from '../parts/workshop';

/** The stones stop and run again: what they stand still does not count as grinding. */
export function StonesSwitch({ grind }: { grind: GrindView }) {
  const { personId } = useHere();
  const show = useShow();
  const { busy, error, run, fail } = useSave();
  const last = grind.readings.filter(({ what }) => what === 'stones-stop' || what === 'stones-run').at(-1);
  const standing = last?.what === 'stones-stop';
  const press = (): void => {
    if (personId === null) return fail(NOBODY);
    void run(async () => {
      await send(
        'POST',
        '/api/ledger/steps',
        {
          personId,
          command: {
            kind: 'reading',
            batchId: grind.batch.id,
            what: standing ? 'stones-run' : 'stones-stop',
            value: null,
            note: '',
          },
        },
        newKey(),
      );
      await refresh();
    });
  };
  return (
    <>
      <button type="button" className={standing ? 'button button-main' : 'chip'} disabled={busy} onClick={press}>
        {standing ? 'Stones run again' : 'Stones stop'}
      </button>
      {standing && last && (
        <p className="w-full text-sm font-semibold text-crimson">They stand since {show.moment(last.at)}.</p>
      )}
      <Refusal error={error} />
    </>
  );
}

/** Asks the simulated gauge and says so; a real one is read by eye, or posts its readings. */
export function SimulatedGaugeButton({ grind, onRead }: { grind: GrindView; onRead: (micron: number) => void }) {
  const { busy, run } = useSave();
  return (
    <button
      type="button"
      className="button button-quiet text-sm"
      disabled={busy}
      onClick={() =>
        void run(async () => {
          const { micron } = await getJson<{ micron: number | null }>(`/api/grind/batches/${grind.batch.code}/gauge`);
          if (micron !== null) onRead(micron);
        })
      }
    >
      Draw down on the simulated gauge
    </button>
  );
}
