import { lazy, Suspense } from 'react';
import { Link } from 'react-router';
import type { GrindView } from '@wunsch/core/api/types';
import { FELT } from '@wunsch/core/grind/fineness';
import type { GrindStudy, GrindTonight } from '@wunsch/core/grind/tonight';
import { useApi } from '../parts/api';
import { useWorked } from '../parts/worked';
import { useShow } from '../parts/workshop';
import { stones } from './compute';
import { Overrule } from '../parts/Overrule';

const ForecastChart = lazy(() => import('../charts/ForecastChart'));

const TONES: Record<GrindTonight['tone'], string> = {
  good: 'bg-leaf-wash',
  watch: 'bg-ripe-wash',
  stop: 'bg-crimson-wash',
  quiet: 'bg-sunk',
};

export interface Told {
  study: GrindStudy;
  found: GrindTonight;
}

/** A batch's study, asked again whenever anything of it was entered, and its forecast; none of coarse machines. */
export function useForetold({ batch, readings, machine }: GrindView): Told | null {
  const coarse = machine?.coarse ?? false;
  const { data: study } = useApi(coarse ? null : `/api/grind/batches/${batch.code}/study`, 300_000);
  const found = useWorked(
    study
      ? JSON.stringify([
          study.code,
          study.readings,
          Math.round(20 * study.nowH),
          study.running,
          study.state,
          study.planned,
          study.acts,
          study.targetMicron,
          readings.length,
        ])
      : null,
    () => stones().tonight(study as GrindStudy),
    'grind-forecast',
  );
  return study && found ? { study, found } : null;
}

/** When to pull it, why, and what would tell more. */
export function Foretold({ grind, told }: { grind: GrindView; told: Told | null }) {
  const show = useShow();
  if (grind.machine?.coarse === true)
    return (
      <p className="rounded-md bg-sunk px-4 py-3">
        {grind.machine.name} grinds coarse: count the passes and describe the texture; no particle size is foretold.
      </p>
    );
  if (!told) return <div className="min-h-[9.5rem] rounded-md bg-sunk" aria-busy="true" />;
  const { found } = told;
  return (
    // As high with little to say as with much: what is pressed below it stays where it is.
    <section aria-label="Forecast" className={`min-h-[9.5rem] rounded-md px-4 py-3 ${TONES[found.tone]}`}>
      <p className="figure text-[1.6rem] leading-snug" aria-live="polite">
        {found.sentence}
      </p>
      {found.todo !== null && <p className="mt-1 font-semibold">{found.todo}</p>}
      {found.next && !found.reached && (
        <p className="mt-1 text-sm">
          Read next at <strong>{show.moment(found.next.at)}</strong>: of the hours when somebody is here it says most,
          and would leave about {found.next.widthH.toFixed(1)} of now {found.next.nowWidthH.toFixed(1)} hours in doubt.
        </p>
      )}
      <details className="mt-1 text-sm text-soft">
        <summary className="inline-flex min-h-8 cursor-pointer items-center underline">Why, and how sure</summary>
        <p>
          {found.because.join(' ')}{' '}
          <Link className="link" to={`/grinding/${grind.machine?.id ?? ''}`}>
            How it did before
          </Link>
        </p>
        <Overrule judged="grind" subject={grind.batch.id} said={found.sentence} />
      </details>
    </section>
  );
}

/** The curve with its band, and the chance of being done at the hours when somebody is there. */
export function ForetoldMore({ grind, told }: { grind: GrindView; told: Told | null }) {
  const show = useShow();
  if (!told) return null;
  const { study, found } = told;
  const first = found.attended.findIndex(({ chance }) => chance > 0.02);
  const last = found.attended.findIndex(({ chance }) => chance > 0.98);
  const rows = found.attended.slice(Math.max(0, first), last < 0 ? undefined : last + 1).slice(0, 10);
  const felt = study.readings.flatMap((row) => (row.kind === 'tongue' ? [FELT[row.felt]?.words ?? ''] : []));
  return (
    <section aria-label="Fineness foretold" className="mt-6">
      <Suspense fallback={<div className="h-64" />}>
        <ForecastChart
          caption={`Fineness in µm by running hours; ${found.reached ? 'it is at its target' : found.sentence.replace(/\.$/, '')}`}
          curve={found.curve}
          readings={study.readings.flatMap((row) => (row.kind === 'gauge' ? [{ x: row.atH, y: row.micron }] : []))}
          target={study.targetMicron}
          nowH={study.nowH}
        />
      </Suspense>
      {felt.length > 0 && <p className="mt-1 text-sm text-soft">By tongue: {felt.join(', then ')}.</p>}
      {!found.reached && rows.length > 1 && (
        <>
          <h3 className="mt-4 text-lg">At target when somebody is here</h3>
          <ul className="mt-2 flex flex-wrap gap-x-6 gap-y-3">
            {rows.map(({ at, chance, micron }) => (
              <li key={at} className="w-24">
                <span className="block text-sm text-soft">{show.moment(at)}</span>
                <span className="figure block text-xl">{Math.round(100 * chance)}&nbsp;%</span>
                <span aria-hidden className="block h-1.5 rounded-full bg-sunk">
                  <span className="block h-full rounded-full bg-leaf" style={{ width: `${100 * chance}%` }} />
                </span>
                <span className="block text-sm text-soft">about {micron.toFixed(0)} µm</span>
              </li>
            ))}
          </ul>
        </>
      )}
      <a
        className="button mt-4 inline-flex"
        href={`/api/grind/batches/${grind.batch.code}/night.pdf`}
        target="_blank"
        rel="noreferrer"
      >
        Sheet for the night
      </a>
    </section>
  );
}
