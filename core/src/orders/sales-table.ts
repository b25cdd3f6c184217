import { readTableDate, readTableNumber } from '../units/table';

/** Columns of a table of sales, by the headings they are recognised by. */
export const SALES_COLUMNS = [
  { name: 'date', label: 'Date', needed: true, heads: ['date', 'day', 'sold on', 'when'] },
  { name: 'channel', label: 'Channel', needed: true, heads: ['channel', 'sold by', 'sales channel'] },
  { name: 'what', label: 'Product or code', needed: true, heads: ['product', 'code', 'item', 'gtin', 'what', 'name'] },
  { name: 'pieces', label: 'Pieces', needed: true, heads: ['pieces', 'quantity', 'qty', 'count', 'number'] },
  { name: 'takings', label: 'Takings, all together', needed: true, heads: ['takings', 'total', 'amount', 'revenue'] },
  { name: 'to', label: 'Buyer', needed: false, heads: ['to', 'buyer', 'customer'] },
] as const;
type Column = (typeof SALES_COLUMNS)[number]['name'];

export interface SalesRow {
  line: number;
  /** ISO, at noon of its day. */
  at: string | null;
  channel: string;
  what: string;
  pieces: number;
  takings: number;
  to: string;
  problems: string[];
}

const plain = (text: string): string =>
  text
    .trim()
    .toLowerCase()
    .replace(/[^a-z]+/g, ' ')
    .trim();

/** Reads a table of sales from a till, a shop or a sheet. @param rows cells, the headings first */
export function readSales(
  rows: readonly (readonly string[])[],
  timeZone: string,
): { missing: string[]; rows: SalesRow[] } {
  const [headings = [], ...body] = rows;
  const at = new Map<Column, number>();
  for (const { name, heads } of SALES_COLUMNS) {
    const index = headings.findIndex((heading) => (heads as readonly string[]).includes(plain(heading)));
    if (index >= 0) at.set(name, index);
  }
  const missing = SALES_COLUMNS.filter(({ name, needed }) => needed && !at.has(name)).map(({ label }) => label);
  return {
    missing,
    rows: body.map((cells, index): SalesRow => {
      const cell = (name: Column): string => (cells[at.get(name) ?? -1] ?? '').trim();
      const problems: string[] = [];
      const date = readTableDate(cell('date'), timeZone);
      if (date === null) problems.push(`“${cell('date')}” is no date`);
      const pieces = readTableNumber(cell('pieces'));
      if (pieces === null || !Number.isInteger(pieces) || pieces <= 0)
        problems.push(`“${cell('pieces')}” is no number of pieces`);
      const takings = readTableNumber(cell('takings'));
      if (takings === null || takings < 0) problems.push(`“${cell('takings')}” is no money`);
      if (cell('channel') === '') problems.push('names no channel');
      if (cell('what') === '') problems.push('names nothing that was sold');
      return {
        line: index + 2,
        at: date,
        channel: cell('channel').slice(0, 60),
        what: cell('what'),
        pieces: pieces ?? 0,
        takings: takings ?? 0,
        to: cell('to').slice(0, 120),
        problems,
      };
    }),
  };
}
