import { median } from '../stats/spread';
import { SIGNS } from './words';

/** When a sign usually comes, and how that is known. */
export interface UsualSign {
  what: string;
  second: number;
  /** Loads that it was noticed in; 0 where only the trade's order is known. */
  n: number;
}

/** Where in a roast the usual signs come, as shares of its length, for makers without a past. */
const SHARES: readonly number[] = [0.3, 0.42, 0.55, 0.7, 0.76, 0.82, 0.9, 1.02];
const ENOUGH = 3;

/**
 * When signs usually come on loads like this one: the middle of the maker's own, and where there are fewer than
 * three of a sign, its usual place in a roast of that length.
 *
 * @param loads seconds of the signs of earlier loads, each load its own list, with its length
 * @param lengthS how long this one is meant to last, seconds
 * @returns in the order in which they come; a maker's own words only where they have come often enough
 */
export function usualSigns(
  loads: readonly { signs: readonly { second: number; what: string }[]; lengthS: number }[],
  lengthS: number,
): UsualSign[] {
  const shares = new Map<string, number[]>();
  for (const { signs, lengthS: own } of loads) {
    if (!(own > 0)) continue;
    const firsts = new Map<string, number>();
    for (const { what, second } of signs) firsts.set(what, Math.min(second, firsts.get(what) ?? Infinity));
    for (const [what, second] of firsts) shares.set(what, [...(shares.get(what) ?? []), second / own]);
  }
  const rows: UsualSign[] = [];
  for (const [what, list] of shares)
    if (list.length >= ENOUGH) rows.push({ what, second: median(list) * lengthS, n: list.length });
  SIGNS.forEach((what, index) => {
    if (!rows.some((row) => row.what === what)) rows.push({ what, second: (SHARES[index] ?? 1) * lengthS, n: 0 });
  });
  return rows.sort((a, b) => a.second - b.second);
}
