import { receive, type CommandOf } from '../ledger/commands';

/** Fields of a lot that a table of lots can carry, with the headings they are recognised by. */
export const IMPORT_FIELDS = [
  { name: 'name', label: 'Name of the lot', needed: true, heads: ['name', 'lot', 'lot name', 'title'] },
  {
    name: 'producer',
    label: 'Producer or co-operative',
    needed: true,
    heads: ['producer', 'supplier', 'coop', 'co-op', 'cooperative', 'co-operative', 'farm', 'estate', 'grower'],
  },
  { name: 'country', label: 'Country', needed: true, heads: ['country', 'origin'] },
  { name: 'region', label: 'Region', needed: false, heads: ['region', 'district', 'province'] },
  { name: 'variety', label: 'Variety', needed: false, heads: ['variety', 'varieties', 'genetics', 'type'] },
  { name: 'harvest', label: 'Harvest', needed: false, heads: ['harvest', 'crop', 'season', 'crop year'] },
  { name: 'sacks', label: 'Sacks', needed: true, heads: ['sacks', 'bags', 'number of sacks', 'no of bags'] },
  {
    name: 'netG',
    label: 'Net weight',
    needed: true,
    heads: ['net', 'net weight', 'net kg', 'weight', 'weight kg', 'kg', 'netg', 'netkg', 'net weight kg'],
  },
  {
    name: 'pricePerKg',
    label: 'Price a kilogram',
    needed: true,
    heads: ['price', 'price per kg', 'price/kg', 'priceperkg', 'price kg', 'unit price'],
  },
  { name: 'currency', label: 'Currency', needed: false, heads: ['currency', 'cur'] },
  { name: 'rate', label: 'Rate to your currency', needed: false, heads: ['rate', 'exchange rate', 'fx'] },
  { name: 'freight', label: 'Freight', needed: false, heads: ['freight', 'shipping', 'transport'] },
  { name: 'duty', label: 'Duty', needed: false, heads: ['duty', 'customs'] },
  {
    name: 'moisturePct',
    label: 'Moisture, %',
    needed: false,
    heads: ['moisture', 'moisture %', 'moisturepct', 'water'],
  },
  {
    name: 'received',
    label: 'Received on',
    needed: false,
    heads: ['received', 'date', 'arrived', 'arrival', 'received on'],
  },
  { name: 'note', label: 'Note', needed: false, heads: ['note', 'notes', 'remark', 'remarks', 'comment'] },
] as const;
export type ImportField = (typeof IMPORT_FIELDS)[number]['name'];

/** Which column each field is read from; null where none. */
export type Mapping = Partial<Record<ImportField, number | null | undefined>>;

export const WEIGHT_UNITS = { kg: 1000, g: 1, lb: 453.59237, t: 1_000_000 } as const;
export type WeightUnit = keyof typeof WEIGHT_UNITS;

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
  return /(\bg\b|grams?|G$)/.test(heading) ? 'g' : 'kg';
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

/** A date as `2026-03-14`, `14.3.2026` or `14/03/2026` (day first). @returns ISO at noon UTC, or null */
export function readTableDate(text: string): string | null {
  const iso = /^(\d{4})-(\d{1,2})-(\d{1,2})/.exec(text.trim());
  const local = /^(\d{1,2})[./](\d{1,2})[./](\d{4})$/.exec(text.trim());
  const [year, month, day] = iso ? [iso[1], iso[2], iso[3]] : local ? [local[3], local[2], local[1]] : [];
  if (year === undefined) return null;
  const at = new Date(Date.UTC(Number(year), Number(month) - 1, Number(day), 12));
  return at.getUTCMonth() === Number(month) - 1 && at.getUTCDate() === Number(day) ? at.toISOString() : null;
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
      at = readTableDate(text);
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
