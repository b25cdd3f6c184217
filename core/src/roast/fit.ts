import { CholeskyDecomposition, inverse, Matrix } from 'ml-matrix';
import { estimateAt, type BayesLine, type Estimate } from '../stats/bayes-line';
import { formatDegrees, type TemperatureUnit } from '../units/temperature';
import { seeded } from '../stats/chance';
import { follower, PERFECT_PROBE, type AirCurve, type BeanParameters, type ProbeParameters } from './model';
import type { RoasterFacts, Setting } from './records';
import { airFromSettings, simulateSettings, type AirParameters, type Roaster } from './simulate';

const { exp, max, min, abs, log, sqrt, ceil, cos, floor, hypot, PI } = Math;

/** A logged load as the fit wants it. Times in minutes since the load went in, °C, NaN where nothing was read. */
export interface LoggedLoad {
  code: string;
  massG: number;
  layerMm: number | null;
  /** Water, share of the wet weight. */
  moisture: number;
  beanStartC: number | null;
  /** Weight out over weight in; null where it was not weighed. */
  weightLeft: number | null;
  settings: readonly Setting[];
  preheatC: number;
  minutes: ArrayLike<number>;
  beanC: ArrayLike<number>;
  airC: ArrayLike<number>;
}

export interface LoadFit {
  code: string;
  parameters: BeanParameters;
  /** Typical distance of the readings from the model, °C. */
  rmsC: number;
}

/** What a roaster has been found to do, and how sure that is. */
export interface RoasterFit {
  air: AirParameters;
  /** Whether any air was read; else it was found from the beans alone. */
  airRead: boolean;
  probe: ProbeParameters;
  /** By how much less warmth dry beans take on, share. */
  fade: number;
  /** All figures common to its loads, as they were fitted, with their covariance: what draws of it are made from. */
  common: number[];
  covariance: number[][];
  /** Logarithm of the warming against the logarithm of the load's size. */
  warming: BayesLine;
  drying: BayesLine;
  /** What the size of a load is measured by, and the size that counts as 1. */
  sizeBy: 'layer' | 'mass';
  size: number;
  loads: LoadFit[];
  /** What has been logged: least and most of the logarithm of the size, and of the mean setting, °C. */
  seen: { size: [number, number]; setC: [number, number] } | null;
  heldOut: HeldOut | null;
}

/** How well whole programs are foretold, settings only, by a fit that has not seen the load. */
export interface HeldOut {
  n: number;
  /** Root mean square over all readings, °C. */
  rmsC: number;
  /** The same of the last reading alone. */
  endC: number;
  /** The same in each quarter of a roast, °C. */
  quartersC: number[];
  /** Of weight left, in shares; null where none was weighed. */
  weight: number | null;
  /** What the model could not follow within a load that it knew, °C. */
  restC: number;
  /** How far loads were missed for each unit of what the fit expected to miss them by. */
  stretch: number;
}

interface Defaults {
  warmingPerMin: number;
  dryingPerMin: number;
  air: AirParameters;
}

/** Where a roaster of a kind begins before anything was logged on it. */
export const DEFAULTS: Record<RoasterFacts['kind'], Defaults> = {
  oven: { warmingPerMin: 0.17, dryingPerMin: 0.09, air: { lagMin: 3, dipC: 25, underC: 4 } },
  drum: { warmingPerMin: 0.24, dryingPerMin: 0.09, air: { lagMin: 2.5, dipC: 45, underC: 4 } },
  pan: { warmingPerMin: 0.3, dryingPerMin: 0.09, air: { lagMin: 1.5, dipC: 30, underC: 4 } },
  other: { warmingPerMin: 0.18, dryingPerMin: 0.09, air: { lagMin: 3, dipC: 30, underC: 4 } },
};

/** Dried beans as they are stored, when nobody measured. */
export const USUAL_MOISTURE = 0.07;
const ROOM_C = 20;
/** A reading says something new every half minute: neighbours share their error. */
const FRESH_MIN = 0.5;
const BEAN_ERROR_C = 1.5;
const AIR_ERROR_C = 5;
const WEIGHT_ERROR = 0.003;
/** From load to load a roaster differs by about a tenth, as sure as four loads would make it. */
const SCATTER = 0.09;
const WORTH = 4;
const FEWEST_READINGS = 12;
/** Readings of one load that the fit looks at. */
const LOOKS = 60;
const FIT_STEP_S = 30;
const ROUNDS = 14;
const FOLDS = 8;

