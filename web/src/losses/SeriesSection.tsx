import { lazy, Suspense, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import type { LossMetric } from '@wunsch/core/api/losses';
import type { Signal } from '@wunsch/core/stats/individuals';
import { STATION_NAMES, type Station } from '@wunsch/core/work/stations';
import { useApi } from '../parts/api';
import { Loading, Section } from '../parts/pieces';
import { useShow } from '../parts/workshop';
import { SelectBox } from '../parts/choice';
import { Overrule } from '../parts/Overrule';

const ControlChart = lazy(() => import('../charts/ControlChart'));

const RULES: Record<Signal, string> = {
  'beyond-limits': 'beyond the limits',
  'eight-on-one-side': 'eight running on one side',
  'two-of-three': 'two of three far out',
};

interface Props {
  /** Those to choose from, and the one that is shown. */
  watched: readonly Station[];
  station: Station;
  metric: LossMetric;
  family: string | null;
  set: (part: Record<string, string | null>) => void;
}

/** One station's yields in order: its chart, when it left its level, and the steps behind the points. */
export function SeriesSection({ watched, station, metric, family, set }: Props) {
  const show = useShow();
  const navigate = useNavigate();
  const [machine, setMachine] = useState('');
  const search = new URLSearchParams({
    station,
    metric,
    ...(family === null ? {} : { family }),
    ...(machine === '' ? {} : { machine }),
  });
  const answer = useApi(`/api/losses/series?${search.toString()}`);
  const view = answer.data;
  const flagged = view?.points.filter(({ signal }) => signal !== null).reverse() ?? [];
  return (
    <Section title={`${STATION_NAMES[station]}, step by step`} id="series">
      <div className="mb-3 flex flex-wrap gap-2" role="group" aria-label="Station and measure">
        {watched.map((name) => (
          <button
            key={name}
            type="button"
            className="chip"
            aria-pressed={name === station}
            onClick={() => {
              setMachine('');
              set({ station: name });
            }}
          >
            {STATION_NAMES[name]}
          </button>
        ))}
        <span className="w-3" />
        {(['yield', 'unaccounted'] as const).map((name) => (
          <button
            key={name}
            type="button"
            className="chip"
            aria-pressed={name === metric}
            onClick={() => set({ station, metric: name })}
          >
            {name === 'yield' ? 'Yield' : 'Unaccounted'}
          </button>
        ))}
        {view && (view.machines.length > 1 || machine !== '') && (
          <SelectBox
            className="flex items-center gap-2"
            label="Machine"
            value={machine}
            options={[['', 'all of them'], ...view.machines.map(({ id, name }) => [id, name] as const)]}
            onChange={setMachine}
          />
        )}
      </div>
      {!view ? (
        <Loading error={answer.error} />
      ) : (
        <div className="grid gap-8 lg:grid-cols-[minmax(0,1fr)_17.5rem]">
          <div className="min-w-0">
            <p className="figure text-2xl leading-snug">{view.sentence}</p>
            <Overrule
              key={`${station} ${metric} ${machine}`}
              judged="change"
              subject={[station, metric, machine].join(' ').trim()}
              said={view.sentence}
            />
            {view.change && (
              <p className="mt-1">
                It began about <strong>{show.day(view.change.at)}</strong> ({view.change.code}), between{' '}
                {show.day(view.change.lowAt)} and {show.day(view.change.highAt)} with 95 %.
              </p>
            )}
            {view.todo !== null && <p className="mt-1">{view.todo}</p>}
            {view.points.length >= 2 && (
              <div className="mt-3">
                <Suspense fallback={<div className="h-[260px]" />}>
                  <ControlChart view={view} open={(stepId) => void navigate(`/step/${stepId}`)} />
                </Suspense>
              </div>
            )}
            {view.chart && (
              <p className="text-sm text-soft">
                Individuals chart of {view.chart.n}
                {view.chart.n < view.points.length && ' before it changed'}: mean {show.percent(view.chart.mean)},
                limits x̄ ± 2.66 · mean moving range, {show.percent(Math.max(0, view.chart.lower))} to{' '}
                {show.percent(view.chart.upper)}.
              </p>
            )}
          </div>
          <div>
            <h3 className="mb-1 text-lg">{flagged.length === 0 ? 'No rule fires' : 'Where a rule fires'}</h3>
            <ol className="rows text-sm">
              {flagged.slice(0, 9).map((point) => (
                <li key={point.stepId} className="py-1.5">
                  <Link to={`/step/${point.stepId}`} className="group flex items-baseline justify-between gap-2">
                    <span>
                      <span className="code group-hover:underline">{point.code}</span>{' '}
                      <span className="text-soft">{show.day(point.at)}</span>
                      <span className="block text-soft">{point.signal && RULES[point.signal]}</span>
                    </span>
                    <span className="figure text-base">{show.percent(point.value)}</span>
                  </Link>
                </li>
              ))}
            </ol>
          </div>
        </div>
      )}
    </Section>
  );
}
