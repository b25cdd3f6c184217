import { median, MEDIAN_TO_SD } from './spread';

const { exp, log, max, min, abs, sqrt } = Math;

/** When a series left its level, how it did, and how sure that is. Indices count from 0 in the order given. */
export interface ChangePoint {
  kind: 'step' | 'drift';
  /** The first value that is no longer on the old level: the likeliest, and the ends of its 95 % interval. */
  at: number;
  low: number;
  high: number;
  /** Change from the old level to the end of the series, in the unit of the values. */
  change: number;
  /** Logarithm of how much likelier it is with a change than without, over what chance reaches; over 0 always. */
  evidence: number;
}

/** Fewer values than this on either side say nothing about a level. */
const SHORTEST = 4;
/** Fewer between two changes are one. */
const APART = 3;
const LEVEL = 0.95;
/** Correlation of a value with the one before that is reckoned with; a bench that runs warm stays warm for a while. */
const CORRELATIONS = [0, 0.2, 0.4];
/** Values further from their neighbours than so many deviations are pulled in: heavy tails are no change. */
const TAIL = 3;
const NEIGHBOURS = 3;

/**
 * What the logarithm of the odds reaches by chance in one series of twenty, with neighbours correlated by 0.3 and heavy
 * tails; found by simulation (`npm run calibrate`). Short series reach further: their correlation is not known.
 */
const BY_CHANCE = { always: 1.7, short: 32 };

/** One correlation's view of the series: whitened, with the groups' levels taken out. */
interface View {
  y: Float64Array;
  still: number;
  logScale: number;
  /** Columns of the shapes: a step and a ramp for each place. */
  steps: Float64Array[];
  ramps: Float64Array[];
}

/**
 * Finds where a series steps or begins to drift, though the drift may come to rest and another change may follow.
 *
 * A level (one for each group) plus, from a first place on, a step or a ramp, and perhaps from a second place on
 * another: all of them, with noise whose neighbours are correlated by 0 to 0.4, are weighed by their likelihood
 * under unit-information priors (Kass & Wasserman 1995, J. Am. Stat. Assoc. 90, 928–934). The posterior of the first
 * place over all of them gives the interval; values far off their neighbours are pulled in beforehand.
 *
 * @param values in time order; @param groups what each value belongs to, where levels differ from the start
 * @returns null when it may well be chance (one unchanged series in twenty is called changed at most, up to a
 *   correlation of 0.3), or with fewer than eleven values
 */
export function findChange(values: readonly number[], groups: readonly string[] = []): ChangePoint | null {
  const n = values.length;
  if (n < 2 * SHORTEST + 3) return null;
  const of = Array.from({ length: n }, (_, i) => groups[i] ?? '');
  const names = [...new Set(of)];
  if (n - names.length < 4) return null;
  const tame = pulledIn(values, of);
  const spread = max(...tame) - min(...tame);
  if (spread <= 1e-9 * max(1, ...tame.map(abs))) return null;
  const views = CORRELATIONS.map((rho) => viewOf(tame, of, names, rho));
  const places = Array.from({ length: n - 2 * SHORTEST + 1 }, (_, i) => SHORTEST + i);
  const still = logSum(views.map((view) => -0.5 * n * log(view.still) + view.logScale));
  const chance = BY_CHANCE.always + BY_CHANCE.short / n;
  const columns = 2 * places.length;
  const models = new Weighed(views.length * (columns + (3 * columns * columns) / 4 + columns));
  oneChange(models, views, places, n);
  // A second change can only help where one alone is not far from speaking.
  if (models.logTotal - still < chance - 4) return null;
  twoChanges(models, views, places, n);
  const evidence = models.logTotal - still - chance;
  return evidence > 0 ? { ...models.summed, evidence } : null;
}

function greatest(values: ArrayLike<number>): number {
  let most = -Infinity;
  for (let i = 0; i < values.length; i += 1) most = max(most, values[i] ?? -Infinity);
  return most;
}

function logSum(logs: ArrayLike<number>): number {
  const most = greatest(logs);
  let sum = 0;
  for (let i = 0; i < logs.length; i += 1) sum += exp((logs[i] ?? 0) - most);
  return most + log(sum);
}

