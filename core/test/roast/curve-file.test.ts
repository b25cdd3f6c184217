import { curveRows, readCell, readCurveTable } from '../../src/roast/curve-file';

const rows = (text: string, sign = ','): string[][] =>
  text
    .trim()
    .split('\n')
    .map((line) => line.split(sign));
const list = (values: ArrayLike<number>): number[] => Array.from(values);

describe('a logger’s table', () => {
  test('seconds, beans and air in °C, by their headings', () => {
    const read = readCurveTable(rows('Time (s),Bean temp (°C),Oven air (°C)\n0,22.5,140\n1,22.6,139.5\n2,22.8,139'));
    expect(read.mapping).toEqual({ roles: ['time', 'bean', 'air'], time: 'seconds', unit: 'C' });
    expect(list(read.curve.beanC)).toEqual([22.5, 22.6, 22.8]);
    expect(list(read.curve.airC)).toEqual([140, 139.5, 139]);
    expect(read.bad).toEqual([]);
  });

  test('°F with a clock column, over midnight', () => {
    const read = readCurveTable(
      rows('clock,probe 1 [F],probe 2 [F]\n23:59:58,212,300\n23:59:59,213.8,300\n00:00:00,215.6,302'),
    );
    expect(read.mapping).toEqual({ roles: ['time', 'bean', 'air'], time: 'clock', unit: 'F' });
    expect(list(read.curve.seconds)).toEqual([0, 1, 2]);
    expect(list(read.curve.beanC)).toEqual([100, 101, 102]);
    expect(read.startsAt).toBe('23:59:58');
  });

  test('a clock of twelve hours', () => {
    const read = readCurveTable(rows('time,bean C\n11:59:59 AM,80\n12:00:00 PM,81\n12:00:01 PM,82'));
    expect(read.mapping.time).toBe('clock');
    expect(list(read.curve.seconds)).toEqual([0, 1, 2]);
  });

  test('minutes and seconds that begin near nothing are no clock', () => {
    const read = readCurveTable(rows('elapsed;bean\n0:00;20,5\n0:30;24\n1:00;29,5\n61:00;90', ';'));
    expect(read.mapping.time).toBe('elapsed');
    expect(list(read.curve.seconds)).toEqual([0, 30, 60, 3660]);
    expect(list(read.curve.beanC)).toEqual([20.5, 24, 29.5, 90]);
  });

  test('dates with and without a zone, milliseconds, minutes', () => {
    const at = (text: string): number[] => list(readCurveTable(rows(text)).curve.seconds);
    expect(at('timestamp,bean C\n2026-03-01T06:10:00Z,20\n2026-03-01T06:10:02.500Z,21')).toEqual([0, 2.5]);
    expect(at('date,bean C\n2026-03-01 06:10:00,20\n2026-03-01 06:11:00,21')).toEqual([0, 60]);
    expect(at('ms,bean C\n1760000000000,20\n1760000001500,21')).toEqual([0, 1.5]);
    expect(at('time (min),bean C\n0,20\n0.5,21')).toEqual([0, 30]);
  });

  test('no headings: columns by their place, and beans over 190 are °F', () => {
    const read = readCurveTable(rows('0,70,280\n10,120,280\n20,255,281'));
    expect(read.mapping).toEqual({ roles: ['time', 'bean', 'air'], time: 'seconds', unit: 'F' });
    expect(read.unitWhy).toContain('would have burnt');
    expect(read.columns[0]?.name).toBe('Column 1');
  });

  test('lines above the table are passed over', () => {
    const read = readCurveTable([['Logger 7'], ['serial', '0042'], [''], ['t', 'bean C'], ['0', '20'], ['1', '21']]);
    expect(read.rows).toBe(2);
    expect(read.columns.map(({ name }) => name)).toEqual(['t', 'bean C']);
  });

  test('blank lines are passed over, and lines keep their number', () => {
    const preview = readCurveTable(rows('time,bean\n\n0,20\n\n10,21\nten,22\n30,23'));
    expect(preview).toMatchObject({ rows: 3, bad: [{ line: 6 }] });
    expect(preview.mapping.roles).toEqual(['time', 'bean']);
  });

  test('bad rows are named with their line; silent probes are no bad rows', () => {
    const read = readCurveTable(
      rows('t,bean C,air C\n0,20,140\n1,abc,140\n2,21\n3,,141\n2,22,141\n4,9999,141\n5,23,141\nx,23,141'),
    );
    expect(read.bad).toEqual([
      { line: 3, what: '“abc” is not a temperature' },
      { line: 4, what: 'has 2 columns of 3' },
      { line: 6, what: 'goes back in time' },
      { line: 7, what: 'is no temperature of a roast' },
      { line: 9, what: '“x” is not a time' },
    ]);
    expect(list(read.curve.beanC)).toEqual([20, NaN, 23]);
  });

  test('a row of another year is a slip of the clock, and named', () => {
    const read = readCurveTable(rows('Time (s),Bean temp (°C)\n0,22\n1,23\n1767225600,24\n2,25'));
    expect(read.bad).toEqual([{ line: 4, what: 'is more than a week after the first reading' }]);
    expect(list(read.curve.seconds)).toEqual([0, 1, 2]);
  });

  test('what the maker says overrules what was recognised', () => {
    const read = readCurveTable(rows('t,a,b\n0,20,140\n1,21,141'), { roles: ['time', 'air', 'bean'], unit: 'F' });
    expect(list(read.curve.beanC)).toEqual([60, 60.56]);
    expect(read.unitWhy).toBe('as you said');
  });

  test('gaps are told', () => {
    const body = Array.from({ length: 40 }, (_, i) => `${i < 20 ? i : i + 60},${20 + i}`).join('\n');
    expect(readCurveTable(rows(`s,bean C\n${body}`)).gaps).toEqual([{ fromS: 19, toS: 80 }]);
  });

  test.each([
    ['hello\nworld', 'roast/no-table'],
    ['a,b\n,\n,', 'roast/no-table'],
    ['t,bean C\n0,20', 'roast/no-readings'],
  ])('%j is refused', (text, code) => {
    expect(() => readCurveTable(rows(text))).toThrow(expect.objectContaining({ code }));
  });

  test('no column called time, none called a temperature', () => {
    const table = rows('t,bean C\n0,20\n1,21');
    expect(() => readCurveTable(table, { roles: ['none', 'bean'] })).toThrow(
      expect.objectContaining({ code: 'roast/no-time' }),
    );
    expect(() => readCurveTable(table, { roles: ['time', 'none'] })).toThrow(
      expect.objectContaining({ code: 'roast/no-temperature' }),
    );
  });

  test('what goes out comes in again', () => {
    const read = readCurveTable(rows('t,bean C,air C\n0,20.25,140\n1,,141\n2,21.5,'));
    const out = curveRows(read.curve).map((row) => row.map((cell) => (cell === null ? '' : String(cell))));
    expect(readCurveTable(out)).toMatchObject({ curve: read.curve, mapping: read.mapping });
  });

  test('ten times the rows take about ten times as long', () => {
    const table = (rows: number): string[][] => [
      ['time', 'bean', 'air'],
      ...Array.from({ length: rows }, (_, i) => [String(i), (20 + i / 1000).toFixed(1), '150']),
    ];
    const fastest = (rows: number): number =>
      Math.min(
        ...Array.from({ length: 3 }, () => {
          const made = table(rows);
          const began = performance.now();
          expect(readCurveTable(made).rows).toBe(rows);
          return performance.now() - began;
        }),
      );
    // The bench holds the time itself; here a machine may be busy, and what grows with the square would be a hundred.
    expect(fastest(100_000) / fastest(10_000)).toBeLessThan(40);
  });

  test('cells as loggers write them', () => {
    expect(['21.5', '21,5', '-3', '70 F', '70°C', '1e2'].map(readCell)).toEqual([21.5, 21.5, -3, 70, 70, 100]);
    expect(['', 'NaN', '--', 'OL'].map(readCell)).toEqual([NaN, NaN, NaN, NaN]);
    expect(readCell('12 apples')).toBeNull();
  });
});
