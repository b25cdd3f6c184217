import { projectMean } from '../stats/intervals';

export interface PastCount {
  /** Grams (or pieces) the book said and the count found. */
  booked: number;
  counted: number;
}

export interface UsualDifference {
  n: number;
  /** Counted less booked over booked: mean, and the range that nine of ten counts fall in. */
  mean: number;
  low: number;
  high: number;
}

/** What counts of one kind of goods have taught about their shrinking. @returns null with fewer than three */
export function usualDifference(past: readonly PastCount[]): UsualDifference | null {
  const shares = past.filter(({ booked }) => booked > 0).map(({ booked, counted }) => (counted - booked) / booked);
  if (shares.length < 3) return null;
  const found = projectMean(shares, 1, 0.9);
  return found && { n: shares.length, mean: found.mean, low: found.low, high: found.high };
}

/** A difference in words, against what is usual. @param unit of the amounts */
export function differenceWords(
  booked: number,
  counted: number,
  usual: UsualDifference | null,
): { tone: 'good' | 'watch'; sentence: string } {
  if (counted === booked) return { tone: 'good', sentence: 'as booked' };
  if (booked <= 0) return { tone: 'watch', sentence: 'the book has none' };
  const share = (counted - booked) / booked;
  const text = `${Math.abs(100 * share).toFixed(1)} % ${share < 0 ? 'short' : 'over'}`;
  if (!usual) return { tone: Math.abs(share) > 0.02 ? 'watch' : 'good', sentence: text };
  const inside = share >= usual.low && share <= usual.high;
  return {
    tone: inside ? 'good' : 'watch',
    sentence: `${text}, ${inside ? 'as usual' : `usually ${(100 * usual.low).toFixed(1)} to ${(100 * usual.high).toFixed(1)} %`}`,
  };
}