/**
 * The series with outliers pulled in: values off the middle of those before them and of those after them, to the same
 * side. The first value on a new level is off the ones before it only.
 */
function pulledIn(values: readonly number[], groups: readonly string[]): number[] {
  const beside = (i: number, by: 1 | -1): number | null => {
    const near: number[] = [];
    for (let j = i + by; j >= 0 && j < values.length && near.length < NEIGHBOURS; j += by)
      if (groups[j] === groups[i]) near.push(values[j] ?? 0);
    return near.length < NEIGHBOURS ? null : (values[i] ?? 0) - median(near);
  };
  const steps = values.flatMap((value, i) =>
    i > 0 && groups[i] === groups[i - 1] ? [abs(value - (values[i - 1] ?? 0))] : [],
  );
  const most = (TAIL * MEDIAN_TO_SD * median(steps)) / sqrt(2);
  return values.map((value, i) => {
    const [before, after] = [beside(i, -1), beside(i, 1)];
    if (before === null || after === null || before * after <= 0) return value;
    const off = abs(before) < abs(after) ? before : after;
    return value - off + max(-most, min(most, off));
  });
}

function viewOf(values: readonly number[], groups: readonly string[], names: readonly string[], rho: number): View {
  const n = values.length;
  const whiten = (row: (i: number) => number): Float64Array => {
    const out = new Float64Array(n);
    for (let i = 0; i < n; i += 1) out[i] = i === 0 ? sqrt(1 - rho * rho) * row(0) : row(i) - rho * row(i - 1);
    return out;
  };
  const levels: Float64Array[] = [];
  for (const name of names) {
    const column = without(
      whiten((i) => (groups[i] === name ? 1 : 0)),
      levels,
    );
    const length = sqrt(dot(column, column));
    if (length > 1e-9) levels.push(column.map((v) => v / length));
  }
  const clear = (row: (i: number) => number): Float64Array => without(whiten(row), levels);
  const y = clear((i) => values[i] ?? 0);
  const steps: Float64Array[] = [];
  const ramps: Float64Array[] = [];
  for (let at = SHORTEST; at <= n - SHORTEST; at += 1) {
    steps[at] = clear((i) => (i < at ? 0 : 1));
    ramps[at] = clear((i) => (i < at ? 0 : i - at + 1));
  }
  return { y, still: max(dot(y, y), 1e-300), logScale: 0.5 * log(1 - rho * rho), steps, ramps };
}

function dot(a: Float64Array, b: Float64Array): number {
  let sum = 0;
  for (let i = 0; i < a.length; i += 1) sum += (a[i] ?? 0) * (b[i] ?? 0);
  return sum;
}

function without(column: Float64Array, levels: readonly Float64Array[]): Float64Array {
  for (const level of levels) {
    const by = dot(column, level);
    for (let i = 0; i < column.length; i += 1) column[i] = (column[i] ?? 0) - by * (level[i] ?? 0);
  }
  return column;
}

/** Weight of a model: its fit, what its free figures cost, and how many places it might have chosen. */
const weigh = (n: number, view: View, sse: number, free: number, places: number): number =>
  -0.5 * n * log(max(sse, 1e-9 * view.still)) + view.logScale - 0.5 * free * log(n) - log(places);

/** Models weighed so far, in columns: there are tens of thousands. */
class Weighed {
  private count = 0;
  private readonly at: Uint16Array;
  private readonly drift: Uint8Array;
  private readonly weight: Float64Array;
  private readonly change: Float64Array;

  constructor(most: number) {
    this.at = new Uint16Array(most);
    this.drift = new Uint8Array(most);
    this.weight = new Float64Array(most);
    this.change = new Float64Array(most);
  }

  add(at: number, kind: ChangePoint['kind'], logWeight: number, change: number): void {
    this.at[this.count] = at;
    this.drift[this.count] = kind === 'drift' ? 1 : 0;
    this.weight[this.count] = logWeight;
    this.change[this.count] = change;
    this.count += 1;
  }

  /** Logarithm of all weights together. */
  get logTotal(): number {
    return logSum(this.weight.subarray(0, this.count));
  }

