import { guessMapping, guessUnit, readLotRow, type Mapping, type WeightUnit } from '@wunsch/core/beans/import';
import type { ImportPreview } from '@wunsch/core/api/beans';
import { DomainError } from '@wunsch/core/errors/domain-error';
import { readTable } from '../http/csv';

const MOST_ROWS = 2000;

export interface ImportRequest {
  text: string;
  mapping?: Mapping | undefined;
  unit?: WeightUnit | undefined;
  pricePer?: WeightUnit | undefined;
  /** What weights are in, and prices of, where neither a heading nor anybody says it. */
  heavy: WeightUnit;
  routeId: string;
  currency: string;
  timeZone: string;
}

/** Reads a table of lots and says, row by row, what would come in and what is wrong. Changes nothing. */
export function previewImport({ text, mapping, unit, pricePer, heavy, ...own }: ImportRequest): ImportPreview {
  const [headings, ...body] = readTable(text, { most: MOST_ROWS + 2, code: 'beans/broken-csv' });
  if (!headings || body.length === 0)
    throw new DomainError('beans/empty-csv', 'The table has no rows under its headings.', [
      { path: 'text', message: 'has no rows' },
    ]);
  if (body.length > MOST_ROWS)
    throw new DomainError('beans/long-csv', `More than ${MOST_ROWS} rows at once: split the table.`, [
      { path: 'text', message: 'is too long' },
    ]);
  const columns = mapping ?? guessMapping(headings);
  const named = (field: 'netG' | 'pricePerKg'): WeightUnit => guessUnit(headings[columns[field] ?? -1] ?? '', heavy);
  const units = { unit: unit ?? named('netG'), pricePer: pricePer ?? named('pricePerKg') };
  const rows = body.map((cells, index) => ({
    ...readLotRow(cells, index + 2, { mapping: columns, ...units, ...own }),
    cells,
  }));
  const bad = rows.filter(({ command }) => command === null).length;
  return { headings, mapping: columns, ...units, rows, good: rows.length - bad, bad };
}
