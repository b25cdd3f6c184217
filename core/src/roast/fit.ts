import { levenbergMarquardt } from 'ml-levenberg-marquardt';
import { bayesLine, estimateAt, type BayesLine, type Estimate, type LinePrior } from '../stats/bayes-line';
import { follower, roastBeans, weightLeft, type AirCurve, type BeanCurve, type BeanParameters } from './model';
import { formatDegrees, type TemperatureUnit } from '../units/temperature';
import type { RoasterFacts, Setting } from './records';
import { airFromSettings, type AirParameters } from './simulate';

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
  /** Whether any air was read; else the air is assumed. */
  airRead: boolean;
  /** Logarithm of the warming against the logarithm of the load's size. */
  warming: BayesLine;
  drying: BayesLine;
  /** What the size of a load is measured by, and the size that counts as 1. */
  sizeBy: 'layer' | 'mass';
  size: number;
  loads: LoadFit[];
  heldOut: HeldOut | null;
}

/** How well loads are foretold by a fit that has not seen them. */
export interface HeldOut {
  n: number;
  /** Root mean square over all their readings, °C. */
  rmsC: number;
  /** The same of the last reading alone. */
  endC: number;
  /** Of weight left, in shares; null where none was weighed. */
  weight: number | null;
}

interface Defaults {
  warmingPerMin: number;
  dryingPerMin: number;
  air: AirParameters;
}

/** Where a roaster of a kind begins before anything was logged on it. */
export const DEFAULTS: Record<RoasterFacts['kind'], Defaults> = {
  oven: { warmingPerMin: 0.17, dryingPerMin: 0.09, air: { lagMin: 3, dipC: 25 } },
  drum: { warmingPerMin: 0.24, dryingPerMin: 0.09, air: { lagMin: 2.5, dipC: 45 } },
  pan: { warmingPerMin: 0.3, dryingPerMin: 0.09, air: { lagMin: 1.5, dipC: 30 } },
  other: { warmingPerMin: 0.18, dryingPerMin: 0.09, air: { lagMin: 3, dipC: 30 } },
};

/** Dried beans as they are stored, when nobody measured. */
export const USUAL_MOISTURE = 0.07;
const ROOM_C = 20;
/** A reading says something new about the beans every half minute: neighbours share their error. */
const FRESH_MIN = 0.5;
const TEMPERATURE_ERROR_C = 1.5;
const WEIGHT_ERROR = 0.003;
/** From load to load a roaster differs by about an eighth, as sure as four loads would make it. */
const SCATTER = 0.12;
const WORTH = 4;
const FEWEST_READINGS = 12;
/** A slow bean needs no fine steps; air is straight between readings. */
const FIT_STEP_S = 15;
/** Readings of one load that the fit looks at. */
const LOOKS = 150;

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

function readings(load: LoggedLoad, of: ArrayLike<number>): { minutes: number[]; tempC: number[] } {
  const rows: [number, number][] = [];
  for (let i = 0; i < load.minutes.length; i += 1) {
    const tempC = of[i];
    if (tempC !== undefined && Number.isFinite(tempC)) rows.push([load.minutes[i] ?? 0, tempC]);
  }
  const every = Math.max(1, Math.ceil(rows.length / LOOKS));
  const some = rows.filter((_, i) => i % every === 0);
  return { minutes: some.map(([m]) => m), tempC: some.map(([, c]) => c) };
}

function run(load: LoggedLoad, air: AirCurve, parameters: BeanParameters): BeanCurve {
  const end = load.minutes[load.minutes.length - 1] ?? 0;
  const first = readings(load, load.beanC);
  const startC = load.beanStartC ?? ((first.minutes[0] ?? 1) < 0.25 ? (first.tempC[0] ?? ROOM_C) : ROOM_C);
  return roastBeans(parameters, { beanC: startC, moisture: load.moisture }, air, Math.max(end, 0.1), FIT_STEP_S);
}

const fitOptions = { damping: 0.5, maxIterations: 12, gradientDifference: 1e-3, errorTolerance: 1e-6 };

/**
 * Warming and drying of one load, by least squares (Levenberg–Marquardt) on its bean readings and its weight.
 *
 * @returns null where fewer than twelve bean readings were taken
 */