/* What is the same for every load of a roaster, in the order of the vectors below. */
const NAMES = ['warming', 'slope', 'drying', 'under', 'lag', 'dip', 'fade', 'airShare', 'probeLag'] as const;
type Common = number[];
const at = Object.fromEntries(NAMES.map((name, i) => [name, i])) as Record<(typeof NAMES)[number], number>;
/** How far common figures may be from where they begin, as a standard deviation. */
const PRIOR_SD = [0.4, 0.3, 0.5, 4, 0.4, 15, 0.2, 0.06, 0.6];
const FADE = 0.15;
const AIR_SHARE = 0.04;
const PROBE_LAG_MIN = 0.4;
/** Steps of the numeric derivatives. */
const NUDGE = [1e-3, 1e-3, 1e-3, 0.05, 1e-3, 0.05, 1e-3, 1e-3, 1e-2];

const priorOf = (kind: RoasterFacts['kind']): Common => {
  const { warmingPerMin, dryingPerMin, air } = DEFAULTS[kind];
  return [
    log(warmingPerMin),
    -0.5,
    log(dryingPerMin),
    air.underC,
    log(air.lagMin),
    air.dipC,
    FADE,
    AIR_SHARE,
    log(PROBE_LAG_MIN),
  ];
};

const value = (common: Common, name: keyof typeof at): number => common[at[name]] ?? 0;

/** The roaster that common figures stand for, with one load's own deviations. @param x logarithm of its size */
const roasterOf = (common: Common, x: number, own: readonly [number, number]): Roaster => ({
  air: { lagMin: exp(value(common, 'lag')), dipC: value(common, 'dip'), underC: value(common, 'under') },
  probe: {
    airShare: min(0.6, max(0, value(common, 'airShare'))),
    lagMin: exp(value(common, 'probeLag')),
  },
  beans: {
    warmingPerMin: exp(value(common, 'warming') + value(common, 'slope') * x + own[0]),
    dryingPerMin: exp(value(common, 'drying') + own[1]),
    fade: min(0.8, max(-0.3, value(common, 'fade'))),
  },
});

/** Readings of one kind that the fit looks at. */
function readings(load: LoggedLoad, of: ArrayLike<number>, most = LOOKS): { minutes: number[]; tempC: number[] } {
  const rows: [number, number][] = [];
  for (let i = 0; i < load.minutes.length; i += 1) {
    const tempC = of[i];
    if (tempC !== undefined && Number.isFinite(tempC)) rows.push([load.minutes[i] ?? 0, tempC]);
  }
  const every = max(1, ceil(rows.length / most));
  const some = rows.filter((_, i) => i % every === 0);
  return { minutes: some.map(([m]) => m), tempC: some.map(([, c]) => c) };
}

/** Air as it was read, gaps bridged; from the settings where there was no air probe. */
export function airOf(load: LoggedLoad, air: AirParameters): AirCurve {
  const kept: [number, number][] = [];
  for (let i = 0; i < load.minutes.length; i += 1) {
    const tempC = load.airC[i];
    if (tempC !== undefined && Number.isFinite(tempC)) kept.push([load.minutes[i] ?? 0, tempC]);
  }
  if (kept.length >= FEWEST_READINGS) return { minutes: kept.map(([m]) => m), tempC: kept.map(([, c]) => c) };
  return { minutes: load.minutes, tempC: airFromSettings(load.settings, load.preheatC, air, load.minutes) };
}

/** One load, made ready: what was read of it, how much each reading counts, and its own deviations so far. */
interface Ready {
  load: LoggedLoad;
  x: number;
  bean: { minutes: number[]; tempC: number[] };
  air: { minutes: number[]; tempC: number[] };
  startC: number;
  endMin: number;
  beanWeight: number;
  airWeight: number;
  own: [number, number];
}

const freshness = (minutes: readonly number[]): number => {
  const span = (minutes.at(-1) ?? 0) - (minutes[0] ?? 0);
  return sqrt(min(1, span / FRESH_MIN / max(1, minutes.length)));
};

