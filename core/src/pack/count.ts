/*
 * How many bars lie on the scale: all of them together over the weight of one, as far as the spread of single bars
 * allows it.
 */

export interface CountByWeight {
  pieces: number;
  /** Pieces that it may be off by, nineteen times in twenty. */
  offBy: number;
  sentence: string;
}

/** Pieces whose weights nobody measured singly differ by about so much of their mean. */
const USUAL_SPREAD = 0.015;
const Z95 = 1.96;

/**
 * Counts pieces by their weight.
 *
 * @param allG on the scale, without box; @param meanG of one; @param sdG of single ones, null: not known
 * @param stepG the step of the scale
 * @example countByWeight(4900, 70.0, 0.8, 1) // 70 pieces
 */
export function countByWeight(allG: number, meanG: number, sdG: number | null, stepG = 1): CountByWeight | null {
  if (!(allG > 0) || !(meanG > 0)) return null;
  const pieces = Math.round(allG / meanG);
  const sd = sdG ?? USUAL_SPREAD * meanG;
  // The sum of n pieces spreads with the root of n; the scale steps by a little; and the count rounds.
  const error = (Z95 * Math.hypot(sd * Math.sqrt(Math.max(1, pieces)), stepG / Math.sqrt(12))) / meanG;
  const rest = Math.abs(allG / meanG - pieces);
  const offBy = Math.max(0, Math.ceil(error + rest - 0.5));
  return {
    pieces,
    offBy,
    sentence:
      offBy === 0
        ? `${pieces} pieces at ${meanG.toFixed(1)} g.`
        : `${pieces} pieces at ${meanG.toFixed(1)} g, perhaps ${offBy} more or fewer: weigh them in smaller heaps.`,
  };
}
