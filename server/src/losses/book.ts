import type { LossBookView } from '@wunsch/core/api/losses';
import { lossWay, onePointBetter, type LossRow } from '@wunsch/core/losses/losses';
import { isByProduct, type Step } from '@wunsch/core/ledger/types';
import { addTotals, totalsByStation, type StationTotals } from '@wunsch/core/trace/flow';
import { majorFromMilli } from '@wunsch/core/units/money';
import type { Station } from '@wunsch/core/work/stations';
import { usualBar } from '../ledger/expected';
import type { Views } from '../ledger/views';
import { lossWatch } from './series';

const DAY_MS = 86_400_000;
const MONTH_MS = 30.4375 * DAY_MS;
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
  const { workshop } = views;
  const to = workshop.now();
  const from = to - months * MONTH_MS;
  const byFamily = stepsByFamily(views, from);
  const families = [...byFamily.keys()].filter((name) => name !== '').sort();
  const chosen = family === null ? [...byFamily.values()].flat() : (byFamily.get(family) ?? []);
  const totals = new Map([...byFamily].map(([name, steps]) => [name, totalsByStation(workshop.book, steps)] as const));
  const flows = family === null ? addTotals([...totals.values()]) : (totals.get(family) ?? []);
  const way = lossWay(flows);
  const bar = usualBar(views, family ?? '');
  const first = chosen.reduce((least, step) => Math.min(least, step.at), to);
  const years = Math.max(1 / 12, (to - Math.max(from, first)) / (12 * MONTH_MS));
  const costs = costAfter(views, chosen);
  return {
    from,
    to,
    months,
    family,
    families,
    way,
    beanToBar: way.length > 0 && way.at(-1)?.station === 'mould' ? (way.at(-1)?.goesOnG ?? 0) / 1000 : null,
    whatIf: way
      .filter(({ station }) => ['sort', 'roast', 'winnow', 'grind', 'mould'].includes(station))
      .map((row) =>
        onePointBetter(row, way, row.inMg / 1000 / years, costs.get(row.station) ?? 0, bar.barG * bar.cacao),
      ),
    unaccounted: way.map((row) => unaccountedAt(row, flows, costs)).filter(({ massMg }) => massMg > 0),
    byFamily: families
      .map((name) => ({ family: name, yields: yieldsOf(lossWay(totals.get(name) ?? [])) }))
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

/** Steps since then by the family of what they made. */
function stepsByFamily(views: Views, from: number): Map<string, Step[]> {
  const { timeline } = views.workshop.book;
  const rows = new Map<string, Step[]>();
  for (let i = timeline.length - 1; i >= 0; i -= 1) {
    const step = timeline[i];
    if (!step || step.at < from) break;
    const made = step.slots['good'] ?? step.batchId;
    if (
      step.postings.length === 0 ||
      made === null ||
      step.kind === 'buy' ||
      step.kind === 'sell' ||
      step.kind === 'return'
    )
      continue;
    const { family } = views.dominant(made);
    const list = rows.get(family);
    if (list) list.push(step);
    else rows.set(family, [step]);
  }
  return rows;
}

/** What a kilogram of good output cost after each station, in major units. */
function costAfter(views: Views, steps: readonly Step[]): Map<Station, number> {
  const { book, valuation } = views.workshop;
  const sums = new Map<Station, { milli: number; mg: number }>();
  for (const step of steps) {
    const cost = valuation.costOf(step.id);
    if (!cost || step.kind === 'charge') continue;
    const sum = sums.get(step.station as Station) ?? { milli: 0, mg: 0 };
    for (const p of step.postings) {
      if (p.holdingId === null || p.massMg <= 0 || isByProduct(book.holding(p.holdingId).kind)) continue;
      sum.mg += p.massMg;
      sum.milli += cost.outputs.get(p.holdingId) ?? 0;
    }
    sums.set(step.station as Station, sum);
  }
  return new Map(
    [...sums].flatMap(([station, { milli, mg }]) =>
      mg > 0 ? [[station, majorFromMilli(milli / (mg / 1e6))] as const] : [],
    ),
  );
}