export function fitLoad(load: LoggedLoad, air: AirParameters, start: BeanParameters): LoadFit | null {
  const read = readings(load, load.beanC);
  const n = read.minutes.length;
  if (n < FEWEST_READINGS) return null;
  const around = airOf(load, air);
  const span = (read.minutes[n - 1] ?? 0) - (read.minutes[0] ?? 0);
  const scale = Math.sqrt(Math.min(1, span / FRESH_MIN / n)) / TEMPERATURE_ERROR_C;
  const y = read.tempC.map((tempC) => tempC * scale);
  if (load.weightLeft !== null) y.push(load.weightLeft / WEIGHT_ERROR);
  const asParameters = ([warming = 0, drying = 0]: number[]): BeanParameters => ({
    warmingPerMin: Math.exp(warming),
    dryingPerMin: Math.exp(drying),
  });
  const model = (logs: number[]): ((index: number) => number) => {
    const curve = run(load, around, asParameters(logs));
    const bean = follower({ minutes: curve.minutes, tempC: curve.beanC });
    return (index) =>
      index < n
        ? bean(read.minutes[index] ?? 0) * scale
        : weightLeft(curve.water.at(-1) ?? 0, load.moisture) / WEIGHT_ERROR;
  };
  const { parameterValues } = levenbergMarquardt({ x: y.map((_, i) => i), y }, model, {
    ...fitOptions,
    initialValues: [Math.log(start.warmingPerMin), Math.log(start.dryingPerMin)],
    minValues: [Math.log(0.005), Math.log(0.001)],
    maxValues: [Math.log(5), Math.log(2)],
  });
  const best = model(parameterValues);
  const squares = read.tempC.reduce((sum, tempC, i) => sum + (best(i) / scale - tempC) ** 2, 0);
  return { code: load.code, parameters: asParameters(parameterValues), rmsC: Math.sqrt(squares / n) };
}

/** Lag and dip of the air of one load; null where no air was read or the setting never is known. */
export function fitAir(load: LoggedLoad, start: AirParameters): AirParameters | null {
  const read = readings(load, load.airC);
  if (read.minutes.length < FEWEST_READINGS || load.settings.length === 0) return null;
  const model = ([lag = 0, dipC = 0]: number[]): ((index: number) => number) => {
    const line = airFromSettings(load.settings, load.preheatC, { lagMin: Math.exp(lag), dipC }, read.minutes);
    return (index) => line[index] ?? 0;
  };
  const { parameterValues } = levenbergMarquardt({ x: read.tempC.map((_, i) => i), y: read.tempC }, model, {
    ...fitOptions,
    initialValues: [Math.log(start.lagMin), start.dipC],
    minValues: [Math.log(0.05), -50],
    maxValues: [Math.log(60), 150],
  });
  return { lagMin: Math.exp(parameterValues[0] ?? 0), dipC: parameterValues[1] ?? 0 };
}

const warmingPrior = (value: number): LinePrior => ({
  mean: [Math.log(value), -0.5],
  sd: [0.4, 0.3],
  scatter: SCATTER,
  worth: WORTH,
});
const dryingPrior = (value: number): LinePrior => ({
  mean: [Math.log(value)],
  sd: [0.5],
  scatter: SCATTER,
  worth: WORTH,
});

/**
 * What a roaster does, from its logged loads. Each load is fitted by itself; the loads then speak together, so that
 * the interval for the next load holds what really differs from load to load, and a thousand readings of one load
 * count as one load.
 *
 * @param loads any order; those with too few readings are left out
 */
