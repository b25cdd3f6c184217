import { readOpening } from '../src/money/opening-table';

/* A table of what is in the house when the book begins. */

const own = { routeId: 'whole-bean', timeZone: 'Europe/Lisbon', heavy: 'kg' as const };
const read = (...rows: string[][]) => readOpening(rows, own);
const HEADS = ['What', 'Name', 'Weight (kg)', 'Pieces', 'Worth', 'Made on', 'Code on it', 'Cocoa %', 'Allergens'];

test('a row is a step: weight in grams, the day at the workshop’s noon, several allergens', () => {
  const { missing, rows } = read(HEADS, [
    'packed bars',
    'Milk 54',
    '12,5',
    '178',
    '640.00',
    '14.3.2026',
    'B012-1',
    '54',
    'milk; soya',
  ]);
  expect(missing).toEqual([]);
  expect(rows).toEqual([
    {
      line: 2,
      at: '2026-03-14T12:00:00.000Z',
      problems: [],
      command: expect.objectContaining({
        kind: 'open',
        what: 'packed',
        name: 'Milk 54',
        code: 'B012-1',
        massG: 12_500,
        pieces: 178,
        value: 640,
        cocoaPct: 54,
        allergens: ['milk', 'soya'],
        routeId: 'whole-bean',
        roasted: null,
      }),
    },
  ]);
});

test.each([
  ['Weight (kg)', '2', 2000],
  ['weight g', '2', 2],
  ['Weight lb', '2', 907.18474],
  ['mass', '2', 2000],
])('under %s, %s is %d g', (heading, text, grams) => {
  const { rows } = read(['kind', 'goods', heading], ['nibs', 'Fiji', text]);
  expect(rows[0]?.command?.massG).toBeCloseTo(grams, 5);
});

test('a heading without a unit is read as the workshop weighs', () => {
  const table = [
    ['kind', 'goods', 'weight'],
    ['nibs', 'Fiji', '2'],
  ];
  expect(readOpening(table, { ...own, heavy: 'lb' }).rows[0]?.command?.massG).toBeCloseTo(907.18474, 5);
  expect(readOpening(table, own).rows[0]?.command?.massG).toBe(2000);
});

test.each([
  ['Sorted beans', 'beans', null],
  ['roast', 'roasted', true],
  ['Nib', 'nibs', true],
  ['COUVERTURE', 'block', null],
  ['blocks', 'block', null],
  ['second', 'seconds', null],
  ['batch', 'mass', null],
  ['husk', 'husk', null],
])('%s are %s', (word, what, isRoasted) => {
  const { rows } = read(['what', 'name', 'weight'], [word, 'X', '1']);
  expect(rows[0]?.command).toMatchObject({ what, roasted: isRoasted });
});

test('columns in any order, under other headings; what is not known is left out', () => {
  const { missing, rows } = read(
    ['Remark', 'shelf', 'Origin', 'mass', 'Description', 'Type', 'maker'],
    ['dusty', '4', 'Peru', '3', 'High valley', 'beans', 'Ridge'],
  );
  expect(missing).toEqual([]);
  expect(rows[0]?.command).toMatchObject({ note: 'dusty', country: 'Peru', massG: 3000, producer: 'Ridge' });
  expect(rows[0]?.command).not.toHaveProperty('shelf');
});

test('columns that are needed and not there are named', () => {
  expect(read(['Name', 'Pieces'], ['X', '3']).missing).toEqual(['What it is', 'Weight']);
  expect(read().missing).toEqual(['What it is', 'Name', 'Weight']);
});

test('a row that cannot be read says all that is wrong with it, by its line', () => {
  const { rows } = read(
    HEADS,
    ['bars', 'Good', '1', '14'],
    ['cake', 'Bad', 'heavy', 'some', '?', 'soon', '', 'much'],
    ['bars', '', '1', '14'],
    ['packed', 'Bad code', '1', '14', '', '', 'a code!'],
  );
  expect(rows.map(({ line, command }) => [line, command !== null])).toEqual([
    [2, true],
    [3, false],
    [4, false],
    [5, false],
  ]);
  expect(rows[1]?.problems).toHaveLength(6);
  expect(rows[1]?.problems.join('\n')).toMatch(/“cake” is none of beans, .*\n.*“heavy” is no number/s);
  expect(rows[2]?.problems).toEqual(['name is missing']);
  expect(rows[3]?.problems).toEqual(['code is 2 to 24 letters, digits and hyphens']);
});

test('bars of half a piece, or of none, are refused; so is what weighs nothing', () => {
  const of = (weight: string, pieces: string) =>
    read(['what', 'name', 'weight', 'pieces'], ['bars', 'X', weight, pieces]).rows[0]?.problems;
  expect(of('1', '2.5')).toEqual(['pieces must be whole']);
  expect(of('1', '0')).toEqual(['pieces must be at least 1']);
  expect(of('0', '3')).toEqual(['massG must be more than 0 g']);
  expect(of('1', '3')).toEqual([]);
});
