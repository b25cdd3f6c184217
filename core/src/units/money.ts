/**
 * Money in the ledger is whole *milli*: thousandths of a minor unit (of a cent, a penny), so that the
 * cost of a few grams survives being shared out, and sums stay exact.
 */
export const MILLI_PER_MINOR = 1000;

/** A price in major units (12.40 €) to whole milli. */
export const milliFromMajor = (major: number): number => Math.round(major * 100 * MILLI_PER_MINOR);

/** Milli to major units, for showing and for sums outside the ledger. */
export const majorFromMilli = (milli: number): number => milli / (100 * MILLI_PER_MINOR);

/**
 * An amount for people: `€12.40`, and `€0.084` where cents are too coarse.
 *
 * @param milli thousandths of a minor unit
 * @param currency ISO 4217 code
 */
export function formatMoney(milli: number, currency: string): string {
  const value = majorFromMilli(milli);
  const fine = value !== 0 && Math.abs(value) < 0.1;
  return new Intl.NumberFormat('en-GB', {
    style: 'currency',
    currency,
    minimumFractionDigits: 2,
    maximumFractionDigits: fine ? 3 : 2,
  }).format(value);
}