  /** Likeliest first place, the smallest set of places that holds 95 %, and what happened at the likeliest. */
  get summed(): Omit<ChangePoint, 'evidence'> {
    const most = greatest(this.weight.subarray(0, this.count));
    const mass = new Map<number, number>();
    let total = 0;
    for (let i = 0; i < this.count; i += 1) {
      const weight = exp((this.weight[i] ?? 0) - most);
      const at = this.at[i] ?? 0;
      mass.set(at, (mass.get(at) ?? 0) + weight);
      total += weight;
    }
    const ranked = [...mass].sort(([, p], [, q]) => q - p);
    let held = 0;
    let [low, high] = [Infinity, -Infinity];
    for (const [at, weight] of ranked) {
      [low, high] = [min(low, at), max(high, at)];
      held += weight;
      if (held >= LEVEL * total) break;
    }
    const at = ranked[0]?.[0] ?? 0;
    let best = -1;
    for (let i = 0; i < this.count; i += 1)
      if (this.at[i] === at && (best < 0 || (this.weight[i] ?? 0) > (this.weight[best] ?? 0))) best = i;
    return { kind: this.drift[best] === 1 ? 'drift' : 'step', at, low, high, change: this.change[best] ?? 0 };
  }
}

const KINDS = ['step', 'drift'] as const;
const SMALL = 0.25;
/** How far a column of size one has gone by the end of the series. */
const reach = (kind: ChangePoint['kind'], at: number, n: number): number => (kind === 'step' ? 1 : n - at);

function oneChange(to: Weighed, views: readonly View[], places: readonly number[], n: number): void {
  for (const view of views)
    for (const at of places)
      for (const kind of KINDS) {
        const z = (kind === 'step' ? view.steps : view.ramps)[at] as Float64Array;
        const zz = dot(z, z);
        if (zz < 1e-9) continue;
        const zy = dot(z, view.y);
        const weight = weigh(n, view, view.still - zy ** 2 / zz, 1, 2 * places.length);
        to.add(at, kind, weight, (zy / zz) * reach(kind, at, n));
      }
}

function twoChanges(to: Weighed, views: readonly View[], places: readonly number[], n: number): void {
  const pairs = 5 * ((places.length * places.length) / 2);
  for (const view of views) {
    const columns = places.flatMap((at) =>
      KINDS.map((kind) => {
        const z = (kind === 'step' ? view.steps : view.ramps)[at] as Float64Array;
        return { at, kind, z, own: dot(z, z), along: dot(z, view.y) };
      }),
    );
    for (let i = 0; i < columns.length; i += 1) {
      const first = columns[i] as (typeof columns)[number];
      for (let j = i + 1; j < columns.length; j += 1) {
        const second = columns[j] as (typeof columns)[number];
        if (second.at - first.at < APART) continue;
        const [aa, bb, ab] = [first.own, second.own, dot(first.z, second.z)];
        const [ay, by] = [first.along, second.along];
        const det = aa * bb - ab * ab;
        if (det > 1e-7 * aa * bb) {
          const [c1, c2] = [(bb * ay - ab * by) / det, (aa * by - ab * ay) / det];
          const byThen = abs(c1) * (first.kind === 'step' ? 1 : second.at - first.at);
          // A first change that is nothing beside the second is not when the series left its level.
          const left = byThen < SMALL * abs(c2) * reach(second.kind, second.at, n) ? second : first;
          to.add(
            left.at,
            left.kind,
            weigh(n, view, view.still - c1 * ay - c2 * by, 2, pairs),
            c1 * reach(first.kind, first.at, n) + c2 * reach(second.kind, second.at, n),
          );
        }
        if (first.kind !== 'drift' || second.kind !== 'drift') continue;
        // A drift that comes to rest: the second ramp takes back what the first goes on with.
        const rr = aa + bb - 2 * ab;
        if (rr < 1e-9) continue;
        const ry = ay - by;
        to.add(
          first.at,
          'drift',
          weigh(n, view, view.still - ry ** 2 / rr, 1, pairs),
          (ry / rr) * (second.at - first.at),
        );
      }
    }
  }
}
