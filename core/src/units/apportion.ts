/**
 * Shares a whole amount out by weight so that the parts are whole and add up exactly
 * (largest remainder, Hamilton's method).
 *
 * @param amount whole number, of either sign
 * @param weights non-negative, not all zero
 * @returns one whole part per weight; ties go to the earlier one
 */
export function apportion(amount: number, weights: readonly number[]): number[] {
  const total = weights.reduce((sum, weight) => sum + weight, 0);
  if (!(total > 0)) throw new RangeError('apportion: weights must add up to more than nothing');
  const exact = weights.map((weight) => (amount * weight) / total);
  const parts = exact.map(Math.floor);
  let left = amount - parts.reduce((sum, part) => sum + part, 0);
  const order = exact
    .map((value, index) => ({ index, rest: value - Math.floor(value) }))
    .sort((a, b) => b.rest - a.rest || a.index - b.index);
  for (const { index } of order) {
    if (left <= 0) break;
    if (weights[index] === 0) continue;
    parts[index] = (parts[index] ?? 0) + 1;
    left -= 1;
  }
  // Rounding in `exact` can leave more units over than there are remainders; the heaviest takes them.
  if (left !== 0) {
    const heaviest = weights.indexOf(Math.max(...weights));
    parts[heaviest] = (parts[heaviest] ?? 0) + left;
  }
  return parts;
}
