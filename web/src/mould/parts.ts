import type { HoldingView } from '@wunsch/core/api/types';
import type { ProductView } from '@wunsch/core/api/products';
import { partsOf } from '@wunsch/core/products/product';
import type { Fields } from '../entry/entry';
import { readNumber, typedNumber } from '../parts/number';

/** Where grams of what is in and on pieces are kept with an entry. */
export const partName = (materialId: string): string => `part.${materialId}`;

/** How moulds are filled, as it is kept with an entry. */
export const FILLED = 'filledBy';
export const VIBRATED = 'vibrated';

interface Typed {
  fields: Fields;
  choices?: Record<string, string>;
}

/** Grams of each part that the pieces counted take: as typed, or as the product says. */
export function partGrams(
  product: ProductView | undefined,
  { fields, choices = {} }: Typed,
): { materialId: string; text: string }[] {
  if (!product) return [];
  const pieces =
    (readNumber(fields['goodPieces']?.text ?? '') ?? 0) + (readNumber(fields['secondsPieces']?.text ?? '') ?? 0);
  return partsOf(product.facts, pieces).map(({ materialId, grams }) => ({
    materialId,
    text: choices[partName(materialId)] ?? (pieces > 0 ? typedNumber(grams) : ''),
  }));
}

/** So many grams of an ingredient, the oldest purchase first; more than there is asks for it all the same. */
export function takeGrams(
  pantry: readonly HoldingView[],
  materialId: string,
  grams: number,
): { holdingId: string; massG: number }[] {
  const purchases = pantry.filter((row) => row.materialId === materialId && row.freeMg > 0);
  const lines: { holdingId: string; massG: number }[] = [];
  let left = grams;
  for (const { id, freeMg } of purchases) {
    if (left <= 0) break;
    const massG = Math.min(left, freeMg / 1000);
    lines.push({ holdingId: id, massG });
    left -= massG;
  }
  const [first] = lines;
  if (left > 1e-6 && first) first.massG += left;
  return lines;
}
