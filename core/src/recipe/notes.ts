import { formatMass } from '../units/mass';
import { majorFromMilli } from '../units/money';
import { aimTolerance, nameOfLimit, toleranceOf, valueText } from './limits';
import type { Answer, Choice, Kept, Question } from './question';

/* What rounding, small stocks and missing prices mean, in sentences. */

/** Names of ingredients by their ids. */
export const namesOf =
  (choices: readonly Choice[]) =>
  (id: string): string =>
    choices.find(({ ingredient }) => ingredient.id === id)?.ingredient.name ?? id;

/** The dearest price known, in milli a kilogram; null where none is. */
export const dearest = (choices: readonly Choice[]): number | null =>
  choices.reduce<number | null>(
    (most, { ingredient: { perKgMilli } }) => (perKgMilli === null ? most : Math.max(most ?? 0, perKgMilli)),
    null,
  );

/** Where a limit on cost counts what has no price: as what. */
export function priceWords(question: Question): string[] {
  const { choices, limits } = question;
  const without = choices.filter(({ ingredient }) => ingredient.perKgMilli === null);
  if (without.length === 0 || !limits.some(({ of }) => of === 'cost')) return [];
  const most = dearest(choices);
  const names = without.map(({ ingredient }) => ingredient.name).join(', ');
  return [
    most === null
      ? `Nothing here has a price yet: the limit on cost says nothing.`
      : `${names}: no price yet, counted as the dearest here, ${valueText('cost', majorFromMilli(most), question)}.`,
  ];
}

/** What is there and cannot be weighed on this scale. */
export const smallStocks = ({ choices, stepG, massSystem }: Question): string[] =>
  choices
    .filter(({ stockG, fixedG }) => fixedG === undefined && stockG !== null && stockG > 0 && stockG < stepG)
    .map(
      ({ ingredient, stockG }) =>
        `The ${formatMass((stockG ?? 0) * 1000, massSystem)} of ${ingredient.name} are less than the scale’s step of ${stepG} g: none of it can be weighed.`,
    );

export function roundingWords(question: Question, kept: readonly Kept[], lines: Answer['lines']): string[] {
  const { stepG, choices } = question;
  const nameOf = namesOf(choices);
  const moved = kept
    .filter((row) => !row.kept || Math.abs(row.rounded - row.exact) > aimTolerance(row.of, row.wanted))
    .filter((row) => Math.abs(row.rounded - row.exact) > toleranceOf(row.of, row.wanted))
    .map((row) => {
      const name = nameOfLimit(row.of, nameOf);
      const text = valueText(row.of, row.rounded, question);
      return row.kept || row.side === 'aim'
        ? `${name} is ${text} when weighed in steps of ${stepG} g.`
        : `${name} is ${text} when weighed in steps of ${stepG} g: ${row.words} is not kept. A finer scale or a larger batch would keep it.`;
    });
  const lost = lines
    .filter(({ grams, exactG }) => grams === 0 && exactG > 0.05)
    .map(
      ({ id, exactG }) =>
        `${exactG.toFixed(1)} g of ${nameOf(id)} would be wanted: less than the step of ${stepG} g weighs.`,
    );
  return [...new Set([...moved, ...lost])];
}
