import { useSearchParams, Link } from 'react-router';
import type { LossBookView, LossWatch } from '@wunsch/core/api/losses';
import type { StreamStation } from '@wunsch/core/api/types';
import { lossHeadline, ofHeavy } from '@wunsch/core/losses/headline';
import type { LossRow } from '@wunsch/core/losses/losses';
import { LOSS_NAMES } from '@wunsch/core/ledger/types';
import { STATION_NAMES, type Station } from '@wunsch/core/work/stations';
import { numberFormat } from '@wunsch/core/units/formats';
import { formatMass, type MassSystem } from '@wunsch/core/units/mass';
import { useApi } from '../parts/api';
import { Empty, Loading, Section } from '../parts/pieces';
import { count, useHere, useShow } from '../parts/workshop';
import { BatchStream } from '../stream/BatchStream';
import { SeriesSection } from './SeriesSection';
import { SelectBox } from '../parts/choice';

const SPANS = [
  [3, 'three months'],
  [12, 'a year'],
  [1200, 'all of it'],
] as const;

/** Where the grams go between green bean and bar, what one point would bring, and what has left its level. */
export function LossBookPage() {
  const [query, setQuery] = useSearchParams();
  const months = Number(query.get('months') ?? 12) || 12;
  const family = query.get('family');
  const search = new URLSearchParams({ months: String(months), ...(family === null ? {} : { family }) });
  const book = useApi(`/api/losses/book?${search.toString()}`);
  const set = (part: Record<string, string | null>): void => {
    const next = new URLSearchParams(query);
    for (const [name, value] of Object.entries(part)) {
      if (value === null) next.delete(name);
      else next.set(name, value);
    }
    setQuery(next, { replace: true });
  };
  const show = useShow();
  const { massSystem } = useHere().view.settings;
  const view = book.data;
  if (!view) return <Loading error={book.error} />;
  const asked = view.watched.find((station) => station === query.get('station'));
  const shown = asked ?? view.watch[0]?.station ?? mostLost(view);
  const metric = query.get('metric') === 'unaccounted' ? 'unaccounted' : 'yield';
  return (
    <>
      <h1 className="max-w-4xl text-[1.9rem] leading-tight">
        {lossHeadline(view.way, view.beanToBar !== null, massSystem)}
      </h1>
      {view.watch.map((row) => (
        <WatchLine key={row.station + row.metric} row={row} />
      ))}
      <div className="mt-4 flex flex-wrap items-center gap-2" role="group" aria-label="Over which time and which beans">
        {SPANS.map(([count, name]) => (
          <button
            key={count}
            type="button"
            className="chip"
            aria-pressed={months === count}
            onClick={() => set({ months: String(count) })}
          >
            {name}
          </button>
        ))}
        <SelectBox
          className="ml-2 flex w-72 items-center gap-2"
          label="Beans"
          value={family ?? ''}
          options={[['', 'all families'], ...view.families.map((name) => [name, name] as const)]}
          onChange={(name) => set({ family: name === '' ? null : name })}
        />
      </div>
      {view.way.length === 0 ? (
        <div className="mt-6">
          <Empty title="Nothing went through in that time.">
            Sort, roast and winnow a load: every gram that does not come out shows here.
          </Empty>
        </div>
      ) : (
        <>
          <Section
            title={`A ${show.heavyWord} of green beans on its way`}
            aside="shares of what came out of each station"
          >
            <BatchStream stream={asStream(view, massSystem)} title={`Where a ${show.heavyWord} of green beans goes`} />
          </Section>
          <WayTable view={view} shown={shown ?? ''} choose={(name) => set({ station: name, metric: 'yield' })} />
        </>
      )}
      {shown && <SeriesSection watched={view.watched} station={shown} metric={metric} family={family} set={set} />}
      {view.byFamily.length > 0 && <FamilyTable view={view} />}
    </>
  );
}

/** Where the least comes through. */
const mostLost = ({ way, watched }: LossBookView): Station | undefined =>
  way.filter(({ station }) => watched.includes(station)).sort((a, b) => a.yield - b.yield)[0]?.station ?? watched[0];

function WatchLine({ row }: { row: LossWatch }) {
  const show = useShow();
  return (
    <p className="mt-3 rounded-md bg-ripe-wash px-4 py-3" role="alert">
      <strong>{row.sentence}</strong>, since about {show.day(row.at)}.{' '}
      <Link className="link" to={`/losses?station=${row.station}&metric=${row.metric}`}>
        See the chart
      </Link>
    </p>
  );
}

