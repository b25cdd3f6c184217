import { numberFormat } from './formats';

/** What stands before the decimals where the maker writes: `1.5` or `1,5`. */
export const DECIMAL_MARKS = ['.', ','] as const;
export type DecimalMark = (typeof DECIMAL_MARKS)[number];

/** Blanks and apostrophes that people put between thousands. */
const BLANK = "[ \\u00a0\\u2009\\u202f'’]";

const patterns = (mark: DecimalMark): { grouped: RegExp; plain: RegExp } => {
  const other = mark === '.' ? ',' : '\\.';
  const own = mark === '.' ? '\\.' : ',';
  return {
    // One kind of separator throughout, groups of three, no leading zero: `1,149`, `12 500.5`.
    grouped: new RegExp(`^[1-9]\\d{0,2}(?:(?:${other}\\d{3})+(?:${own}\\d*)?|(?:${BLANK}\\d{3})+(?:[.,]\\d*)?)$`),
    plain: /^(?:\d+[.,]?\d*|[.,]\d+)$/,
  };
};
const PATTERNS: Record<DecimalMark, ReturnType<typeof patterns>> = { '.': patterns('.'), ',': patterns(',') };

/**
 * A number as people type it. The workshop's own mark begins the decimals; the other one, a blank or an apostrophe
 * before groups of three digits are thousands. Where the other mark cannot be thousands (`9,3`), it means decimals.
 *
 * @param mark how decimals are written in this workshop
 * @returns null when it is empty or no number
 * @example parseNumber('1,149', '.') // 1149
 * @example parseNumber('1,149', ',') // 1.149
 * @example parseNumber('9,3', '.') // 9.3
 */
export function parseNumber(text: string, mark: DecimalMark): number | null {
  const clean = text.trim().replace('−', '-');
  const sign = clean.startsWith('-') ? -1 : 1;
  const digits = sign < 0 ? clean.slice(1) : clean;
  if (digits.length > 40) return null;
  const { grouped, plain } = PATTERNS[mark];
  let normal: string | null = null;
  if (grouped.test(digits)) {
    const bare = digits.replace(/[^\d.,]/g, '');
    normal = bare === digits ? bare.replaceAll(mark === '.' ? ',' : '.', '') : bare;
  } else if (plain.test(digits)) normal = digits;
  const value = normal === null ? NaN : Number(normal.replace(',', '.'));
  return Number.isFinite(value) ? (value === 0 ? 0 : sign * value) : null;
}

/** A number for a field, in the workshop's own hand: `parseNumber` reads it back. */
export const writeNumber = (value: number, mark: DecimalMark): string => String(value).replace('.', mark);

/** Thousands apart by a blank that does not break, which nobody reads as decimals: `12 500`. */
export function formatNumber(value: number, digits = 0, fewest = digits): string {
  return numberFormat({ minimumFractionDigits: fewest, maximumFractionDigits: digits })
    .format(value)
    .replaceAll(',', '\u00a0');
}
