import { lazy, Suspense, useState } from 'react';
import type { MeterVerdict } from '@wunsch/core/temper/inflection';
import type { TemperReading } from '@wunsch/core/temper/judge';
import type { MeterFacts } from '@wunsch/core/work/tempering';
import { ask } from '../parts/api';
import { FilePick } from '../parts/FilePick';
import { Refusal } from '../parts/pieces';
import { useSave } from '../parts/save';
import { useShow } from '../parts/workshop';

const MeterChart = lazy(() => import('../charts/MeterChart'));

interface Answer {
  readings: TemperReading[];
  badCount: number;
  simulated: boolean;
  found: MeterVerdict | null;
}

/** Of the parts of a curve that a chart shows. */
const MOST_POINTS = 300;

/** A sample in a cooling-curve meter: the simulated one, or the table of any logger; what it says and what to do. */
export function MeterPanel({
  path,
  kept,
  keep,
}: {
  path: `/api/temper/works/${string}`;
  kept: MeterFacts | null;
  keep: (facts: MeterFacts | null) => void;
}) {
  const show = useShow();
  const [answer, setAnswer] = useState<Answer | null>(null);
  const { busy, error, run } = useSave();
  const draw = (text?: string): void =>
    void run(async () => {
      const next = await ask(`${path}/meter`, text === undefined ? {} : { text });
      setAnswer(next);
      if (next.found) {
        const { tempC, slopeCperMin, verdict } = next.found;
        keep({ tempC: Math.round(10 * tempC) / 10, slopeCperMin: Math.round(100 * slopeCperMin) / 100, verdict });
      }
    });
  const points = (answer?.readings ?? []).filter(
    (_, i, all) => i % Math.ceil(all.length / MOST_POINTS || 1) === 0 && Number.isFinite(all[i]?.tempC),
  );
  return (
    <div role="group" aria-label="Cooling-curve meter">
      <div className="flex flex-wrap items-end gap-3">
        <button type="button" className="button mt-4" disabled={busy} onClick={() => draw()}>
          Simulated meter
        </button>
        <FilePick
          label="Table of a logger"
          accept=".csv,.txt,text/csv,text/plain"
          disabled={busy}
          main={false}
          onPick={(file) => void run(async () => draw(await file.text()))}
        >
          Table of a logger (CSV)
        </FilePick>
      </div>
      <Refusal error={error} />
      {kept !== null && answer === null && (
        <p className="mt-2">
          It said: <strong>{METER_WORDS[kept.verdict]}</strong>, bend at {show.temp(kept.tempC)}.{' '}
          <button type="button" className="link min-h-11" onClick={() => keep(null)}>
            Not of this pour
          </button>
        </p>
      )}
      {answer && (
        <div className="mt-3" aria-live="polite">
          <p className="figure text-xl">
            {answer.found?.sentence ?? 'No bend in it: too few readings, or it never slowed down.'}
          </p>
          <p className="text-sm">
            {answer.found?.todo ?? 'Draw another sample, and log it until it has set.'}
            {answer.simulated && ' Simulated meter.'}
            {answer.badCount > 0 && ` ${answer.badCount} rows could not be read.`}
          </p>
          {points.length > 2 && (
            <Suspense fallback={<div className="h-40" />}>
              <MeterChart points={points} bend={answer.found} />
            </Suspense>
          )}
        </div>
      )}
    </div>
  );
}

export const METER_WORDS: Readonly<Record<MeterFacts['verdict'], string>> = {
  under: 'under-tempered',
  well: 'well tempered',
  over: 'over-tempered',
};
