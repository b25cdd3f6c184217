import { parse, type CsvError } from 'csv-parse/sync';
import { stringify } from 'csv-stringify/sync';
import { DomainError } from '@wunsch/core/errors/domain-error';
import { harmlessCell, TABLE_OUT, type Cell } from '@wunsch/core/units/cells';

/** Rows as CSV (RFC 4180). */
export const csv = (rows: readonly (readonly Cell[])[]): string =>
  stringify(
    rows.map((row) => row.map(harmlessCell)),
    TABLE_OUT,
  );

const WORDS: Record<string, string> = {
  CSV_QUOTE_NOT_CLOSED: 'a quotation mark is opened and never closed',
  INVALID_OPENING_QUOTE: 'a quotation mark stands inside a field',
  CSV_INVALID_CLOSING_QUOTE: 'something stands behind a closing quotation mark',
  CSV_NON_TRIMABLE_CHAR_AFTER_CLOSING_QUOTE: 'something stands behind a closing quotation mark',
};

/** The line that shows best what stands between columns: tables may have a few lines above them. */
const widest = (text: string): string =>
  text
    .slice(0, 4000)
    .split('\n', 20)
    .reduce((best, line) => (line.split(/[;,\t]/).length > best.split(/[;,\t]/).length ? line : best), '');

function plainRows(text: string, delimiter: string, most: number, keepBlank: boolean): string[][] {
  const rows: string[][] = [];
  for (const line of text.replace(/^\uFEFF/, '').split(/\r\n|\n|\r/)) {
    if (line === '' && !keepBlank) continue;
    if (rows.length === most) break;
    rows.push(line.split(delimiter));
  }
  return rows;
}

interface TableOptions {
  /** Rows that are read at most. */
  most: number;
  /** Code of the refusal. */
  code: string;
  /** Blank lines stay as rows of one empty cell, so that a row's place is its line. */
  keepBlank?: boolean;
}

/** More columns than any table has that somebody keeps: beyond it headings are not even looked at. */
const MOST_COLUMNS = 200;

/** @throws DomainError naming the first line that is too wide */
function checkWidth(rows: readonly (readonly string[])[], code: string): void {
  const wide = rows.findIndex((row) => row.length > MOST_COLUMNS);
  if (wide < 0) return;
  throw new DomainError(code, `Row ${wide + 1} has more than ${MOST_COLUMNS} columns. Nothing was taken in.`, [
    { path: 'text', message: `row ${wide + 1} has more than ${MOST_COLUMNS} columns` },
  ]);
}

/** Rows of a table as text (RFC 4180; comma, semicolon or tab). @throws DomainError naming the line that is broken */
export function readTable(text: string, options: TableOptions): string[][] {
  const rows = tableRows(text, options);
  checkWidth(rows, options.code);
  return rows;
}

function tableRows(text: string, { most, code, keepBlank = false }: TableOptions): string[][] {
  const first = widest(text);
  const delimiter = [';', '\t', ','].reduce(
    (best, sign) => (first.split(sign).length > first.split(best).length ? sign : best),
    ',',
  );
  // Without a quotation mark a line is its fields, and a long log is read several times as fast.
  if (!text.includes('"')) return plainRows(text, delimiter, most, keepBlank);
  try {
    return parse(text, {
      bom: true,
      delimiter,
      relax_column_count: true,
      skip_empty_lines: !keepBlank,
      to: most,
    });
  } catch (error) {
    const { code: fault, lines, message } = error as CsvError & { lines?: number };
    throw new DomainError(
      code,
      `The table cannot be read: ${WORDS[fault] ?? message}${lines === undefined ? '' : `, line ${lines}`}. Nothing was taken in.`,
      [{ path: 'text', message: `line ${lines ?? '?'}: ${WORDS[fault] ?? message}` }],
    );
  }
}
