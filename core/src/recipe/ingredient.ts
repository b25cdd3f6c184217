import { figuresOf, type Figures } from '../composition/figures';
import type { Contents } from '../ledger/contents';

export type Role =
  'nibs' | 'liquor' | 'butter' | 'powder' | 'sugar' | 'milk' | 'lecithin' | 'couverture' | 'other' | 'bowl';

/** Something that goes into a bowl, as the arithmetic of recipes sees it. */
export interface Ingredient {
  id: string;
  name: string;
  role: Role;
  contents: Contents | null;
  /** Where the contents are from. */
  source: string;
  /** Whether they are assumed rather than entered for this one. */
  assumed: boolean;
  cocoaPct: number;
  withoutButterPct: number;
  allergens: readonly string[];
  /** Money of a kilogram, in milli; null: nobody knows. */
  perKgMilli: number | null;
  /** Lots of cacao in it by share. */
  lots: readonly { lotId: string; share: number }[];
  /** Of one that is made of others: their names in falling order, for the line of the label. */
  madeOf?: readonly { name: string; pct: number; allergens: readonly string[] }[];
}

export interface Line {
  ingredient: Ingredient;
  grams: number;
}

export interface RecipeFigures extends Figures {
  grams: number;
  /** Money of a kilogram in milli, of what has a price; and the share of what has none. */
  perKgMilli: number;
  pricelessPct: number;
}

/** Water in percent from which an ingredient is too wet for a bowl of chocolate. */
export const WATERY_PCT = 6;

/**
 * All figures of what is weighed together.
 *
 * @param lines grams of each; those without any are left out
 * @example figuresOfLines([{ ingredient: nibs, grams: 200 }, { ingredient: sugar, grams: 60 }]).cocoaPct // 76.9
 */
export function figuresOfLines(lines: readonly Line[]): RecipeFigures {
  const used = lines.filter(({ grams }) => grams > 0);
  const grams = used.reduce((sum, line) => sum + line.grams, 0);
  const figures = figuresOf(
    used.map(({ ingredient, grams: own }) => ({
      share: own / grams,
      contents: ingredient.contents,
      cocoaPct: ingredient.cocoaPct,
      withoutButterPct: ingredient.withoutButterPct,
    })),
  );
  const cost = used.reduce((sum, line) => sum + ((line.ingredient.perKgMilli ?? 0) * line.grams) / 1000, 0);
  const priceless = used.reduce((sum, line) => sum + (line.ingredient.perKgMilli === null ? line.grams : 0), 0);
  return {
    ...figures,
    grams,
    perKgMilli: grams > 0 ? (1000 * cost) / grams : 0,
    pricelessPct: grams > 0 ? (100 * priceless) / grams : 0,
  };
}
