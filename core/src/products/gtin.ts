/*
 * Numbers of trade items, as bar codes carry them (GS1 General Specifications, section 7.9: the check digit).
 */

/** Lengths that are in use: 8, 12, 13 and 14 digits. */
const LENGTHS = [8, 12, 13, 14];

/**
 * The last digit of a number without it: weights 3 and 1 from the right.
 *
 * @example checkDigit('629104150021') // 3
 */
export function checkDigit(digits: string): number {
  const sum = [...digits]
    .reverse()
    .reduce((total, digit, index) => total + Number(digit) * (index % 2 === 0 ? 3 : 1), 0);
  return (10 - (sum % 10)) % 10;
}

export const isGtin = (text: string): boolean =>
  /^\d+$/.test(text) && LENGTHS.includes(text.length) && checkDigit(text.slice(0, -1)) === Number(text.at(-1));

/** Fourteen digits, so that one number written shorter or longer is still one. */
export const asGtin14 = (text: string): string => text.padStart(14, '0');
