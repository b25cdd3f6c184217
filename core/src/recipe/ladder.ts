import { figuresOfLines, type Line } from './ingredient';
import { CHARACTER, keepLimits } from './keep';
import { valueOf } from './limits';
import { limit, type Limit } from './records';
import type { FigureId } from './words';

/** What a ladder can vary. */
export const VARIED = CHARACTER;
/** Percent points between its variants where nobody chose: as much as a tongue tells apart. */
export const usualGap = (of: FigureId): number => (of === 'lecithin' ? 0.1 : 2);

/** One variant of a ladder: what it is to be, and the aims that lead there. */
export interface Variant {
  value: number;
  limits: Limit[];
}

/**
 * Variants of a recipe that differ in one figure, evenly apart, with the recipe itself in the middle; all else is kept as
 * well as it can be. None is below nothing or over all of it: what would be moves up or down with the others.
 *
 * @param gap percent points between neighbours; @returns none where nothing is in the recipe
 */
export function ladderOf(lines: readonly Line[], of: FigureId, count: number, gap: number): Variant[] {
  const figures = figuresOfLines(lines);
  if (figures.grams <= 0 || gap <= 0) return [];
  const width = (count - 1) * gap;
  const lowest = Math.max(0, Math.min(100 - width, valueOf(of, figures, () => 0) - width / 2));
  const kept = keepLimits(figures, [of], 0.1);
  return Array.from({ length: count }, (_, index) => {
    const value = Number((lowest + index * gap).toFixed(2));
    return { value, limits: [limit.parse({ of, aim: value, weight: 10 }), ...kept] };
  });
}
