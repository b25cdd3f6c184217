import { lazy, Suspense, useState } from 'react';
import { useParams } from 'react-router';
import type { BenchView } from '@wunsch/core/api/types';
import { isStation, STATION_NAMES, type Station } from '@wunsch/core/work/stations';
import { useApi } from '../parts/api';
import { StationIcon } from '../parts/icons';
import { Log } from '../parts/log';
import { Caution, Empty, Loading } from '../parts/pieces';
import { Verdict } from '../parts/Verdict';
import { capital } from '../parts/words';
import { MassUnitHere, useHere, useShow, useUnitOf } from '../parts/workshop';
import { counted } from '../parts/screen';
import { SCREENS } from '../screens';
import { routeCautions } from './cautions';
import { WithPadPlace } from '../entry/PadPlace';
import { SavedHere, SavedNote, type SavedEntry } from '../entry/SavedNote';

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
  const bench = useApi(`/api/${station}/bench`);
  const { routes } = useHere().view;
  const [saved, setSaved] = useState<SavedEntry | null>(null);
  const view = bench.data;
  const { Bench: Surface, cautions, ...words } = SCREENS[station];
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
              <SavedHere value={setSaved}>
                <Surface view={view} />
                {Object.values(SCREENS).map(({ elsewhere }, index) => {
                  const Guest = elsewhere?.[station];
                  return Guest && <Guest key={index} />;
                })}
              </SavedHere>
            </div>
            <aside aria-label="Judgement, cautions and log" className="min-w-0">
              {pad}
              <div className="mb-5 grid gap-3">
                {[...routeCautions(view, routes, words), ...cautions]
                  .map((words) => (typeof words === 'string' ? words : words(show)))
                  .map((text) => (
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

/** How things stand at a station, in a sentence. */
function stateWords(view: BenchView, mass: (mg: number) => string): string {
  const free = view.waiting.filter(({ freeMg, pieces }) => freeMg > 0 || pieces > 0);
  const waitingMg = view.waiting.reduce((sum, { freeMg }) => sum + freeMg, 0);
  const { state } = SCREENS[view.station];
  if (state) return state({ view, free, mass, waitingMg });
  const running = view.works.length + view.grinds.length;
  const now = running === 0 ? 'Nothing under way' : `${counted(running, 'load', 'loads')} under way`;
  const wait =
    free.length === 0 ? 'nothing waiting' : `${mass(waitingMg)} waiting in ${counted(free.length, 'tub', 'tubs')}`;
  return `${now}, ${wait}.`;
}
