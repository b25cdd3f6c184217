import { lazy, Suspense, useMemo, useState } from 'react';
import type { PourView } from '@wunsch/core/api/temper';
import type { WorkView } from '@wunsch/core/api/types';
import { featuresOf } from '@wunsch/core/temper/judge';
import { pourNow } from '@wunsch/core/temper/pour';
import { ask, useApi } from '../parts/api';
import { NumberBox } from '../parts/fields';
import { readNumber, typedNumber } from '../parts/number';
import { Refusal } from '../parts/pieces';
import { NOBODY, useSave } from '../parts/save';
import { useHere, useShow } from '../parts/workshop';

const TemperChart = lazy(() => import('../charts/TemperChart'));

const TONES = {
  melting: 'bg-sunk',
  cooling: 'bg-sunk',
  low: 'bg-leaf-wash',
  warming: 'bg-sunk',
  working: 'bg-leaf-wash',
  cold: 'bg-ripe-wash',
  lost: 'bg-crimson-wash',
} as const;
/** Readings that a chart needs at the most. */
const MOST_POINTS = 400;

/** A pour under way: its temperature to be read across the bench, what is still missing, and its curve over the windows. */
export function LivePour({ work, write }: { work: WorkView; write: (field: string, text: string) => void }) {
  const { personId, view } = useHere();
  const show = useShow();
  const path = `/api/temper/works/${work.id}`;
  const pour = useApi<PourView>(`${path}/pour`, 1000);
  const [typed, setTyped] = useState('');
  const [wrong, setWrong] = useState<string | undefined>(undefined);
  const { busy, error, run, fail } = useSave();
  const { data } = pour;
  const points = useMemo(() => {
    const rows = data?.readings ?? [];
    const every = Math.ceil(rows.length / MOST_POINTS) || 1;
    return rows
      .filter((_, i) => i % every === 0 || i === rows.length - 1)
      .map(({ second, tempC }) => ({ minute: second / 60, tempC }));
  }, [data]);
  if (!data) return null;
  const { readings, windows, seeded, probe, silent } = data;
  const last = readings.at(-1);
  const now = pourNow(readings, windows, seeded, view.settings.temperatureUnit);
  const features = featuresOf(readings, { windows });
  const call = (way: string, body: object): Promise<boolean> =>
    run(async () => {
      await ask(`${path}/${way}`, body);
      await pour.mutate();
    });
  const follow = (next: 'simulated' | 'sent' | null, speed = 1): void => {
    if (personId === null) return fail(NOBODY);
    void call('probe', { personId, probe: next, speed });
  };
  const read = (): void => {
    const value = readNumber(typed);
    if (value === null) return setWrong('is not a number');
    void call('readings', { tempC: show.tempOut(value) }).then((kept) => kept && setTyped(''));
  };
  const take = (): void => {
    if (!features) return;
    const text = (c: number): string => typedNumber(Math.round(10 * show.tempIn(c)) / 10);
    write('meltC', text(features.meltC));
    write('coolC', text(features.lowC));
    write('workC', text(features.workC));
  };
  const unit = show.temp(0).replace(/^[\d.\s]+/, '');
  return (
    <section aria-label="The pour now" className={`mb-4 rounded-md px-4 py-3 ${now ? TONES[now.phase] : 'bg-sunk'}`}>
      <div className="flex flex-wrap items-center gap-x-6 gap-y-2">
        <span className="figure text-6xl" data-testid="pour-temperature">
          {last ? show.temp(last.tempC) : '–'}
        </span>
        <div className="min-w-0 flex-1 basis-60">
          <p className="figure text-xl" aria-live="polite">
            {now?.sentence ?? 'No temperature yet: put a probe in, or read it by hand.'}
          </p>
          {now && <p className="text-sm">{now.todo}</p>}
          {now && now.heldMin > 0.5 && <p className="text-sm text-soft">{now.heldMin.toFixed(0)} min in its window.</p>}
          {silent && (
            <p className="font-semibold text-crimson">The probe says nothing: look at its plug, read by hand.</p>
          )}
        </div>
      </div>
      {points.length > 1 && (
        <div className="mt-2">
          <Suspense fallback={<div className="h-44" />}>
            <TemperChart
              caption="Temperature by minutes; bands are where it is melted, cooled and worked"
              points={points}
              windows={windows}
              unit={view.settings.temperatureUnit}
              height={180}
            />
          </Suspense>
        </div>
      )}
      <div className="mt-2 flex flex-wrap items-end gap-3">
        <NumberBox
          className="w-32"
          label="It is at"
          unit={unit}
          value={typed}
          problem={wrong}
          onEnter={read}
          onChange={(text) => {
            setWrong(undefined);
            setTyped(text);
          }}
        />
        <button type="button" className="button" disabled={busy} onClick={read}>
          Log it
        </button>
        {probe === 'simulated' || probe === 'sent' ? (
          <button type="button" className="button button-quiet" disabled={busy} onClick={() => follow(null)}>
            Take the probe out
          </button>
        ) : (
          <>
            <button type="button" className="button button-quiet" disabled={busy} onClick={() => follow('sent')}>
              A probe sends it
            </button>
            <button type="button" className="button button-quiet" disabled={busy} onClick={() => follow('simulated')}>
              Simulated probe
            </button>
            <button
              type="button"
              className="button button-quiet"
              disabled={busy}
              onClick={() => follow('simulated', 60)}
            >
              Simulated, 60×
            </button>
          </>
        )}
        {features && (
          <button type="button" className="button" onClick={take}>
            Fill in from the curve
          </button>
        )}
      </div>
      <Refusal error={error} />
    </section>
  );
}
