import { compareValues, rowsFound, type Column } from '../src/parts/listing';

interface Row {
  code: string;
  origin: string;
  massG: number | null;
}
const rows: Row[] = [
  { code: 'B9', origin: 'Fiji', massG: 900 },
  { code: 'B10', origin: 'Viet Nam', massG: null },
  { code: 'B11', origin: 'Fiji', massG: 12 },
];
const columns: Column<Row>[] = [
  { id: 'code', head: 'Code', value: ({ code }) => code },
  { id: 'origin', head: 'Origin', value: ({ origin }) => origin, filter: 'all' },
  { id: 'mass', head: 'Mass', value: ({ massG }) => massG },
];
const codes = (found: readonly Row[]): string[] => found.map(({ code }) => code);

describe('a list', () => {
  test('sorts figures by size and codes as people count', () => {
    expect(rows.map(({ code }) => code).sort(compareValues)).toEqual(['B9', 'B10', 'B11']);
    expect([900, 12, 100].sort(compareValues)).toEqual([12, 100, 900]);
  });

  test('is searched in all of its columns, every word of it', () => {
    expect(codes(rowsFound(rows, columns, 'fiji b1', {}))).toEqual(['B11']);
    expect(codes(rowsFound(rows, columns, '900', {}))).toEqual(['B9']);
    expect(rowsFound(rows, columns, 'peru', {})).toEqual([]);
  });

  test('keeps to what was chosen, whole values only', () => {
    expect(codes(rowsFound(rows, columns, '', { origin: 'Fiji' }))).toEqual(['B9', 'B11']);
    expect(rowsFound(rows, columns, '', { origin: 'Fij' })).toEqual([]);
    expect(codes(rowsFound(rows, columns, '', { mass: '' }))).toEqual(['B10']);
  });
});
