/** One tub, sack or purchase that an ingredient can be taken from. */
export interface StockLine {
  holdingId: string;
  code: string;
  freeG: number;
  since: number;
  /** Day that it keeps to; null: nobody said. */
  bestBefore: string | null;
  perKgMilli: number | null;
}

/** What keeps least first, then the oldest: the order in which a pantry is used up. */
export const oldestFirst = (lines: readonly StockLine[]): StockLine[] =>
  [...lines].sort(
    (a, b) =>
      (a.bestBefore ?? '9999').localeCompare(b.bestBefore ?? '9999') ||
      a.since - b.since ||
      a.code.localeCompare(b.code),
  );

/**
 * Which tubs so many grams are taken from, the oldest first, part of the last.
 *
 * @returns what is taken of each; short by `missingG` where there is not enough
 */
export function drawFrom(
  lines: readonly StockLine[],
  grams: number,
): { taken: { line: StockLine; grams: number }[]; missingG: number } {
  let left = grams;
  const taken: { line: StockLine; grams: number }[] = [];
  for (const line of oldestFirst(lines)) {
    if (left <= 1e-9) break;
    const part = Math.min(left, line.freeG);
    if (part <= 0) continue;
    taken.push({ line, grams: Number(part.toFixed(3)) });
    left -= part;
  }
  return { taken, missingG: Math.max(0, Number(left.toFixed(3))) };
}
