import type { Line } from './ingredient';

/** One ingredient as a label names it. */
export interface LabelPart {
  name: string;
  pct: number;
  allergens: readonly string[];
  /** What a compound one is made of, in falling order. */
  within: { name: string; pct: number; allergens: readonly string[] }[];
}

/**
 * Ingredients in falling order by weight, as they go in, compound ones opened; lines of one name are one.
 *
 * @returns shares in percent of the whole
 */
export function labelParts(lines: readonly Line[]): LabelPart[] {
  const total = lines.reduce((sum, { grams }) => sum + grams, 0);
  const parts = new Map<string, LabelPart>();
  for (const { ingredient, grams } of lines) {
    if (grams <= 0 || total <= 0) continue;
    const name = ingredient.role === 'nibs' ? 'cocoa beans' : ingredient.name;
    const pct = (100 * grams) / total;
    const part = parts.get(name);
    if (part) part.pct += pct;
    else
      parts.set(name, {
        name,
        pct,
        allergens: ingredient.allergens,
        within: [...(ingredient.madeOf ?? [])].sort((a, b) => b.pct - a.pct),
      });
  }
  return [...parts.values()].sort((a, b) => b.pct - a.pct);
}

/** The line of a label: `cocoa beans, cane sugar, hazelnut paste (hazelnuts, sugar), cocoa butter`. */
export const labelLine = (parts: readonly LabelPart[]): string =>
  parts
    .map(({ name, within }) => (within.length > 0 ? `${name} (${within.map((row) => row.name).join(', ')})` : name))
    .join(', ');
