import { numberFormat } from './formats';
import { DomainError } from '../errors/domain-error';

/**
 * Money in the ledger is whole *milli*: hundred-thousandths of the currency's unit (thousandths of a cent where it
 * has cents), so that the cost of a few grams survives being shared out, and sums stay exact.
 */
export const MILLI_PER_MINOR = 1000;

/** The largest amount of one step: sums of thousands of them stay exact integers. */
const LARGEST_MILLI = 1e15;

/** A price in major units (12.40 €) to whole milli. @throws DomainError `units/money` beyond the ledger */
export function milliFromMajor(major: number): number {
  const milli = Math.round(major * 100 * MILLI_PER_MINOR);
  if (!(Math.abs(milli) <= LARGEST_MILLI))
    throw new DomainError('units/money', 'That is more money than this ledger can hold.');
  return milli;
}

/** Milli to major units, for showing and for sums outside the ledger. */
export const majorFromMilli = (milli: number): number => milli / (100 * MILLI_PER_MINOR);

const CURRENCIES = new Set(Intl.supportedValuesOf('currency'));

/** Whether there is such a currency (ISO 4217). */
export const isCurrency = (code: string): boolean => CURRENCIES.has(code);

/** Digits after the point that a currency is written with (ISO 4217): 0, 2 or 3. */
export const coinDigits = (currency: string): number =>
  numberFormat({ style: 'currency', currency }).resolvedOptions().maximumFractionDigits ?? 2;

/**
 * An amount for people: `€12.40`, `¥1 240`, `KWD 12.400`; one digit more where coins are too coarse: `€0.084`.
 *
 * @param milli thousandths of a minor unit
 * @param currency ISO 4217 code
 */
export function formatMoney(milli: number, currency: string): string {
  const value = majorFromMilli(milli);
  const digits = coinDigits(currency);
  const fine = value !== 0 && Math.abs(value) < 10 * 10 ** -digits;
  return numberFormat({
    style: 'currency',
    currency,
    minimumFractionDigits: digits,
    maximumFractionDigits: fine ? digits + 1 : digits,
  })
    .format(value)
    .replaceAll(',', '\u00a0');
}