function makeReady(load: LoggedLoad): Ready | null {
  const bean = readings(load, load.beanC);
  if (bean.minutes.length < FEWEST_READINGS) return null;
  const heard = readings(load, load.airC);
  const air = heard.minutes.length >= FEWEST_READINGS && load.settings.length > 0 ? heard : { minutes: [], tempC: [] };
  const startC = load.beanStartC ?? ((bean.minutes[0] ?? 1) < 0.25 ? (bean.tempC[0] ?? ROOM_C) : ROOM_C);
  return {
    load,
    x: 0,
    bean,
    air,
    startC,
    endMin: max(0.1, load.minutes[load.minutes.length - 1] ?? 0),
    beanWeight: freshness(bean.minutes) / BEAN_ERROR_C,
    airWeight: freshness(air.minutes) / AIR_ERROR_C,
    own: [0, 0],
  };
}

/** Everything that a roaster of these figures would have made the probes and the scale say of a load, weighted. */
function said(ready: Ready, common: Common, own: readonly [number, number]): Float64Array {
  const { load, bean, air } = ready;
  const roaster = roasterOf(common, ready.x, own);
  const curve = simulateSettings(
    load.settings,
    load.preheatC,
    roaster,
    { beanC: ready.startC, moisture: load.moisture },
    ready.endMin,
    FIT_STEP_S,
  );
  const out = new Float64Array(bean.minutes.length + air.minutes.length + (load.weightLeft === null ? 0 : 1));
  const beanAt = follower({ minutes: curve.minutes, tempC: curve.beanC });
  bean.minutes.forEach((minute, i) => (out[i] = beanAt(minute) * ready.beanWeight));
  if (air.minutes.length > 0) {
    const line = airFromSettings(load.settings, load.preheatC, roaster.air, air.minutes);
    air.minutes.forEach((_, i) => (out[bean.minutes.length + i] = (line[i] ?? 0) * ready.airWeight));
  }
  if (load.weightLeft !== null) out[out.length - 1] = curve.weightLeft / WEIGHT_ERROR;
  return out;
}

function heard(ready: Ready): Float64Array {
  const { load, bean, air, beanWeight, airWeight } = ready;
  return Float64Array.from([
    ...bean.tempC.map((c) => c * beanWeight),
    ...air.tempC.map((c) => c * airWeight),
    ...(load.weightLeft === null ? [] : [load.weightLeft / WEIGHT_ERROR]),
  ]);
}

interface Fitted {
  common: Common;
  /** Covariance of the common figures. */
  covariance: Matrix;
  /** How far loads lie apart in the logarithm of warming and of drying. */
  scatter: [number, number];
  rows: Ready[];
}

const square = (values: Iterable<number>): number => {
  let sum = 0;
  for (const v of values) sum += v * v;
  return sum;
};

/** Cost of a fit: squared distances, and how far it went from where it began. */
function costOf(
  rows: readonly Ready[],
  said: readonly Float64Array[],
  common: Common,
  prior: Common,
  scatter: readonly number[],
): number {
  let cost = 0;
  rows.forEach((row, i) => {
    const want = heard(row);
    said[i]?.forEach((v, j) => (cost += robust((want[j] ?? 0) - v)));
    cost += (row.own[0] / (scatter[0] ?? 1)) ** 2 + (row.own[1] / (scatter[1] ?? 1)) ** 2;
  });
  return cost + square(common.map((v, k) => (v - (prior[k] ?? 0)) / (PRIOR_SD[k] ?? 1)));
}

/** A reading far off the line (a knocked probe, an open door) counts by its distance, not its square (Huber). */
const HUBER = 3;
const robust = (r: number): number => (abs(r) <= HUBER ? r * r : HUBER * (2 * abs(r) - HUBER));
const robustWeight = (r: number): number => (abs(r) <= HUBER ? 1 : HUBER / abs(r));

/**
 * All loads of a roaster together: figures that are common to them, and for each load how its beans warmed and dried
 * differently (normal about the common figures, with a scatter that is learned too). Gauss–Newton steps with
 * Levenberg's damping; each load's own figures are eliminated first, so that forty loads cost forty times one.
 */