/** The way as a stream: a kilogram or pound at a time, so that its band is continuous. */
function asStream({ way }: LossBookView, massSystem: MassSystem): StreamStation[] {
  const mg = (g: number): number => ofHeavy(g, massSystem);
  return way.map((row) => ({
    station: row.station,
    count: row.steps,
    inMg: mg(row.arrivesG),
    joinedMg: 0,
    goodMg: mg(row.goesOnG),
    byProductMg: mg(row.byProductG),
    losses: row.losses.map(({ cause, g }) => ({ cause, mg: mg(g) })),
    steps: [],
    reworkMg: 0,
    standingMg: 0,
    codes: [],
  }));
}

function WayTable({ view, shown, choose }: { view: LossBookView; shown: string; choose: (station: string) => void }) {
  const show = useShow();
  const { currency, massSystem } = useHere().view.settings;
  const money = (major: number): string =>
    numberFormat({ style: 'currency', currency, maximumFractionDigits: 0 }).format(major);
  const mostMissing = Math.max(0, ...view.unaccounted.map(({ massMg }) => massMg));
  return (
    <div className="mt-4 overflow-x-auto">
      <table className="w-full min-w-[44rem] text-left">
        <thead className="label">
          <tr>
            <th className="py-1 pr-4 font-normal">Station</th>
            <th className="py-1 pr-4 text-right font-normal">Yield</th>
            <th className="py-1 pr-4 font-normal">Lost of each {show.heavyWord} of green beans</th>
            <th className="py-1 pr-4 text-right font-normal">Nobody can explain</th>
            <th className="py-1 text-right font-normal">One point better, a year</th>
          </tr>
        </thead>
        <tbody>
          {view.way.map((row) => {
            const better = view.whatIf.find(({ station }) => station === row.station);
            const missing = view.unaccounted.find(({ station }) => station === row.station);
            return (
              <tr
                key={row.station}
                className={`border-t border-rule align-baseline ${row.station === shown ? 'bg-sheet' : ''}`}
              >
                <td className="py-2 pr-4">
                  {view.watched.includes(row.station) ? (
                    <button type="button" className="link min-h-9" onClick={() => choose(row.station)}>
                      {STATION_NAMES[row.station]}
                    </button>
                  ) : (
                    STATION_NAMES[row.station]
                  )}
                </td>
                <td className="figure py-2 pr-4 text-right text-lg">{show.percent(row.yield)}</td>
                <td className="py-2 pr-4 text-sm">{lossWords(row, massSystem)}</td>
                <td className="py-2 pr-4 text-right text-sm">
                  {missing ? (
                    <>
                      {show.massBeside(missing.massMg, mostMissing)}, {show.money(missing.milli)}
                    </>
                  ) : (
                    <span className="text-soft">–</span>
                  )}
                </td>
                <td className="py-2 text-right text-sm">
                  {better && (
                    <>
                      {show.mass(better.gramsAYear * 1000)}, <strong>{count(Math.round(better.bars))} bars</strong>,{' '}
                      {money(better.money)}
                    </>
                  )}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
      <p className="mt-1 text-sm text-soft">
        One point: a hundredth of what goes in comes out as well. Money is what those grams cost once they have passed
        the station.
      </p>
    </div>
  );
}

function lossWords({ losses, byProductG }: LossRow, massSystem: MassSystem): string {
  const mass = (g: number): string => formatMass(ofHeavy(g, massSystem), massSystem);
  const lost = losses.slice(0, 4).map(({ cause, g }) => `${LOSS_NAMES[cause].toLowerCase()} ${mass(g)}`);
  const husk = byProductG > 0.5 ? [`husk ${mass(byProductG)} (kept)`] : [];
  return [...husk, ...lost].join(', ') || 'nothing';
}

function FamilyTable({ view }: { view: LossBookView }) {
  const show = useShow();
  const stations = view.watched.filter((station) => view.way.some((row) => row.station === station));
  return (
    <Section title="Each family of beans">
      <div className="overflow-x-auto">
        <table className="w-full min-w-[36rem] text-left">
          <thead className="label">
            <tr>
              <th className="py-1 pr-4 font-normal">Beans</th>
              {stations.map((station) => (
                <th key={station} className="py-1 pr-4 text-right font-normal">
                  {STATION_NAMES[station]}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {view.byFamily.map(({ family, yields }) => (
              <tr key={family} className="border-t border-rule">
                <td className="py-2 pr-4">{family}</td>
                {stations.map((station) => {
                  const found = yields.find((row) => row.station === station);
                  return (
                    <td key={station} className="py-2 pr-4 text-right">
                      {found ? (
                        <>
                          <span className="figure">{show.percent(found.value)}</span>{' '}
                          <span className="text-sm text-soft">{found.steps}</span>
                        </>
                      ) : (
                        <span className="text-soft">–</span>
                      )}
                    </td>
                  );
                })}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </Section>
  );
}
