/* Cells of tables that go out. */

export type Cell = string | number | null;

/** What a spreadsheet would run: a sign, also a full-width one, behind blanks or a quotation mark or not. */
const RUNS = /^[\s"']*[=+\-@＝＋－＠\t\r]/u;

/**
 * A cell that no spreadsheet runs as a formula: an apostrophe keeps it from that. Figures stay figures.
 *
 * @example harmlessCell('=1+1') // "'=1+1"
 * @example harmlessCell(-3) // -3
 */
export const harmlessCell = (value: Cell): Cell =>
  typeof value === 'string' && RUNS.test(value) ? `'${value}` : value;

/** How tables go out (RFC 4180): lines end as its do, and a break within a cell is quoted. */
export const TABLE_OUT = { record_delimiter: 'windows', quoted_match: /[\r\n]/ } as const;
