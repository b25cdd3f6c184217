import { lazy, Suspense, useMemo, useState } from 'react';
import type { WorkView } from '@wunsch/core/api/types';
import { featuresOf } from '@wunsch/core/temper/judge';
import { actNow, walkActs } from '@wunsch/core/temper/plan';
import { isStuck, pourNow } from '@wunsch/core/temper/pour';
import { MARK_WORDS, type MarkKind, type MeterFacts } from '@wunsch/core/work/tempering';
import type { Choosing } from '../entry/step-form';
import { typedNumber } from '../parts/number';
import { Refusal } from '../parts/pieces';
import { useHere, useShow } from '../parts/workshop';
import { MeterPanel } from './MeterPanel';
import { ProbeMood } from './ProbeMood';
import { ProbeControls } from './ProbeControls';
import { PlanLane } from './PlanLane';
import { TestClock } from './TestClock';
import { usePour } from './usePour';

const TemperChart = lazy(() => import('../charts/TemperChart'));

const TONES = {
  melting: 'bg-sunk',
  cooling: 'bg-sunk',
  low: 'bg-leaf-wash',
  warming: 'bg-sunk',
  working: 'bg-leaf-wash',
  thick: 'bg-ripe-wash',
  cold: 'bg-ripe-wash',
  hot: 'bg-ripe-wash',
  lost: 'bg-crimson-wash',
} as const;
/** Readings that a chart needs at the most. */
const MOST_POINTS = 400;
const PANELS = [
  ['plan', 'Plan'],
  ['meter', 'Meter'],
] as const;

/** What a cooling-curve meter said, as it is kept with the entry. */
export const METER = 'meter';
export const meterOf = (choices: Record<string, string> | undefined): MeterFacts | null => {
  const kept = choices?.[METER] ?? '';
  return kept === '' ? null : (JSON.parse(kept) as MeterFacts);
};

/** A pour under way: its temperature to be read across the bench, what is still missing, and its curve over the windows. */
export function LivePour({ work, entry }: { work: WorkView; entry: Choosing }) {
  const { view } = useHere();
  const show = useShow();
  const pour = usePour(work.id);
  const [chosen, setPanel] = useState<(typeof PANELS)[number][0] | 'none' | null>(null);
  const { data, busy } = pour;
  const points = useMemo(() => {
    const rows = data?.readings ?? [];
    const every = Math.ceil(rows.length / MOST_POINTS) || 1;
    return rows
      .filter((_, i) => i % every === 0 || i === rows.length - 1)
      .map(({ second, tempC }) => ({ minute: second / 60, tempC }));
  }, [data]);
  if (!data) return null;
  const { readings, windows, seeded, probe, silent, trouble } = data;
  const { temperatureUnit } = view.settings;
  const { acts, marks, school } = data.pour;
  const last = readings.at(-1);
  // The first question of a pour is how.
  const panel = chosen ?? (school === null && last === undefined ? 'plan' : 'none');
  const now = pourNow(readings, windows, seeded, temperatureUnit, marks);
  // What is planned leads until the moulds are filled; then the window does.
  const next = actNow(acts, walkActs(acts, readings, data.nowS), temperatureUnit);
  const leads = next !== null && (next.missing !== null || now === null || next.act.grams !== null);
  const unread = next !== null && next.act.tempC !== null && next.missing === null;
  const features = featuresOf(readings, { windows });
  const take = (): void => {
    if (!features) return;
    const text = (c: number): string => typedNumber(Math.round(10 * show.fromCelsius(c)) / 10);
    entry.write('meltC', text(features.meltC));
    entry.write('coolC', text(features.lowC));
    entry.write('workC', text(features.workC));
    if (school !== null) entry.write('method', school);
  };
  const standing = marks.findLast(({ what }) => what === 'still' || what === 'stirred')?.what === 'still';
  const offered: MarkKind[] = [standing ? 'stirred' : 'still', 'seed', 'silk', 'warmed', 'thick'];
  const meter = meterOf(entry.choices);
  return (
    <section aria-label="The pour now" className={`mb-4 rounded-md px-4 py-3 ${now ? TONES[now.phase] : 'bg-sunk'}`}>
      <div className="flex flex-wrap items-center gap-x-6 gap-y-2">
        <span className="figure text-6xl" data-testid="pour-temperature">
          {last ? show.temp(last.tempC) : '–'}
        </span>
        <div className="min-w-0 flex-1 basis-60">
          <p className="figure text-xl" aria-live="polite">
            {leads
              ? (next.missing ?? next.sentence)
              : (now?.sentence ?? 'No temperature yet: put a probe in, or read it by hand.')}
          </p>
          {leads ? (
            <p className="text-sm">
              {unread
                ? 'Put a probe in, or read it by hand.'
                : next.missing === null
                  ? 'Press Done in the plan when it is in.'
                  : next.sentence}
            </p>
          ) : (
            now && <p className="text-sm">{now.todo}</p>
          )}
          {now && now.heldMin > 0.5 && <p className="text-sm text-soft">{now.heldMin.toFixed(0)} min in its window.</p>}
          {standing && <p className="text-sm font-semibold">Left standing: nobody stirs it.</p>}
          {probe !== 'hand' && isStuck(readings) && (
            <p className="font-semibold text-crimson">
              The probe says the very same all the time: is it in the bowl? Read by hand beside it.
            </p>
          )}
          {trouble !== null && <p className="font-semibold text-crimson">{trouble}</p>}
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
              unit={temperatureUnit}
              height={150}
              marks={marks}
            />
          </Suspense>
        </div>
      )}
      <div className="mt-2 flex flex-wrap gap-2" role="group" aria-label="Mark it">
        {offered.map((what) => (
          <button key={what} type="button" className="chip" disabled={busy} onClick={() => void pour.mark(what)}>
            {MARK_WORDS[what]}
          </button>
        ))}
        {marks.length > 0 && (
          <button type="button" className="button button-quiet" disabled={busy} onClick={() => void pour.unmark()}>
            Take “{MARK_WORDS[marks.at(-1)?.what ?? 'thick']}” back
          </button>
        )}
      </div>
      <div className="mt-2 flex flex-wrap items-end gap-3">
        <ProbeControls
          of={work.id}
          probe={probe}
          busy={busy}
          read={pour.read}
          follow={(next, speed) => void pour.follow(next, speed)}
          quick={{ words: 'Simulated, 60×', speed: 60 }}
        />
        {features && (
          <button type="button" className="button" onClick={take}>
            Fill in from the curve
          </button>
        )}
        <TestClock />
        <span className="flex-1" />
        {PANELS.map(([id, words]) => (
          <button
            key={id}
            type="button"
            className="button"
            aria-expanded={panel === id}
            onClick={() => setPanel(panel === id ? 'none' : id)}
          >
            {words}
          </button>
        ))}
      </div>
      {panel === 'plan' && (
        <div className="mt-4">
          <PlanLane
            pour={data}
            act={pour}
            chosen={(own) => {
              setPanel('plan');
              entry.write('method', own);
            }}
          />
        </div>
      )}
      {panel === 'meter' && (
        <MeterPanel
          path={pour.path}
          kept={meter}
          keep={(facts) => entry.choose(METER, facts === null ? '' : JSON.stringify(facts))}
        />
      )}
      {probe === 'simulated' && <ProbeMood />}
      {panel !== 'plan' && <Refusal error={pour.error} />}
    </section>
  );
}
