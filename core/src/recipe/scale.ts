/**
 * The same recipe for another size, in whole steps: largest remainders, so that the sum is right.
 *
 * @param grams of each line; @param toG what the batch is to weigh
 * @throws RangeError where nothing is in the recipe
 */
export function scaleTo(grams: readonly number[], toG: number, stepG: number): number[] {
  const total = grams.reduce((sum, value) => sum + value, 0);
  if (!(total > 0)) throw new RangeError('nothing is in the recipe');
  const steps = grams.map((value) => ((value / total) * toG) / stepG);
  const whole = steps.map((value) => Math.floor(value + 1e-9));
  let left = Math.round(toG / stepG) - whole.reduce((sum, value) => sum + value, 0);
  const byRest = steps
    .map((value, index) => ({ index, rest: value - (whole[index] ?? 0) }))
    .sort((a, b) => b.rest - a.rest);
  for (const { index, rest } of byRest) {
    if (left <= 0) break;
    if (rest <= 0 && (grams[index] ?? 0) === 0) continue;
    whole[index] = (whole[index] ?? 0) + 1;
    left -= 1;
  }
  return whole.map((value) => Number((value * stepG).toFixed(6)));
}

/**
 * The largest batch that what is there of some ingredients makes, g.
 *
 * @param limiting those of the lines that set it; @param thereG grams of each in the house
 * @returns Infinity where none of them is in the recipe
 */
export function mostFrom<T extends { ingredient: string; grams: number }>(
  lines: readonly T[],
  limiting: (line: T) => boolean,
  thereG: (ingredient: string) => number,
): number {
  const total = lines.reduce((sum, { grams }) => sum + grams, 0);
  const parts = lines
    .filter((line) => line.grams > 0 && limiting(line))
    .map(({ ingredient, grams }) => thereG(ingredient) / grams);
  return parts.length === 0 ? Infinity : Math.min(...parts) * total;
}

export interface Bowl {
  id: string;
  name: string;
  minG: number | null;
  maxG: number | null;
}

/**
 * One batch shared out among several grinders, each between its least and its most, as evenly by what they take as can be.
 *
 * @returns grams of each, 0 for those that are not needed; null where they cannot hold it
 */
export function splitAmong(
  totalG: number,
  bowls: readonly Bowl[],
): { id: string; name: string; grams: number }[] | null {
  const most = (bowl: Bowl): number => bowl.maxG ?? totalG;
  const least = (bowl: Bowl): number => bowl.minG ?? 0;
  // As few as can hold it, the largest first: an idle machine is better than one under its least.
  const bySize = [...bowls].sort((a, b) => most(b) - most(a));
  for (let count = 1; count <= bySize.length; count += 1) {
    const used = bySize.slice(0, count);
    const [low, high] = [
      used.reduce((sum, bowl) => sum + least(bowl), 0),
      used.reduce((sum, bowl) => sum + most(bowl), 0),
    ];
    if (high < totalG - 1e-9 || low > totalG + 1e-9) continue;
    const spare = high - low;
    const part = spare > 0 ? (totalG - low) / spare : 0;
    return bowls.map((bowl) => ({
      id: bowl.id,
      name: bowl.name,
      grams: used.includes(bowl) ? least(bowl) + part * (most(bowl) - least(bowl)) : 0,
    }));
  }
  return null;
}
