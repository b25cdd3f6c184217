import type { LossBookView } from '@wunsch/core/api/losses';
import { lossWay, onePointBetter, type LossRow } from '@wunsch/core/losses/losses';
import { WAY, YIELDS } from '@wunsch/core/stations';
import { addTotals, type StationTotals } from '@wunsch/core/trace/by-station';
import { majorFromMilli } from '@wunsch/core/units/money';
import type { Station } from '@wunsch/core/work/stations';
import { usualBar } from '../ledger/expected';
import type { Views } from '../ledger/views';
import { lossIndex, worthOf, type LossSums } from './index-by-month';
import { lossWatch } from './series';

const DAY_MS = 86_400_000;
const MONTH_MS = 30.4375 * DAY_MS;
const WATCHED = YIELDS.map(({ station }) => station);
const remembered = new WeakMap<Views, { version: string; books: Map<string, Omit<LossBookView, 'watch'>> }>();

/** Where the grams went over some months, for all lots or one family; worked out once a day for each state of the book. */
export function lossBook(views: Views, months: number, family: string | null): LossBookView {
  const { book: ledger, now } = views.workshop;
  const version = `${ledger.state} ${Math.floor(now() / DAY_MS)}`;
  let known = remembered.get(views);
  if (known?.version !== version) {
    known = { version, books: new Map() };
    remembered.set(views, known);
  }
  const key = `${months} ${family ?? ''}`;
  const book = known.books.get(key) ?? makeBook(views, months, family);
  known.books.set(key, book);
  return { ...book, watch: lossWatch(views) };
}

function makeBook(views: Views, months: number, family: string | null): Omit<LossBookView, 'watch'> {
  const to = views.workshop.now();
  const from = to - months * MONTH_MS;
  const byFamily = lossIndex(views).since(from);
  const families = [...byFamily.keys()].filter((name) => name !== '').sort();
  const chosen = family === null ? [...byFamily.values()] : [byFamily.get(family)].filter((sums) => sums !== undefined);
  const flows = addTotals(chosen.map(({ totals }) => totals));
  const way = lossWay(flows, WAY);
  const bar = usualBar(views, family ?? '');
  const first = chosen.reduce((least, { firstAt }) => Math.min(least, firstAt ?? to), to);
  const years = Math.max(1 / 12, (to - Math.max(from, first)) / (12 * MONTH_MS));
  const costs = costAfter(chosen);
  return {
    from,
    to,
    months,
    family,
    families,
    watched: WATCHED,
    way,
    beanToBar: way.length > 0 && way.at(-1)?.station === WATCHED.at(-1) ? (way.at(-1)?.goesOnG ?? 0) / 1000 : null,
    whatIf: way
      .filter(({ station }) => WATCHED.includes(station))
      .map((row) =>
        onePointBetter(row, way, row.inMg / 1000 / years, costs.get(row.station) ?? 0, bar.barG * bar.cacao),
      ),
    unaccounted: way.map((row) => unaccountedAt(row, flows, costs)).filter(({ massMg }) => massMg > 0),
    byFamily: families
      .map((name) => ({ family: name, yields: yieldsOf(lossWay(byFamily.get(name)?.totals ?? [], WAY)) }))
      .filter(({ yields }) => yields.length > 0),
  };
}

const yieldsOf = (way: readonly LossRow[]): LossBookView['byFamily'][number]['yields'] =>
  way.map((row) => ({ station: row.station, value: row.yield, steps: row.steps }));

function unaccountedAt(
  row: LossRow,
  flows: readonly StationTotals[],
  costs: ReadonlyMap<Station, number>,
): LossBookView['unaccounted'][number] {
  const flow = flows.find(({ station }) => station === row.station);
  const massMg = flow?.losses.find(({ cause }) => cause === 'unaccounted')?.mg ?? 0;
  const perKg = costs.get(row.station) ?? 0;
  return {
    station: row.station,
    massMg,
    share: massMg / Math.max(1, row.inMg),
    milli: Math.round((massMg / 1e6) * perKg * 100_000),
  };
}

/** What a kilogram of good output cost after each station, in major units. */
function costAfter(sums: readonly LossSums[]): Map<Station, number> {
  return new Map(
    [...worthOf(sums)].flatMap(([station, { milli, mg }]) =>
      mg > 0 ? [[station, majorFromMilli(milli / (mg / 1e6))] as const] : [],
    ),
  );
}