function fitTogether(rows: Ready[], prior: Common, rounds: number, from?: Pick<Fitted, 'common' | 'scatter'>): Fitted {
  const K = prior.length;
  let common = [...(from?.common ?? prior)];
  let scatter: [number, number] = [...(from?.scatter ?? [SCATTER, SCATTER])];
  let damping = 0.01;
  let now = rows.map((row) => said(row, common, row.own));
  let cost = costOf(rows, now, common, prior, scatter);
  let covariance = Matrix.diag(PRIOR_SD.map((sd) => sd ** 2));
  for (let round = 0; round < rounds; round += 1) {
    const S = Matrix.diag(PRIOR_SD.map((sd) => sd ** -2));
    const b = prior.map((p, k) => (p - (common[k] ?? 0)) / (PRIOR_SD[k] ?? 1) ** 2);
    const locals: { H: [number, number, number]; g: [number, number]; C: Float64Array[] }[] = [];
    const priorLocal = [scatter[0] ** -2, scatter[1] ** -2] as const;
    const ownVariance: [number, number] = [0, 0];
    rows.forEach((row, i) => {
      const base = now[i] as Float64Array;
      const want = heard(row);
      const residual = want.map((v, j) => v - (base[j] ?? 0));
      const weight = residual.map(robustWeight);
      const J = NAMES.map((_, k) => {
        const nudge = NUDGE[k] ?? 1e-3;
        const moved = said(
          row,
          common.map((v, j) => (j === k ? v + nudge : v)),
          row.own,
        );
        return moved.map((v, j) => (v - (base[j] ?? 0)) / nudge);
      });
      const L = ([0, 1] as const).map((k) => {
        const moved = said(row, common, [row.own[0] + (k === 0 ? 1e-3 : 0), row.own[1] + (k === 1 ? 1e-3 : 0)]);
        return moved.map((v, j) => (v - (base[j] ?? 0)) / 1e-3);
      });
      const dot = (p: Float64Array, q: Float64Array): number => {
        let sum = 0;
        for (let j = 0; j < p.length; j += 1) sum += (p[j] ?? 0) * (q[j] ?? 0) * (weight[j] ?? 1);
        return sum;
      };
      const [l0, l1] = L as [Float64Array, Float64Array];
      const H: [number, number, number] = [
        (dot(l0, l0) + priorLocal[0]) * (1 + damping),
        dot(l0, l1),
        (dot(l1, l1) + priorLocal[1]) * (1 + damping),
      ];
      const g: [number, number] = [
        dot(l0, residual) - priorLocal[0] * row.own[0],
        dot(l1, residual) - priorLocal[1] * row.own[1],
      ];
      const C = J.map((j) => Float64Array.from([dot(j, l0), dot(j, l1)]));
      const det = H[0] * H[2] - H[1] ** 2;
      ownVariance[0] += H[2] / det;
      ownVariance[1] += H[0] / det;
      for (let p = 0; p < K; p += 1) {
        const [jp, cp] = [J[p] as Float64Array, C[p] as Float64Array];
        const along: [number, number] = [
          (H[2] * (cp[0] ?? 0) - H[1] * (cp[1] ?? 0)) / det,
          (H[0] * (cp[1] ?? 0) - H[1] * (cp[0] ?? 0)) / det,
        ];
        b[p] = (b[p] ?? 0) + dot(jp, residual) - along[0] * g[0] - along[1] * g[1];
        for (let q = 0; q < K; q += 1) {
          const cq = C[q] as Float64Array;
          S.set(p, q, S.get(p, q) + dot(jp, J[q] as Float64Array) - along[0] * (cq[0] ?? 0) - along[1] * (cq[1] ?? 0));
        }
      }
      locals.push({ H, g, C });
    });
    covariance = symmetric(inverse(S));
    const damped = S.clone();
    for (let p = 0; p < K; p += 1) damped.set(p, p, damped.get(p, p) * (1 + damping));
    const step = inverse(damped).mmul(Matrix.columnVector(b)).to1DArray();
    const next = common.map((v, k) => v + (step[k] ?? 0));
    const before = rows.map(({ own }) => own);
    rows.forEach((row, i) => {
      const { H, g, C } = locals[i] as (typeof locals)[number];
      const r = ([0, 1] as const).map((k) => g[k] - C.reduce((sum, c, p) => sum + (c[k] ?? 0) * (step[p] ?? 0), 0));
      const det = H[0] * H[2] - H[1] ** 2;
      row.own = [
        row.own[0] + (H[2] * (r[0] ?? 0) - H[1] * (r[1] ?? 0)) / det,
        row.own[1] + (H[0] * (r[1] ?? 0) - H[1] * (r[0] ?? 0)) / det,
      ];
    });
    const trial = rows.map((row) => said(row, next, row.own));
    const trialCost = costOf(rows, trial, next, prior, scatter);
    if (!(trialCost < cost)) {
      rows.forEach((row, i) => (row.own = before[i] as [number, number]));
      damping *= 6;
      if (damping > 1e5) break;
      continue;
    }
    const gained = cost - trialCost;
    [common, now] = [next, trial];
    damping = max(1e-6, damping / 5);
    // The scatter of loads about the common figures, as sure as four loads to begin with.
    const learned = ([0, 1] as const).map((k) =>
      sqrt((WORTH * SCATTER ** 2 + square(rows.map(({ own }) => own[k])) + ownVariance[k]) / (WORTH + rows.length)),
    );
    scatter = [learned[0] ?? SCATTER, learned[1] ?? SCATTER];
    cost = costOf(rows, now, common, prior, scatter);
    if (gained < 1e-3 * max(1, trialCost)) break;
  }
  return { common, covariance, scatter, rows };
}

