import { open, OPENING_KINDS, type OpeningKind } from './opening-command';
import type { OpenCommand } from './opening-command';
import { guessUnit, readTableDate, readTableNumber, WEIGHT_UNITS, type WeightUnit } from '../units/table';

/** Columns of a table of opening stock, by the headings they are recognised by. */
export const OPENING_COLUMNS = [
  { name: 'what', label: 'What it is', needed: true, heads: ['what', 'kind', 'type'] },
  { name: 'name', label: 'Name', needed: true, heads: ['name', 'goods', 'description'] },
  { name: 'weight', label: 'Weight', needed: true, heads: ['weight', 'weight g', 'weight kg', 'weight lb', 'mass'] },
  { name: 'pieces', label: 'Pieces', needed: false, heads: ['pieces', 'count', 'bars', 'number'] },
  { name: 'value', label: 'Worth', needed: false, heads: ['worth', 'value', 'cost'] },
  { name: 'made', label: 'Made on', needed: false, heads: ['made', 'made on', 'date', 'since'] },
  { name: 'code', label: 'Code on it', needed: false, heads: ['code', 'label', 'code on it'] },
  { name: 'cocoa', label: 'Cocoa, %', needed: false, heads: ['cocoa', 'cocoa %', 'percent'] },
  { name: 'allergens', label: 'Allergens', needed: false, heads: ['allergens', 'allergen', 'contains'] },
  { name: 'producer', label: 'Producer', needed: false, heads: ['producer', 'supplier', 'maker'] },
  { name: 'country', label: 'Country', needed: false, heads: ['country', 'origin'] },
  { name: 'note', label: 'Note', needed: false, heads: ['note', 'notes', 'remark'] },
] as const;
type Column = (typeof OPENING_COLUMNS)[number]['name'];

export interface OpeningRow {
  line: number;
  /** Null where the row cannot be read. */
  command: OpenCommand | null;
  /** ISO, at noon of the day it was made; null where the table does not say. */
  at: string | null;
  problems: string[];
}

const plain = (text: string): string =>
  text
    .trim()
    .toLowerCase()
    .replace(/[^a-z%]+/g, ' ')
    .trim();

/** What people call each kind of goods. */
const WORDS: Readonly<Record<string, OpeningKind>> = {
  'sorted beans': 'beans',
  'roasted beans': 'roasted',
  roast: 'roasted',
  nib: 'nibs',
  couverture: 'block',
  blocks: 'block',
  bar: 'bars',
  'unpacked bars': 'bars',
  second: 'seconds',
  'packed bars': 'packed',
  batch: 'mass',
};

/**
 * Reads a table of what is in the house when the book begins.
 *
 * @param rows cells, the headings first
 * @param own the route that goods still on their way follow, the workshop's zone, and what it weighs in: the unit of a table
 *   whose heading names none
 * @returns every row, with its command or what is wrong with it; columns that are not known are left out
 */
export function readOpening(
  rows: readonly (readonly string[])[],
  own: { routeId: string | null; timeZone: string; heavy: WeightUnit },
): { missing: string[]; rows: OpeningRow[] } {
  const [headings = [], ...body] = rows;
  const at = new Map<Column, number>();
  for (const { name, heads } of OPENING_COLUMNS) {
    const index = headings.findIndex((heading) => (heads as readonly string[]).includes(plain(heading)));
    if (index >= 0) at.set(name, index);
  }
  const perUnit = WEIGHT_UNITS[guessUnit(headings[at.get('weight') ?? -1] ?? '', own.heavy)];
  const missing = OPENING_COLUMNS.filter(({ name, needed }) => needed && !at.has(name)).map(({ label }) => label);
  return { missing, rows: body.map((cells, index) => readRow(cells, index + 2, at, perUnit, own)) };
}

function readRow(
  cells: readonly string[],
  line: number,
  at: ReadonlyMap<Column, number>,
  perUnit: number,
  { routeId, timeZone }: Parameters<typeof readOpening>[1],
): OpeningRow {
  const problems: string[] = [];
  const cell = (name: Column): string => (cells[at.get(name) ?? -1] ?? '').trim();
  const figure = (name: Column, label: string): number | undefined => {
    const text = cell(name);
    if (text === '') return undefined;
    const value = readTableNumber(text);
    if (value === null) problems.push(`${label} “${text}” is no number`);
    return value ?? undefined;
  };
  const kind = plain(cell('what'));
  const what = (OPENING_KINDS as readonly string[]).includes(kind) ? (kind as OpeningKind) : WORDS[kind];
  if (what === undefined) problems.push(`“${cell('what')}” is none of ${OPENING_KINDS.join(', ')}`);
  const weight = figure('weight', 'Weight');
  const made = cell('made') === '' ? null : readTableDate(cell('made'), timeZone);
  if (cell('made') !== '' && made === null) problems.push(`“${cell('made')}” is no date`);
  const value = figure('value', 'Worth');
  const pieces = figure('pieces', 'Pieces');
  const cocoaPct = figure('cocoa', 'Cocoa');
  if (problems.length > 0 || what === undefined) return { line, command: null, at: made, problems };
  const read = open.safeParse({
    kind: 'open',
    what,
    name: cell('name'),
    ...(cell('code') === '' ? {} : { code: cell('code') }),
    routeId,
    ...(weight === undefined ? {} : { massG: weight * perUnit }),
    ...(pieces === undefined ? {} : { pieces }),
    ...(value === undefined ? {} : { value }),
    roasted: what === 'roasted' || what === 'nibs' ? true : null,
    ...(cocoaPct === undefined ? {} : { cocoaPct }),
    allergens: cell('allergens')
      .split(/[,;/]+/)
      .map((word) => word.trim())
      .filter((word) => word !== ''),
    producer: cell('producer'),
    country: cell('country'),
    note: cell('note'),
  });
  if (read.success) return { line, command: read.data, at: made, problems };
  return {
    line,
    command: null,
    at: made,
    problems: read.error.issues.map(({ path, message }) => `${path.join('.')} ${message}`),
  };
}
