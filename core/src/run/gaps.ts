import { median } from '../stats/spread';

/** From when to when in a log, seconds since its run began. */
export interface Span {
  fromS: number;
  toS: number;
}

/** Seconds between one reading and the next, as they usually are. */
export function usualEvery(seconds: ArrayLike<number>): number {
  const steps: number[] = [];
  const stride = Math.max(1, Math.floor(seconds.length / 2000));
  for (let i = 1; i < seconds.length; i += stride) steps.push((seconds[i] ?? 0) - (seconds[i - 1] ?? 0));
  const usual = median(steps);
  return Number.isFinite(usual) && usual > 0 ? usual : 1;
}

/**
 * Longest step between two readings that is no gap: ten seconds, or five usual steps.
 *
 * @param times rising; @param perSecond how many of their unit make a second
 */
export const longestStep = (times: ArrayLike<number>, perSecond: number): number =>
  Math.max(10 * perSecond, 5 * usualEvery(times)) * (1 + 1e-9);

/** Stretches of ten seconds and more, and five usual steps, in which a channel was silent. */
export function gapsOf(seconds: ArrayLike<number>, values: ArrayLike<number>): Span[] {
  const longest = longestStep(seconds, 1);
  const gaps: Span[] = [];
  let last: number | null = null;
  for (let i = 0; i < seconds.length; i += 1) {
    if (!Number.isFinite(values[i])) continue;
    const second = seconds[i] ?? 0;
    if (last !== null && second - last > longest) gaps.push({ fromS: last, toS: second });
    last = second;
  }
  const end = seconds[seconds.length - 1] ?? 0;
  if (last !== null && end - last > longest) gaps.push({ fromS: last, toS: end });
  return gaps;
}
