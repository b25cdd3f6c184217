import type { LossMetric, LossWatch, SeriesPoint, SeriesView } from '@wunsch/core/api/losses';
import { DomainError } from '@wunsch/core/errors/domain-error';
import type { Book } from '@wunsch/core/ledger/book';
import type { Step } from '@wunsch/core/ledger/types';
import { percent } from '@wunsch/core/ledger/yields';
import { YIELDS } from '@wunsch/core/stations';
import { findChange } from '@wunsch/core/stats/change-point';
import { individuals, signalsOf } from '@wunsch/core/stats/individuals';
import type { Station } from '@wunsch/core/work/stations';
import type { StationYield } from '@wunsch/core/workshop/station';
import { eachAhead, type Ahead } from '../ledger/ahead';
import type { Views } from '../ledger/views';
import type { IndexedYield } from '../ledger/yield-index';

/** Fewer points before a change are no baseline. */
const BASELINE = 12;
/** Newest points of a chart. */
const MOST = 90;
const DAY_MS = 86_400_000;

/** Series that were looked at lately, by all that is in them: an entry at one station leaves the others as they were. */
const lately = new Map<string, ReturnType<typeof findChange>>();
const MOST_KEPT = 64;

function changeIn(values: readonly number[], groups: readonly string[]): ReturnType<typeof findChange> {
  const key = `${values.join()}|${groups.join()}`;
  const known = lately.get(key);
  const found = known === undefined ? findChange(values, groups) : known;
  lately.delete(key);
  lately.set(key, found);
  const [oldest] = lately.keys();
  if (lately.size > MOST_KEPT && oldest !== undefined) lately.delete(oldest);
  return found;
}

function knownOf(station: Station): StationYield {
  const known = YIELDS.find((row) => row.station === station);
  if (!known) throw new DomainError('http/not-found', `No yield is watched at ${station}.`);
  return known;
}

export interface SeriesQuery {
  station: Station;
  metric: LossMetric;
  family: string | null;
  machineId: string | null;
}

/** Yields (or what nobody can explain) of a station in order, with chart, rules and change point. */
export function seriesView(views: Views, query: SeriesQuery): SeriesView {
  const { station, metric, family, machineId } = query;
  const { machines } = views.workshop;
  const all = views.yields.of(knownOf(station).step);
  const rows = newest(family === null ? all : views.yields.ofFamily(knownOf(station).step, family), machineId);
  const values = valuesOf(rows, metric);
  const found = changeIn(values, groupsOf(station, rows));
  // Limits are what the station did before it changed; with too little before, all of it.
  const before = found && found.at >= BASELINE ? found.at : rows.length;
  const points = pointsOf(rows, values, before);
  const levels = points.map(({ level }) => level);
  const chart = individuals(levels.slice(0, before));
  if (chart) signalsOf(levels, chart).forEach((signal, index) => ((points[index] as SeriesPoint).signal = signal));
  const change = found && {
    kind: found.kind,
    index: found.at,
    change: found.change,
    at: points[found.at]?.at ?? 0,
    lowAt: points[found.low]?.at ?? 0,
    highAt: points[found.high]?.at ?? 0,
    code: points[found.at]?.code ?? '',
  };
  const used = new Set(all.slice(-400).map(({ step }) => step?.machineId));
  return {
    ...query,
    machines: [...machines.values()].filter(({ id }) => used.has(id)).map(({ id, name }) => ({ id, name })),
    families: [...new Set(all.slice(-400).map((row) => row.family))].filter((name) => name !== ''),
    points,
    chart,
    change,
    ...words(query, points, change),
  };
}

function newest(rows: readonly IndexedYield[], machineId: string | null): IndexedYield[] {
  if (machineId === null) return rows.slice(-MOST);
  const chosen: IndexedYield[] = [];
  for (let i = rows.length - 1; i >= 0 && chosen.length < MOST; i -= 1) {
    const row = rows[i];
    if (row?.step?.machineId === machineId) chosen.push(row);
  }
  return chosen.reverse();
}