const symmetric = (m: Matrix): Matrix => Matrix.add(m, m.transpose()).mul(0.5);

const part = (m: Matrix, rows: readonly number[]): number[][] => rows.map((p) => rows.map((q) => m.get(p, q)));

/** The lines of a fit, as others read them. */
function linesOf({ common, covariance, scatter, rows }: Fitted): Pick<RoasterFit, 'warming' | 'drying'> {
  const line = (names: (keyof typeof at)[], sd: number): BayesLine => ({
    coefficients: names.map((name) => value(common, name)),
    spread: part(
      covariance,
      names.map((name) => at[name]),
    ).map((row) => row.map((v) => v / sd ** 2)),
    scatter: sd,
    dof: WORTH + rows.length,
    n: rows.length,
  });
  return { warming: line(['warming', 'slope'], scatter[0]), drying: line(['drying'], scatter[1]) };
}

/**
 * What a roaster does, from its logged loads: how its air follows the settings, how beans warm and dry in it, what the
 * probe makes of that. A thousand readings of one load count as one load.
 *
 * How well whole programs are foretold is found by leaving loads out (each by itself, or an eighth of them at a
 * time) and foretelling them from their settings alone, as programs ahead are.
 *
 * @param loads any order; those with too few readings are left out
 */
export function fitRoaster(kind: RoasterFacts['kind'], loads: readonly LoggedLoad[]): RoasterFit {
  const prior = priorOf(kind);
  const rows = loads.map(makeReady).filter((row) => row !== null);
  const sizeBy = rows.length > 0 && rows.every(({ load }) => load.layerMm !== null) ? 'layer' : 'mass';
  const sizes = rows.map(({ load }) => (sizeBy === 'layer' ? (load.layerMm ?? 1) : load.massG));
  const size = sizes.length > 0 ? exp(mean(sizes.map(log))) : 1;
  rows.forEach((row, i) => (row.x = log((sizes[i] ?? size) / size)));
  const fitted = fitTogether(rows, prior, ROUNDS);
  const roaster = roasterOf(fitted.common, 0, [0, 0]);
  return {
    air: roaster.air,
    airRead: rows.some(({ air }) => air.minutes.length > 0),
    probe: roaster.probe ?? PERFECT_PROBE,
    fade: roaster.beans.fade ?? 0,
    common: fitted.common,
    covariance: fitted.covariance.to2DArray(),
    ...linesOf(fitted),
    sizeBy,
    size,
    loads: rows.map((row) => ({
      code: row.load.code,
      parameters: roasterOf(fitted.common, row.x, row.own).beans,
      rmsC: beanRms(row, said(row, fitted.common, row.own)),
    })),
    seen: seenIn(rows),
    heldOut: rows.length < 2 ? null : foretell(fitted, prior),
  };
}

const extent = (values: readonly number[]): [number, number] => [min(...values), max(...values)];

function seenIn(rows: readonly Ready[]): RoasterFit['seen'] {
  if (rows.length === 0) return null;
  return {
    size: extent(rows.map(({ x }) => x)),
    setC: extent(rows.map(({ load }) => meanSetting(load.settings, 60 * (load.minutes[load.minutes.length - 1] ?? 0)))),
  };
}

