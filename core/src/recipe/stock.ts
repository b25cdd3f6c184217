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

export interface Draw {
  ingredient: string;
  grams: number;
  taken: { line: StockLine; grams: number }[];
  missingG: number;
}

/**
 * Which tubs each line of each bowl is taken from, one bowl after the other: what one takes is not there for the next.
 *
 * @param bowls what each wants; @param stockOf tubs of an ingredient
 * @returns draws of each bowl, in the order of its lines
 */
export function drawAll(
  bowls: readonly (readonly { ingredient: string; grams: number }[])[],
  stockOf: (ingredient: string) => readonly StockLine[],
): Draw[][] {
  const used = new Map<string, number>();
  return bowls.map((lines) =>
    lines.map(({ ingredient, grams }) => {
      const left = stockOf(ingredient).map((line) => ({
        ...line,
        freeG: line.freeG - (used.get(line.holdingId) ?? 0),
      }));
      const { taken, missingG } = drawFrom(left, grams);
      for (const { line, grams: part } of taken) used.set(line.holdingId, (used.get(line.holdingId) ?? 0) + part);
      return { ingredient, grams, taken, missingG };
    }),
  );
}
