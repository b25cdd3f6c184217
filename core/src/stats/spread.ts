/** Middle of some values; NaN without any. The values stay as they are. */
export function median(values: ArrayLike<number>): number {
  const sorted = Float64Array.from(values).sort();
  const middle = sorted.length >> 1;
  return sorted.length % 2 === 1
    ? (sorted[middle] ?? NaN)
    : ((sorted[middle - 1] ?? NaN) + (sorted[middle] ?? NaN)) / 2;
}

/** Factor that makes a median deviation a standard deviation, for normal values. */
export const MEDIAN_TO_SD = 1.4826;

/** What is taken of counts that clump before they have shown it: the effect, and as sure as how many counts. */
export interface UsualClumping {
  effect: number;
  worth: number;
  /** The estimate errs on the safe side by so many of its own deviations. */
  safe: number;
}

/**
 * How many of a count come together: Pearson's dispersion of several counts about a common share, shrunk towards what
 * is usual. Counts that come by themselves have 1.
 *
 * @param counts hits and what they are of (beans on a tray, days that a trap hung)
 * @param varianceOf variance of a count by chance alone, from what is expected and the common share
 * @returns the design effect, at least 1
 */
export function clumping(
  counts: readonly { hits: number; of: number }[],
  varianceOf: (expected: number, share: number) => number,
  usual: UsualClumping,
): number {
  const share =
    counts.reduce((sum, { hits }) => sum + hits, 0) /
    Math.max(
      1e-12,
      counts.reduce((sum, { of }) => sum + of, 0),
    );
  let [scatter, dof] = [0, -1];
  for (const { hits, of } of counts) {
    const variance = varianceOf(of * share, share);
    if (!(variance > 0)) continue;
    scatter += (hits - of * share) ** 2 / variance;
    dof += 1;
  }
  const sure = usual.worth + Math.max(0, dof);
  const estimate = (usual.worth * usual.effect + scatter) / sure;
  return Math.max(1, estimate * (1 + usual.safe * Math.sqrt(2 / sure)));
}

export const sum = (values: readonly number[]): number => values.reduce((total, value) => total + value, 0);
/** 0 of nothing. */
export const mean = (values: readonly number[]): number => sum(values) / Math.max(1, values.length);