/** Mean of the settings over the time they held. @param endS when the last of them ended; 0 where nobody knows */
export function meanSetting(settings: readonly Setting[], endS: number): number {
  let [sum, seconds] = [0, 0];
  settings.forEach(({ second, setC }, i) => {
    const until = settings[i + 1]?.second ?? max(endS, second + 300);
    sum += setC * (until - second);
    seconds += until - second;
  });
  return seconds > 0 ? sum / seconds : NaN;
}

/** Errors of a model grow where nothing was logged: °C for each e-fold of the load's size, and for each °C of setting. */
const BEYOND_SIZE_C = 4.5;
const BEYOND_SET = 0.08;

/** How far a load lies beyond all that was logged, as an error in °C that the fit cannot know of. */
export function beyondC(fit: RoasterFit, load: { massG: number; layerMm: number | null }, setC: number): number {
  if (!fit.seen) return 0;
  const outside = (value: number, [low, high]: readonly [number, number]): number =>
    Number.isFinite(value) ? max(0, low - value, value - high) : 0;
  return hypot(BEYOND_SIZE_C * outside(sizeOf(fit, load), fit.seen.size), BEYOND_SET * outside(setC, fit.seen.setC));
}

const beanRms = (row: Ready, values: Float64Array): number =>
  sqrt(square(row.bean.tempC.map((c, i) => (values[i] ?? 0) / row.beanWeight - c)) / max(1, row.bean.tempC.length));

const mean = (values: readonly number[]): number => values.reduce((sum, v) => sum + v, 0) / max(1, values.length);

/** How far a fit expects each reading of a load that it has not seen to be off: variances, weighted as `said` is. */
function variances(row: Ready, { common, covariance, scatter }: Fitted, values: Float64Array): Float64Array {
  const slopes = NAMES.map((_, k) => {
    const nudge = 5 * (NUDGE[k] ?? 1e-3);
    return said(
      row,
      common.map((v, j) => (j === k ? v + nudge : v)),
      [0, 0],
    ).map((v, j) => (v - (values[j] ?? 0)) / nudge);
  });
  const own = ([0, 1] as const).map((k) =>
    said(row, common, [k === 0 ? 0.01 : 0, k === 1 ? 0.01 : 0]).map((v, j) => (v - (values[j] ?? 0)) / 0.01),
  );
  return values.map((_, j) => {
    let sum = 0;
    slopes.forEach((p, k) => slopes.forEach((q, l) => (sum += (p[j] ?? 0) * (q[j] ?? 0) * covariance.get(k, l))));
    return sum + ((own[0]?.[j] ?? 0) * scatter[0]) ** 2 + ((own[1]?.[j] ?? 0) * scatter[1]) ** 2;
  });
}

/** The stretch begins at 1, as sure as so many loads. */
const STRETCH_WORTH = 2;

/** Loads foretold from the others by their settings alone. */
function foretell(fitted: Fitted, prior: Common): HeldOut {
  const { rows } = fitted;
  const folds = min(rows.length, FOLDS);
  let [squares, count, expected, restSquares, endSquares, weightSquares, weighed] = [0, 0, 0, 0, 0, 0, 0];
  const quarters = Array.from({ length: 4 }, () => ({ squares: 0, count: 0 }));
  for (let fold = 0; fold < folds; fold += 1) {
    const kept = rows.filter((_, i) => i % folds !== fold).map((row) => ({ ...row }));
    const without = fitTogether(kept, prior, 3, fitted);
    for (const row of rows.filter((_, i) => i % folds === fold)) {
      const values = said(row, without.common, [0, 0]);
      const allowed = variances(row, without, values);
      row.bean.tempC.forEach((c, i) => {
        const off = ((values[i] ?? 0) / row.beanWeight - c) ** 2;
        const quarter = quarters[min(3, floor((4 * (row.bean.minutes[i] ?? 0)) / row.endMin))];
        squares += off;
        if (quarter) {
          quarter.squares += off;
          quarter.count += 1;
        }
        expected += (allowed[i] ?? 0) / row.beanWeight ** 2;
      });
      const known = said(row, fitted.common, row.own);
      restSquares += square(row.bean.tempC.map((c, i) => (known[i] ?? 0) / row.beanWeight - c));
      count += row.bean.tempC.length;
      const last = row.bean.tempC.length - 1;
      endSquares += ((values[last] ?? 0) / row.beanWeight - (row.bean.tempC[last] ?? 0)) ** 2;
      if (row.load.weightLeft === null) continue;
      weightSquares += ((values.at(-1) ?? 0) * WEIGHT_ERROR - row.load.weightLeft) ** 2;
      weighed += 1;
    }
  }
  const restC = sqrt(restSquares / count);
  const beyond = max(0, squares - restSquares) / max(1e-9, expected);
  return {
    n: rows.length,
    rmsC: sqrt(squares / count),
    endC: sqrt(endSquares / rows.length),
    quartersC: quarters.map((quarter) => sqrt(quarter.squares / max(1, quarter.count))),
    weight: weighed === 0 ? null : sqrt(weightSquares / weighed),
    restC,
    stretch: sqrt((STRETCH_WORTH + rows.length * beyond) / (STRETCH_WORTH + rows.length)),
  };
}

