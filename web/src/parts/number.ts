import { priceOf, type HeavyUnit } from '@wunsch/core/units/price';
import { parseMass, type MassUnit } from '@wunsch/core/units/mass';
import { parseNumber, writeNumber, type DecimalMark } from '@wunsch/core/units/number';

/** How the workshop writes decimals. One workshop a page, so it is kept here and set when the settings arrive. */
let mark: DecimalMark = '.';

export const setDecimalMark = (next: DecimalMark): void => {
  mark = next;
};
export const decimalMark = (): DecimalMark => mark;

/** A number as this workshop's people type it; null when it is empty or not a number. */
export const readNumber = (text: string): number | null => parseNumber(text, mark);

/** A weight as they type it, in grams; with its own unit or in the one given. */
export const readMass = (text: string, unit: MassUnit): number | null => parseMass(text, unit, mark);

/** A number to stand in a field. */
export const typedNumber = (value: number): string => writeNumber(value, mark);

/**
 * Several figures typed side by side: what they say, and which cannot be read. Empty ones are null.
 *
 * @param texts as typed, by name
 */
export function readNumbers<K extends string>(
  texts: Record<K, string>,
): { values: Record<K, number | null>; wrong: Partial<Record<K, string>> } {
  const names = Object.keys(texts) as K[];
  const entries = names.map((name) => [name, readNumber(texts[name])] as const);
  return {
    values: Object.fromEntries(entries) as Record<K, number | null>,
    wrong: Object.fromEntries(
      entries
        .filter(([name, value]) => value === null && texts[name].trim() !== '')
        .map(([name]) => [name, 'is not a number']),
    ) as Partial<Record<K, string>>,
  };
}

/** What is wrong with one figure while it is typed: unreadable, or nothing. */
export const unreadable = (text: string): string | undefined =>
  text.trim() !== '' && readNumber(text) === null ? 'is not a number' : undefined;

/** The same of a weight, which may be typed with its own unit. */
export const unweighable = (text: string, unit: MassUnit): string | undefined =>
  text.trim() !== '' && readMass(text, unit) === null ? 'is not a weight' : undefined;

/** What is wrong with a number of pieces: below nought or in parts; what is no number is told by its field. */
export function wrongCount(text: string): string | undefined {
  const count = readNumber(text);
  return count === null || (count >= 0 && Number.isInteger(count)) ? undefined : 'is no count';
}

/** Where an order by chance begins. */
export const someSeed = (): number => (crypto.getRandomValues(new Uint32Array(1))[0] ?? 1) % 2_000_000_000;

/** A price of a kilogram as it is typed. */
export const priceText = (price: number, unit: HeavyUnit): string =>
  typedNumber(Number(priceOf(price, unit).toFixed(4)));
