/* Formats of numbers and dates, each made once: making one takes as long as using it a hundred times. */

const numbers = new Map<string, Intl.NumberFormat>();
const dates = new Map<string, Intl.DateTimeFormat>();

function kept<T>(formats: Map<string, T>, options: object, made: () => T): T {
  const key = JSON.stringify(options);
  let format = formats.get(key);
  if (!format) formats.set(key, (format = made()));
  return format;
}

export const numberFormat = (options: Intl.NumberFormatOptions): Intl.NumberFormat =>
  kept(numbers, options, () => new Intl.NumberFormat('en-GB', options));

/** @throws RangeError where there is no such time zone */
export const dateFormat = (options: Intl.DateTimeFormatOptions): Intl.DateTimeFormat =>
  kept(dates, options, () => new Intl.DateTimeFormat('en-GB', options));
