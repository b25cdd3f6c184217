import { receive } from './commands';
import type { ReceiveCommand } from './commands';
import { guessUnit, readTableDate, readTableNumber, WEIGHT_UNITS, type WeightUnit } from '../units/table';
import { IMPORT_FIELDS, type ImportField, type Mapping } from './import-fields';

export * from './import-fields';
export { guessUnit, readTableDate, readTableNumber };

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

export interface ImportRow {
  /** Line of the table, counting the headings as 1. */
  line: number;
  command: ReceiveCommand | null;
  /** ISO, or null for now. */
  at: string | null;
  problems: { field: ImportField; message: string }[];
}

export interface ImportOptions {
  mapping: Mapping;
  /** What weights are in, and of which weight prices are. */
  unit: WeightUnit;
  pricePer: WeightUnit;
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
      else if (name === 'netG') values[name] = value * WEIGHT_UNITS[options.unit];
      else values[name] = name === 'pricePerKg' ? value / (WEIGHT_UNITS[options.pricePer] / WEIGHT_UNITS.kg) : value;
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