const unaccounted = (step: Step | undefined): number =>
  step?.postings.reduce((sum, p) => (p.loss === 'unaccounted' ? sum + p.massMg : sum), 0) ?? 0;

/** What has a level of its own: a lot, where that is what the station measures; else the family. */
function groupsOf(station: Station, rows: readonly IndexedYield[]): string[] {
  const ofLot = knownOf(station).levelOf === 'lot';
  return rows.map((row) => (ofLot ? (row.lotId ?? row.family) : row.family));
}

/** Yield, or unaccounted share of what went in, of each step. */
function valuesOf(rows: readonly IndexedYield[], metric: LossMetric): number[] {
  return rows.map((row) => (metric === 'yield' ? row.value : unaccounted(row.step) / row.inMg));
}

/**
 * Values, and values with each family's own level taken off and the common one put on.
 *
 * @param before how many of them, from the first, the levels are taken from
 */
function pointsOf(rows: readonly IndexedYield[], values: readonly number[], before: number): SeriesPoint[] {
  const mean = average(values.slice(0, before));
  const byFamily = new Map<string, number[]>();
  rows
    .slice(0, before)
    .forEach((row, i) => byFamily.set(row.family, [...(byFamily.get(row.family) ?? []), values[i] ?? 0]));
  const levels = new Map([...byFamily].map(([family, own]) => [family, average(own)]));
  return rows.map((row, i) => ({
    stepId: row.stepId,
    code: row.code,
    at: row.at,
    family: row.family,
    value: values[i] ?? 0,
    level: (values[i] ?? 0) - (levels.get(row.family) ?? mean) + mean,
    signal: null,
  }));
}

const average = (values: readonly number[]): number =>
  values.length === 0 ? 0 : values.reduce((sum, value) => sum + value, 0) / values.length;

const WHAT: Record<LossMetric, string> = { yield: 'The yield', unaccounted: 'What nobody can explain' };

function words(
  query: SeriesQuery,
  points: readonly SeriesPoint[],
  change: SeriesView['change'],
): Pick<SeriesView, 'sentence' | 'todo'> {
  const { metric, station } = query;
  if (points.length < 6) return { sentence: `Only ${points.length} so far: a chart needs six.`, todo: null };
  const fired = points.filter(({ signal }) => signal !== null).length;
  const newestPoint = points.at(-1);
  const level = points.reduce((sum, point) => sum + point.value, 0) / points.length;
  if (!change) {
    return {
      sentence: `${WHAT[metric]} holds its level, ${percent(level)} on the mean of ${points.length}${fired === 0 ? '' : `; ${fired} single ${fired === 1 ? 'point stands' : 'points stand'} out`}.`,
      todo: newestPoint?.signal != null ? 'The newest point stands out: open it.' : null,
    };
  }
  const worse = metric === 'yield' ? change.change < 0 : change.change > 0;
  const points100 = Math.abs(100 * change.change).toFixed(1);
  const since = change.kind === 'step' ? 'stepped' : 'has been drifting';
  return {
    sentence: `${WHAT[metric]} ${since} ${change.change < 0 ? 'down' : 'up'} by ${points100} points${change.kind === 'drift' ? ' so far' : ''}.`,
    todo: worse ? (knownOf(station)[metric === 'yield' ? 'whenWorse' : 'whenMissing'] ?? TODO[metric]) : null,
  };
}

const TODO: Record<LossMetric, string> = {
  yield: 'Open the steps behind the newest points and see what they have in common.',
  unaccounted: 'Check the scale with a known weight, and look where it could spill.',
};

/** A change is worth a word while it is fresh. */
const FRESH_MS = 270 * DAY_MS;
/** Clearer than this, or nobody is called. */
const CLEAR = 2.4;

interface Watched {
  book: Book;
  /** What it was worked out of. */
  rows: readonly IndexedYield[];
  of: string;
  watch: LossWatch[];
}

const remembered = new WeakMap<Views, Map<string, Watched>>();

const SERIES = YIELDS.flatMap(({ station }) =>
  (['yield', 'unaccounted'] as const).map((metric) => ({ station, metric })),
);