/** The parameters that a fit expects of a load of some size, with how far the next load may be from them. */
export function expectLoad(
  fit: RoasterFit,
  load: { massG: number; layerMm: number | null },
  level = 0.8,
): { warming: Estimate & { sd: number }; drying: Estimate & { sd: number } } {
  const x = sizeOf(fit, load);
  return {
    warming: estimateAt(fit.warming, [1, x], true, level),
    drying: estimateAt(fit.drying, [1], true, level),
  };
}

/** The roaster with the middle of what is expected of a load in it. */
export function expectedRoaster(fit: RoasterFit, load: { massG: number; layerMm: number | null }): Roaster {
  const { warming, drying } = expectLoad(fit, load);
  return {
    air: fit.air,
    probe: fit.probe,
    beans: { warmingPerMin: exp(warming.mean), dryingPerMin: exp(drying.mean), fade: fit.fade },
  };
}

/**
 * Roasters as this one may be for its next load: draws of the common figures and of the load's own, the same every
 * time.
 */
export function drawRoasters(
  fit: RoasterFit,
  load: { massG: number; layerMm: number | null },
  count: number,
): Roaster[] {
  const chance = seeded(61);
  const normal = (): number => sqrt(-2 * log(max(1e-12, chance()))) * cos(2 * PI * chance());
  const factor = new CholeskyDecomposition(new Matrix(fit.covariance)).lowerTriangularMatrix;
  const x = sizeOf(fit, load);
  const one = (sign: number, z: readonly number[], own: readonly [number, number]): Roaster =>
    roasterOf(
      fit.common.map((v, i) => v + sign * z.slice(0, i + 1).reduce((sum, zj, j) => sum + zj * factor.get(i, j), 0)),
      x,
      [sign * own[0] * fit.warming.scatter, sign * own[1] * fit.drying.scatter],
    );
  // In pairs of opposites, so that the draws lie about the middle.
  return Array.from({ length: ceil(count / 2) }, () => {
    const z = fit.common.map(normal);
    const own: [number, number] = [normal(), normal()];
    return [one(1, z, own), one(-1, z, own)];
  }).flat();
}

/** Logarithm of a load's size against the usual; before the first load no size counts. */
function sizeOf(fit: RoasterFit, load: { massG: number; layerMm: number | null }): number {
  const size = fit.sizeBy === 'layer' ? load.layerMm : load.massG;
  return fit.loads.length === 0 || size === null || size <= 0 ? 0 : log(size / fit.size);
}

/** How good a fit is, in a sentence. @param unit that the maker reads */
export function fitWords(fit: RoasterFit, unit: TemperatureUnit = 'C'): string {
  const n = fit.loads.length;
  if (n === 0)
    return 'No load was logged on it yet: the line starts from what such roasters usually do, and the band is wide.';
  if (!fit.heldOut) return 'One load was logged on it: the band is still wide.';
  const weight = fit.heldOut.weight === null ? '' : `, the weight by ${(100 * fit.heldOut.weight).toFixed(1)} points`;
  return `From ${n} logged loads. Foretelling each from the others, by its settings alone, missed the beans by ${formatDegrees(fit.heldOut.rmsC, unit)} on the way and ${formatDegrees(fit.heldOut.endC, unit)} at the end${weight}.`;
}
