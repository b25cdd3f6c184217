import { studentQuantile } from './distributions';

/** An individuals and moving-range chart over readings in time order. */
export interface Individuals {
  n: number;
  mean: number;
  meanRange: number;
  lower: number;
  upper: number;
}

export type Signal = 'beyond-limits' | 'eight-on-one-side' | 'two-of-three';

/** Mean moving range to three sigma: 3 / d2 with d2 = 1.128 for ranges of two (Shewhart; Wheeler). */
export const RANGE_FACTOR = 2.66;

/**
 * Centre and natural limits: x̄ ± 2.66 · MR̄.
 *
 * @param values in time order, any unit
 * @returns null with fewer than two values
 */
export function individuals(values: readonly number[]): Individuals | null {
  if (values.length < 2) return null;
  const mean = values.reduce((sum, value) => sum + value, 0) / values.length;
  let ranges = 0;
  for (let i = 1; i < values.length; i += 1) ranges += Math.abs((values[i] ?? 0) - (values[i - 1] ?? 0));
  const meanRange = ranges / (values.length - 1);
  return {
    n: values.length,
    mean,
    meanRange,
    lower: mean - RANGE_FACTOR * meanRange,
    upper: mean + RANGE_FACTOR * meanRange,
  };
}

/**
 * A chart's limits for the next value: three sigma where many values made them; wider where the mean and the range
 * themselves are only known from a few (Student's prediction limit at the same risk, with 0.62 (n − 1) degrees of
 * freedom, which is what a mean range of two is worth: Wheeler 1995).
 */
export function forNext(chart: Individuals): Individuals {
  const dof = Math.max(1, 0.62 * (chart.n - 1));
  const half = (studentQuantile(1 - THREE_SIGMA / 2, dof) * Math.sqrt(1 + 1 / chart.n)) / 1.128;
  const wider = Math.max(1, half / RANGE_FACTOR);
  const meanRange = wider * chart.meanRange;
  return {
    ...chart,
    meanRange,
    lower: chart.mean - RANGE_FACTOR * meanRange,
    upper: chart.mean + RANGE_FACTOR * meanRange,
  };
}
/** Chance that a normal value lies outside three sigma. */
const THREE_SIGMA = 0.0027;

/**
 * What the newest of the values says against a chart.
 *
 * @param values in time order, the newest last
 * @returns the first rule that fires: beyond the limits; eight running on one side of the centre; two of
 *   three beyond two thirds of the way to the same limit; else null
 */
export function signalAtEnd(values: readonly number[], chart: Individuals): Signal | null {
  const last = values.at(-1);
  if (last === undefined) return null;
  if (last < chart.lower || last > chart.upper) return 'beyond-limits';
  const eight = values.slice(-8);
  if (eight.length === 8 && (eight.every((v) => v > chart.mean) || eight.every((v) => v < chart.mean))) {
    return 'eight-on-one-side';
  }
  const three = values.slice(-3);
  const far = (2 / 3) * RANGE_FACTOR * chart.meanRange;
  if (far > 0 && three.length === 3) {
    const above = three.filter((v) => v > chart.mean + far).length;
    const below = three.filter((v) => v < chart.mean - far).length;
    if ((above >= 2 && last > chart.mean + far) || (below >= 2 && last < chart.mean - far)) return 'two-of-three';
  }
  return null;
}

/**
 * Which rules fire at each value of a series, judged with what came before it.
 *
 * @param values in time order; @param chart centre and limits they are held against
 * @returns the first rule that fires at each value, or null
 */
export const signalsOf = (values: readonly number[], chart: Individuals): (Signal | null)[] =>
  values.map((_, index) => signalAtEnd(values.slice(Math.max(0, index - 7), index + 1), chart));
