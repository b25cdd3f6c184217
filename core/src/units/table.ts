import { G_PER_LB } from './mass';
import { instantOf } from './zone';

/* Figures, dates and units as tables write them. */

export const WEIGHT_UNITS = { kg: 1000, g: 1, lb: G_PER_LB, t: 1_000_000 } as const;
export type WeightUnit = keyof typeof WEIGHT_UNITS;

/**
 * The unit that the heading of a weight, or of a price by weight, names: `net (kg)`, `netG`, `lb`, `USD/t`.
 *
 * @param otherwise where it names none
 */
export function guessUnit(heading: string, otherwise: WeightUnit = 'kg'): WeightUnit {
  if (/kgs?\b|kilo/i.test(heading)) return 'kg';
  if (/\b(lb|lbs|pounds?)\b/i.test(heading)) return 'lb';
  if (/\b(t|tonnes?|tons?)\b/i.test(heading)) return 't';
  return /(\bg\b|\bgrams?\b|G$)/.test(heading) ? 'g' : otherwise;
}

/**
 * A number as tables write it: `1,234.5`, `1.234,5`, `1 234,5`, `62,5`, `€ 6.40`.
 *
 * @returns null when it is not a number; a lone group of three behind a comma or point is read as thousands
 *   only if a second sign says so
 */
export function readTableNumber(text: string): number | null {
  const clean = text.replace(/[\s\u00a0'€$£%]/g, '');
  if (!/^-?[\d.,]+$/.test(clean)) return null;
  const [comma, point] = [clean.lastIndexOf(','), clean.lastIndexOf('.')];
  const many = (sign: string): boolean => clean.split(sign).length > 2;
  let normal: string;
  if (comma >= 0 && point >= 0)
    normal = comma > point ? clean.replaceAll('.', '').replace(',', '.') : clean.replaceAll(',', '');
  else if (comma >= 0) normal = many(',') ? clean.replaceAll(',', '') : clean.replace(',', '.');
  else normal = many('.') ? clean.replaceAll('.', '') : clean;
  const value = Number(normal);
  return normal === '' || !Number.isFinite(value) ? null : value;
}

/** A date as `2026-03-14`, `14.3.2026` or `14/03/2026` (day first). @returns ISO at the workshop's noon, or null */
export function readTableDate(text: string, timeZone = 'UTC'): string | null {
  const iso = /^(\d{4})-(\d{1,2})-(\d{1,2})/.exec(text.trim());
  const local = /^(\d{1,2})[./](\d{1,2})[./](\d{4})$/.exec(text.trim());
  const [year, month, day] = iso ? [iso[1], iso[2], iso[3]] : local ? [local[3], local[2], local[1]] : [];
  if (year === undefined) return null;
  const two = (part = ''): string => part.padStart(2, '0');
  const at = instantOf(`${year}-${two(month)}-${two(day)}T12:00`, timeZone);
  return at === null ? null : new Date(at).toISOString();
}