export function fitRoaster(kind: RoasterFacts['kind'], loads: readonly LoggedLoad[]): RoasterFit {
  const start = DEFAULTS[kind];
  const airs = loads.map((load) => fitAir(load, start.air)).filter((air) => air !== null);
  const air: AirParameters = {
    lagMin: Math.exp(mean([Math.log(start.air.lagMin), ...airs.map(({ lagMin }) => Math.log(lagMin))])),
    dipC: mean([start.air.dipC, ...airs.map(({ dipC }) => dipC)]),
  };
  const fitted = loads
    .map((load) => ({ load, fit: fitLoad(load, air, start) }))
    .filter((row): row is { load: LoggedLoad; fit: LoadFit } => row.fit !== null);
  const sizeBy = fitted.length > 0 && fitted.every(({ load }) => load.layerMm !== null) ? 'layer' : 'mass';
  const sizes = fitted.map(({ load }) => (sizeBy === 'layer' ? (load.layerMm ?? 1) : load.massG));
  const size = sizes.length > 0 ? Math.exp(mean(sizes.map(Math.log))) : 1;
  const lines = (skip: number): Pick<RoasterFit, 'warming' | 'drying'> => {
    const rows = fitted.map((row, i) => ({ ...row, size: sizes[i] ?? size })).filter((_, i) => i !== skip);
    return {
      warming: bayesLine(
        rows.map((row) => [1, Math.log(row.size / size)]),
        rows.map(({ fit }) => Math.log(fit.parameters.warmingPerMin)),
        warmingPrior(start.warmingPerMin),
      ),
      drying: bayesLine(
        rows.map(() => [1]),
        rows.map(({ fit }) => Math.log(fit.parameters.dryingPerMin)),
        dryingPrior(start.dryingPerMin),
      ),
    };
  };
  const whole: RoasterFit = {
    air,
    airRead: airs.length > 0,
    ...lines(-1),
    sizeBy,
    size,
    loads: fitted.map(({ fit }) => fit),
    heldOut: null,
  };
  if (fitted.length < 2) return whole;
  return {
    ...whole,
    heldOut: foretell(
      fitted.map(({ load }) => load),
      (i) => ({ ...whole, ...lines(i) }),
    ),
  };
}

const mean = (values: readonly number[]): number => values.reduce((sum, v) => sum + v, 0) / Math.max(1, values.length);

/** The parameters that a fit expects of a load of some size, with how far the next load may be from them. */
export function expectLoad(
  fit: RoasterFit,
  load: { massG: number; layerMm: number | null },
  level = 0.8,
): { warming: Estimate & { sd: number }; drying: Estimate & { sd: number } } {
  const size = fit.sizeBy === 'layer' ? load.layerMm : load.massG;
  // Before the first load no size counts as 1: the default then stands for every load.
  const x = fit.loads.length === 0 || size === null || size <= 0 ? 0 : Math.log(size / fit.size);
  return {
    warming: estimateAt(fit.warming, [1, x], true, level),
    drying: estimateAt(fit.drying, [1], true, level),
  };
}

/** The middle of what is expected of a load. */
export function expectedParameters(fit: RoasterFit, load: { massG: number; layerMm: number | null }): BeanParameters {
  const { warming, drying } = expectLoad(fit, load);
  return { warmingPerMin: Math.exp(warming.mean), dryingPerMin: Math.exp(drying.mean) };
}

/** What a fit foretells of a logged load from its air, its size and its beans. */
export const foretold = (load: LoggedLoad, fit: RoasterFit): BeanCurve =>
  run(load, airOf(load, fit.air), expectedParameters(fit, load));

function foretell(loads: readonly LoggedLoad[], without: (index: number) => RoasterFit): HeldOut {
  let [squares, count, endSquares, weightSquares, weighed] = [0, 0, 0, 0, 0];
  loads.forEach((load, i) => {
    const curve = foretold(load, without(i));
    const bean = follower({ minutes: curve.minutes, tempC: curve.beanC });
    const read = readings(load, load.beanC);
    read.minutes.forEach((minute, j) => (squares += (bean(minute) - (read.tempC[j] ?? 0)) ** 2));
    count += read.minutes.length;
    endSquares += (bean(read.minutes.at(-1) ?? 0) - (read.tempC.at(-1) ?? 0)) ** 2;
    if (load.weightLeft !== null) {
      weightSquares += (weightLeft(curve.water.at(-1) ?? 0, load.moisture) - load.weightLeft) ** 2;
      weighed += 1;
    }
  });
  return {
    n: loads.length,
    rmsC: Math.sqrt(squares / Math.max(1, count)),
    endC: Math.sqrt(endSquares / loads.length),
    weight: weighed === 0 ? null : Math.sqrt(weightSquares / weighed),
  };
}

/** How good a fit is, in a sentence. @param unit that the maker reads */
export function fitWords(fit: RoasterFit, unit: TemperatureUnit = 'C'): string {
  const n = fit.loads.length;
  if (n === 0)
    return 'No load was logged on it yet: the line starts from what such roasters usually do, and the band is wide.';
  if (!fit.heldOut) return 'One load was logged on it: the band is still wide.';
  const weight = fit.heldOut.weight === null ? '' : `, the weight by ${(100 * fit.heldOut.weight).toFixed(1)} points`;
  return `From ${n} logged loads. Foretelling each from the others missed the beans by ${formatDegrees(fit.heldOut.rmsC, unit)} on the way and ${formatDegrees(fit.heldOut.endC, unit)} at the end${weight}.`;
}