/**
 * Stations that have left their level for the worse lately. A series is worked out when it is asked for first; once it has
 * grown, soon after: whoever asks in that moment hears what it said before, and every screen is told when it says
 * something else.
 */
export const lossWatch = (views: Views): LossWatch[] => SERIES.flatMap((series) => watchOf(views, series));

export const watchAhead = (views: Views): Ahead =>
  eachAhead(
    () => SERIES,
    1,
    (series) => watchOf(views, series),
  );

function watchOf(views: Views, { station, metric }: (typeof SERIES)[number]): LossWatch[] {
  const series = remembered.get(views) ?? new Map<string, Watched>();
  remembered.set(views, series);
  const key = `${station} ${metric}`;
  const known = series.get(key);
  const read = (): Watched => {
    const found = { ...stateOf(views, station), watch: watchOne(views, station, metric) };
    series.set(key, found);
    return found;
  };
  const { book, rows, of } = stateOf(views, station);
  if (known?.book !== book) return read().watch;
  if (known.rows !== rows || known.of !== of) soon(views, key, () => read().watch, known.watch);
  return known.watch;
}

function stateOf({ workshop, yields }: Views, station: Station): Omit<Watched, 'watch'> {
  const rows = yields.of(knownOf(station).step);
  return { book: workshop.book, rows, of: `${rows.length} ${workshop.told} ${Math.floor(workshop.now() / DAY_MS)}` };
}

const waiting = new WeakMap<Views, Set<string>>();
/** Long enough for the answer that is being made now, and for entries that come one upon another. */
const SOON_MS = 500;

/** Works a series out a little later, and tells every screen where it says something else than it did. */
function soon(views: Views, key: string, read: () => LossWatch[], before: LossWatch[]): void {
  const keys = waiting.get(views) ?? new Set();
  waiting.set(views, keys);
  if (keys.has(key)) return;
  keys.add(key);
  // One after another, with others in between.
  const timer = setTimeout(() => {
    keys.delete(key);
    try {
      if (JSON.stringify(read()) !== JSON.stringify(before)) views.workshop.noticed();
    } catch {
      // Whoever asks next has it worked out then, and is told what is wrong.
      remembered.get(views)?.delete(key);
    }
  }, SOON_MS * keys.size);
  timer.unref();
}

function watchOne(views: Views, station: Station, metric: LossMetric): LossWatch[] {
  const { workshop } = views;
  const rows = newest(views.yields.of(knownOf(station).step), null);
  const found = changeIn(valuesOf(rows, metric), groupsOf(station, rows));
  const at = found ? (rows[found.at]?.at ?? 0) : 0;
  const worse = found && (metric === 'yield' ? found.change < -0.004 : found.change > 0.004);
  if (!found || !worse || found.evidence < CLEAR || workshop.now() - at > FRESH_MS) return [];
  const machineId = commonMachine(rows.slice(found.at));
  const machine = machineId === null ? null : (workshop.machines.get(machineId)?.name ?? null);
  const subject = machine ?? `The ${station} station`;
  const verb = found.kind === 'drift' ? 'is drifting' : 'has stepped';
  const what = metric === 'yield' ? 'yield' : 'unaccounted grams';
  return [
    {
      station,
      metric,
      machineId,
      machine,
      at,
      sentence: `${subject} ${verb}: ${what} ${found.change < 0 ? 'down' : 'up'} ${Math.abs(100 * found.change).toFixed(1)} points`,
    },
  ];
}

/** Of the steps since, so many name one machine: then it is that machine's doing. */
const MOSTLY = 0.8;

/** The machine that nearly all of some steps ran on. */
function commonMachine(rows: readonly IndexedYield[]): string | null {
  const counts = new Map<string, number>();
  for (const { step } of rows) {
    const machineId = step?.machineId ?? null;
    if (machineId !== null) counts.set(machineId, (counts.get(machineId) ?? 0) + 1);
  }
  return [...counts].find(([, count]) => count >= MOSTLY * rows.length)?.[0] ?? null;
}
