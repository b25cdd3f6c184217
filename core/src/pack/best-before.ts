import { addMonths } from 'date-fns';
import type { Composition } from '../composition/composition';

/** How long goods usually keep, and what bounds it. */
export interface Keeping {
  months: number;
  because: string;
}

const NUTS = /nut|almond|hazel|pistach|cashew|pecan|walnut|macadamia|sesame/i;
const PLAIN: Keeping = { months: 24, because: 'plain dark chocolate, dry, dark, 16–18 °C' };
const MILK: Keeping = { months: 12, because: 'milk in it' };
const NUTTY: Keeping = { months: 9, because: 'nuts or seeds in it' };

/**
 * How long goods usually keep, dry, dark, at 16 to 18 °C: the shortest that anything in them allows. The maker's own
 * storage trials replace it, ingredient by ingredient.
 *
 * @param own months that goods with an ingredient keep, where the maker said so, by the ingredient's name
 */
export function usualKeeping(
  { allergens, parts }: Pick<Composition, 'allergens' | 'parts'>,
  own: ReadonlyMap<string, number>,
): Keeping {
  const found: Keeping[] = [];
  for (const { name } of parts) {
    const months = own.get(name);
    if (months !== undefined) found.push({ months, because: `${name} in it, as said under Workshop` });
  }
  const said = new Set(parts.filter(({ name }) => own.has(name)).map(({ name }) => name));
  // What the maker says of an ingredient replaces what is usual for its kind.
  const silent = parts.filter(({ name }) => !said.has(name));
  if (allergens.some((word) => /milk/i.test(word)) && (silent.length > 0 || found.length === 0)) found.push(MILK);
  if (allergens.some((word) => NUTS.test(word)) && ![...said].some((name) => NUTS.test(name))) found.push(NUTTY);
  return found.reduce((least, row) => (row.months < least.months ? row : least), PLAIN);
}

const DAY_MS = 86_400_000;

/** The last day that goods made then usually keep to; parts of a month are of thirty days. @param made UTC ms */
export function keepsUntil(made: number, { months }: Pick<Keeping, 'months'> & Partial<Keeping>): Date {
  const whole = Math.floor(months);
  return new Date(addMonths(new Date(made), whole).getTime() + Math.round(30 * (months - whole)) * DAY_MS);
}
