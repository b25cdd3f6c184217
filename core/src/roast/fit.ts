import { CholeskyDecomposition, Matrix } from 'ml-matrix';
import { estimateAt, type BayesLine, type Estimate } from '../stats/bayes-line';
import { normals, seeded } from '../stats/chance';
import { formatDegrees, type TemperatureUnit } from '../units/temperature';
import {
  type Common,
  type LoggedLoad,
  type Ready,
  WEIGHT_ERROR,
  at,
  makeReady,
  priorOf,
  roasterOf,
  said,
  value,
} from './logged';
import { PERFECT_PROBE, type BeanParameters, type ProbeParameters } from './model';
import type { RoasterFacts, Setting } from './records';
import type { AirParameters, Roaster } from './simulate';
import { type Fitted, WORTH, fitTogether, slopesOf, square, variances } from './together';

export { airOf, DEFAULTS, USUAL_MOISTURE, type LoggedLoad } from './logged';

const { exp, max, min, log, sqrt, ceil, floor, hypot } = Math;

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

const ROUNDS = 14;

const FOLDS = 8;

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

/** The stretch begins at 1, as sure as so many loads. */
const STRETCH_WORTH = 2;

/** Loads foretold from the others by their settings alone. */
function foretell(fitted: Fitted, prior: Common): HeldOut {
  const { rows } = fitted;
  const folds = min(rows.length, FOLDS);
  let [squares, count, expected, restSquares, endSquares, weightSquares, weighed] = [0, 0, 0, 0, 0, 0, 0];
  const quarters = Array.from({ length: 4 }, () => ({ squares: 0, count: 0 }));
  const slopes = new Map(
    rows.map((row) => [row.load, slopesOf(row, fitted.common, said(row, fitted.common, row.own))]),
  );
  for (let fold = 0; fold < folds; fold += 1) {
    const kept = rows.filter((_, i) => i % folds !== fold).map((row) => ({ ...row }));
    const without = fitTogether(kept, prior, 3, { ...fitted, slopes: ({ load }) => slopes.get(load) });
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
  const normal = normals(seeded(61));
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
