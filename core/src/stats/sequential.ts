import { logBeta } from './distributions';

/**
 * Evidence that a share is not `limit`, which may be looked at after every single draw.
 *
 * The likelihood of what was seen, averaged over a Beta(½, 4½) spread of shares, against its likelihood at
 * `limit`. Under `limit` this ratio is a martingale of mean 1, so the chance that it *ever* reaches 1/α is at
 * most α (Ville's inequality; Robbins 1970, Ann. Math. Stat. 41, 1397–1409). Stopping whenever one likes
 * therefore cannot fool it.
 *
 * @param hits of n; both may be fractional when looking ahead; @param limit share in (0, 1)
 * @returns the logarithm of the ratio
 */
export function logEvidence(hits: number, n: number, limit: number): number {
  const average = logBeta(SPREAD.a + hits, SPREAD.b + n - hits) - logBeta(SPREAD.a, SPREAD.b);
  return average - hits * Math.log(limit) - (n - hits) * Math.log1p(-limit);
}

/** Small shares are what a cut test is about; the spread only decides how soon it is sure, never whether it is right. */
const SPREAD = { a: 0.5, b: 4.5 };

export type Side = 'below' | 'above' | null;

/**
 * Whether a share is surely below or above a limit, at any moment of counting.
 *
 * @param risk chance of ever being wrong on that side, 0…1
 */
export function surelyBeside(hits: number, n: number, limit: number, risk: number): Side {
  if (n === 0 || hits / n === limit) return null;
  return logEvidence(hits, n, limit) >= -Math.log(risk) ? (hits / n < limit ? 'below' : 'above') : null;
}
