import { lazy, Suspense, useState, type ReactNode } from 'react';
import { useParams } from 'react-router';
import type { BenchView } from '@wunsch/core/api/types';
import { isStation, STATION_NAMES, type Station } from '@wunsch/core/work/stations';
import { useApi } from '../parts/api';
import { StationIcon } from '../parts/icons';
import { Log } from '../parts/log';
import { Caution, Empty, Loading } from '../parts/pieces';
import { Verdict } from '../parts/Verdict';
import { capital } from '../parts/words';
import { count as formatCount, MassUnitHere, useHere, useShow, useUnitOf } from '../parts/workshop';
import { BeansBench } from '../beans/BeansBench';
import { Cooling } from '../roast/Cooling';
import { RoastBench } from '../roast/RoastBench';
import { SortBench } from '../sort/SortBench';
import { CAUTIONS, routeCautions } from './cautions';
import { GrindBench } from '../grind/GrindBench';
import { PackBench } from '../pack/PackBench';
import { RestBench } from '../rest/RestBench';
import { TemperBench } from '../temper/TemperBench';
import { TasteBench } from '../taste/TasteBench';
import { WithPadPlace } from '../entry/PadPlace';
import { SavedHere, SavedNote, type SavedEntry } from '../entry/SavedNote';
import { WinnowBench } from '../winnow/WinnowBench';
import { MouldBench } from '../mould/MouldBench';

const YieldChart = lazy(() => import('../charts/YieldChart'));

/** What a person at a station sees. */
export function Bench() {
  const { station = '' } = useParams();
  if (!isStation(station)) {
    return <Empty title="There is no such station.">The ten stations are in the band at the top.</Empty>;
  }
  return <BenchOf key={station} station={station} />;
}

function BenchOf({ station }: { station: Station }) {
  const bench = useApi<BenchView>(`/api/${station}/bench`);
  const { routes } = useHere().view;
  const [saved, setSaved] = useState<SavedEntry | null>(null);
  const view = bench.data;
  // One unit a screen, chosen by the largest on it.
  const unit = useUnitOf(view ? massesOf(view) : []);
  const show = useShow(unit);
  if (!view) return <Loading error={bench.error} />;
  return (
    <MassUnitHere value={unit}>
      <WithPadPlace>
        {(pad) => (
          <div className="grid gap-10 lg:grid-cols-[minmax(0,1fr)_17.5rem]">
            <div className="min-w-0">
              <div className="mb-3 flex flex-wrap items-baseline gap-x-5 gap-y-1">
                <h1 className="flex items-center gap-3 text-3xl">
                  <StationIcon station={station} size={28} />
                  {STATION_NAMES[station]}
                </h1>
                <p className="text-lg text-soft">{capital(stateWords(view, show.mass))}</p>
              </div>
              {saved && <SavedNote entry={saved} />}
              <SavedHere value={setSaved}>{SURFACES[station](view)}</SavedHere>
            </div>
            <aside aria-label="Judgement, cautions and log" className="min-w-0">
              {pad}
              <div className="mb-5 grid gap-3">
                {[...routeCautions(view, routes), ...CAUTIONS[station]].map((text) => (
                  <Caution key={text}>{text}</Caution>
                ))}
              </div>
              {view.judgement && <Verdict title={`Last one done, ${view.judgement.code}`} judgement={view.judgement} />}
              {view.history.length >= 4 && (
                <div className="mt-4">
                  <Suspense fallback={<div className="h-40" />}>
                    <YieldChart
                      points={view.history.slice(-40)}
                      chart={view.judgement?.chart ?? null}
                      watch={view.judgement?.tone === 'watch'}
                    />
                  </Suspense>
                </div>
              )}
              <h2 className="mt-6 mb-1 text-lg">Log</h2>
              <Log steps={view.recent} station={false} />
            </aside>
          </div>
        )}
      </WithPadPlace>
    </MassUnitHere>
  );
}

/** Every weight that stands at a station. */
const massesOf = ({ waiting, works, grinds }: BenchView): number[] => [
  ...waiting.map(({ massMg }) => massMg),
  ...works.map(({ massMg }) => massMg),
  ...grinds.map(({ massMg }) => massMg),
];

const SURFACES: Record<Station, (view: BenchView) => ReactNode> = {
  beans: (view) => <BeansBench view={view} />,
  sort: (view) => <SortBench view={view} />,
  roast: (view) => <RoastBench view={view} />,
  winnow: (view) => (
    <>
      <WinnowBench view={view} />
      <Cooling />
    </>
  ),
  grind: (view) => <GrindBench view={view} />,
  rest: (view) => <RestBench view={view} />,
  temper: (view) => <TemperBench view={view} />,
  mould: (view) => <MouldBench view={view} />,
  pack: (view) => <PackBench view={view} />,
  taste: (view) => <TasteBench view={view} />,
};

function stateWords(view: BenchView, mass: (mg: number) => string): string {
  const running = view.works.length + view.grinds.length;
  const free = view.waiting.filter(({ freeMg, pieces }) => freeMg > 0 || pieces > 0);
  const waitingMg = view.waiting.reduce((sum, { freeMg }) => sum + freeMg, 0);
  const count = (n: number, one: string, many: string): string => (n === 1 ? `one ${one}` : `${n} ${many}`);
  if (view.station === 'beans')
    return view.waiting.length === 0
      ? 'No beans in the house yet.'
      : `${mass(waitingMg)} in ${count(view.waiting.length, 'lot', 'lots')}.`;
  if (view.station === 'taste')
    return view.untasted.length === 0
      ? 'Everything on the shelf has been tasted.'
      : `${count(view.untasted.length, 'batch is', 'batches are')} waiting to be tasted.`;
  if (view.station === 'rest')
    return free.length === 0
      ? 'The shelf is empty.'
      : `${mass(waitingMg)} on the shelf in ${count(free.length, 'block', 'blocks')}.`;
  if (view.station === 'pack')
    return free.length === 0
      ? 'Nothing waits to be packed.'
      : `${formatCount(free.reduce((sum, { pieces }) => sum + pieces, 0))} bars wait to be packed${free.some(({ pieces }) => pieces === 0) ? ', and what is weighed into packs' : ''}.`;
  const now = running === 0 ? 'Nothing under way' : `${count(running, 'load', 'loads')} under way`;
  const wait =
    free.length === 0 ? 'nothing waiting' : `${mass(waitingMg)} waiting in ${count(free.length, 'tub', 'tubs')}`;
  return `${now}, ${wait}.`;
}
