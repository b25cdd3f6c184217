import { receive, type CommandOf } from '../ledger/commands';
import { IMPORT_FIELDS, WEIGHT_UNITS, type ImportField, type Mapping, type WeightUnit } from './import-fields';
import { instantOf } from '../units/zone';

export * from './import-fields';

const plain = (text: string): string =>
  text
    .toLowerCase()
    .replace(/[^a-z/%]+/g, ' ')
    .trim();

/** Finds the columns by their headings; each column serves one field. */
export function guessMapping(headings: readonly string[]): Mapping {
  const free = new Set(headings.keys());
  const mapping: Mapping = {};
  for (const exact of [true, false]) {
    for (const field of IMPORT_FIELDS) {
      if (mapping[field.name] !== undefined) continue;
      const index = headings.findIndex((heading, at) => {
        if (!free.has(at)) return false;
        const text = plain(heading);
        return field.heads.some((head) =>
          exact ? text === plain(head) : text.startsWith(plain(head)) && plain(head).length > 3,
        );
      });
      if (index >= 0) {
        mapping[field.name] = index;
        free.delete(index);
      }
    }
  }
  return mapping;
}

/** The unit a weight heading names: `net (kg)`, `netG`, `lb`; kilograms where it names none. */
export function guessUnit(heading: string): WeightUnit {
  if (/\b(lb|lbs|pounds?)\b/i.test(heading)) return 'lb';
  if (/\b(t|tonnes?|tons?)\b/i.test(heading)) return 't';
  return /(\bg\b|\bgrams?\b|G$)/.test(heading) ? 'g' : 'kg';
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

export interface ImportRow {
  /** Line of the table, counting the headings as 1. */
  line: number;
  command: CommandOf<'receive'> | null;
  /** ISO, or null for now. */
  at: string | null;
  problems: { field: ImportField; message: string }[];
}

export interface ImportOptions {
  mapping: Mapping;
  unit: WeightUnit;
  routeId: string;
  currency: string;
  /** Whose days the table's dates are; left out, UTC. */
  timeZone?: string;
}

const NUMBERS = new Set<ImportField>(['sacks', 'netG', 'pricePerKg', 'rate', 'freight', 'duty', 'moisturePct']);

/** Reads one row of a table of lots; every field that cannot be read is named. */
export function readLotRow(cells: readonly string[], line: number, options: ImportOptions): ImportRow {
  const problems: ImportRow['problems'] = [];
  const values: Record<string, unknown> = {
    kind: 'receive',
    routeId: options.routeId,
    form: 'beans',
    currency: options.currency,
  };
  let at: string | null = null;
  for (const { name, needed } of IMPORT_FIELDS) {
    const column = options.mapping[name];
    const text = column === undefined || column === null ? '' : (cells[column] ?? '').trim();
    if (text === '') {
      if (needed) problems.push({ field: name, message: 'is missing' });
      continue;
    }
    if (name === 'received') {
      at = readTableDate(text, options.timeZone);
      if (at === null) problems.push({ field: name, message: `“${text}” is not a date like 2026-03-14 or 14.3.2026` });
    } else if (NUMBERS.has(name)) {
      const value = readTableNumber(text);
      if (value === null) problems.push({ field: name, message: `“${text}” is not a number` });
      else values[name] = name === 'netG' ? value * WEIGHT_UNITS[options.unit] : value;
    } else values[name] = name === 'currency' ? text.toUpperCase() : text;
  }
  if (problems.length > 0) return { line, command: null, at, problems };
  const parsed = receive.safeParse(values);
  if (parsed.success) return { line, command: parsed.data, at, problems };
  return {
    line,
    command: null,
    at,
    problems: parsed.error.issues.map((issue) => ({
      field: String(issue.path[0]) as ImportField,
      message: issue.message,
    })),
  };
}
