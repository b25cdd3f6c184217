import { betaQuantile, normalQuantile, studentQuantile } from './distributions';

export interface Interval {
  low: number;
  high: number;
}

/**
 * Interval for a share by Wilson's score method.
 *
 * Wilson, E. B. (1927), J. Am. Stat. Assoc. 22, 209–212.
 *
 * @param hits whole, 0…n; @param n how many were looked at; @param level two-sided, such as 0.95
 * @returns shares of 1; the whole range when nothing was looked at
 * @throws RangeError when hits are not within 0…n
 */
export function wilson(hits: number, n: number, level = 0.95): Interval {
  if (n === 0) return { low: 0, high: 1 };
  if (!(hits >= 0 && hits <= n)) throw new RangeError('wilson: hits outside 0…n');
  const z = normalQuantile(1 - (1 - level) / 2);
  const share = hits / n;
  const middle = (share + z ** 2 / (2 * n)) / (1 + z ** 2 / n);
  const half = (z / (1 + z ** 2 / n)) * Math.sqrt((share * (1 - share)) / n + z ** 2 / (4 * n ** 2));
  return { low: hits === 0 ? 0 : Math.max(0, middle - half), high: hits === n ? 1 : Math.min(1, middle + half) };
}

/**
 * Exact bounds of a share (Clopper & Pearson 1934, Biometrika 26, 404–413): each is wrong in at most `risk`, whatever
 * the share. Hits and n may be fractional, as counts that stand for fewer are.
 *
 * @param risk one-sided, 0 to 1
 */
export function exactBounds(hits: number, n: number, risk: number): Interval {
  if (n <= 0) return { low: 0, high: 1 };
  return {
    low: hits <= 0 ? 0 : betaQuantile(risk, hits, n - hits + 1),
    high: hits >= n ? 1 : betaQuantile(1 - risk, hits + 1, Math.max(1e-9, n - hits)),
  };
}

export interface MeanInterval extends Interval {
  n: number;
  mean: number;
  /** Standard deviation of the sample; null with one value. */
  sd: number | null;
  min: number;
  max: number;
}

/**
 * Mean of a few readings with Student's t-interval.
 *
 * @param values any unit
 * @returns null without values; with one value the interval is unbounded
 */
export function meanInterval(values: readonly number[], level = 0.95): MeanInterval | null {
  const n = values.length;
  if (n === 0) return null;
  const mean = values.reduce((sum, value) => sum + value, 0) / n;
  const extremes = { min: Math.min(...values), max: Math.max(...values) };
  if (n === 1) return { n, mean, sd: null, low: -Infinity, high: Infinity, ...extremes };
  const sd = Math.sqrt(values.reduce((sum, value) => sum + (value - mean) ** 2, 0) / (n - 1));
  const half = (studentQuantile(1 - (1 - level) / 2, n - 1) * sd) / Math.sqrt(n);
  return { n, mean, sd, low: mean - half, high: mean + half, ...extremes };
}

export interface Projection extends Interval {
  mean: number;
  /** On how many of the maker's own values it rests. */
  n: number;
}

/**
 * What the mean of the next few values will be, from those seen: Student's prediction interval for the mean
 * of `next` further draws of one normal population.
 *
 * Hahn & Meeker, Statistical Intervals (1991), ch. 4.
 *
 * @param values at least two, any unit; @param next how many more, at least 1
 * @returns null with fewer than two values
 */
export function projectMean(values: readonly number[], next: number, level = 0.8): Projection | null {
  const seen = meanInterval(values);
  if (seen === null || seen.sd === null) return null;
  const t = studentQuantile(1 - (1 - level) / 2, seen.n - 1);
  const half = t * seen.sd * Math.sqrt(1 / seen.n + 1 / Math.max(1, next));
  return { mean: seen.mean, low: seen.mean - half, high: seen.mean + half, n: seen.n };
}
