import { parse, type CsvError } from 'csv-parse/sync';
import { guessMapping, guessUnit, readLotRow, type Mapping, type WeightUnit } from '@wunsch/core/beans/import';
import type { ImportPreview } from '@wunsch/core/api/beans';
import { DomainError } from '@wunsch/core/errors/domain-error';

const MOST_ROWS = 2000;

const WORDS: Record<string, string> = {
  CSV_QUOTE_NOT_CLOSED: 'a quotation mark is opened and never closed',
  INVALID_OPENING_QUOTE: 'a quotation mark stands inside a field',
  CSV_INVALID_CLOSING_QUOTE: 'something stands behind a closing quotation mark',
  CSV_NON_TRIMABLE_CHAR_AFTER_CLOSING_QUOTE: 'something stands behind a closing quotation mark',
};

/** Rows of a table as text (RFC 4180; comma, semicolon or tab). @throws DomainError naming the line that is broken */
export function readTable(text: string): string[][] {
  const first = text.split('\n', 1)[0] ?? '';
  const delimiter = [';', '\t', ','].reduce(
    (best, sign) => (first.split(sign).length > first.split(best).length ? sign : best),
    ',',
  );
  try {
    return parse(text, {
      bom: true,
      delimiter,
      relax_column_count: true,
      skip_empty_lines: true,
      to: MOST_ROWS + 2,
    }) as string[][];
  } catch (error) {
    const { code, lines, message } = error as CsvError & { lines?: number };
    throw new DomainError(
      'beans/broken-csv',
      `The table cannot be read: ${WORDS[code] ?? message}${lines === undefined ? '' : `, line ${lines}`}. Nothing was taken in.`,
      [{ path: 'text', message: `line ${lines ?? '?'}: ${WORDS[code] ?? message}` }],
    );
  }
}

export interface ImportRequest {
  text: string;
  mapping?: Mapping | undefined;
  unit?: WeightUnit | undefined;
  routeId: string;
  currency: string;
}

/** Reads a table of lots and says, row by row, what would come in and what is wrong. Changes nothing. */
export function previewImport({ text, mapping, unit, routeId, currency }: ImportRequest): ImportPreview {
  const [headings, ...body] = readTable(text);
  if (!headings || body.length === 0)
    throw new DomainError('beans/empty-csv', 'The table has no rows under its headings.', [
      { path: 'text', message: 'has no rows' },
    ]);
  if (body.length > MOST_ROWS)
    throw new DomainError('beans/long-csv', `More than ${MOST_ROWS} rows at once: split the table.`, [
      { path: 'text', message: 'is too long' },
    ]);
  const columns = mapping ?? guessMapping(headings);
  const weight =
    unit ?? guessUnit(columns.netG === undefined || columns.netG === null ? '' : (headings[columns.netG] ?? ''));
  const rows = body.map((cells, index) => ({
    ...readLotRow(cells, index + 2, { mapping: columns, unit: weight, routeId, currency }),
    cells,
  }));
  const bad = rows.filter(({ command }) => command === null).length;
  return { headings, mapping: columns, unit: weight, rows, good: rows.length - bad, bad };
}
