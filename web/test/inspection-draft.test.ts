import { NOTHING_COUNTED, inspectionOf, readSack, rowsOf, sackText } from '../src/beans/inspection-draft';
import { mark } from '../src/beans/tally';

const text = (gross: string, tare = '0,6', place = ' rack A ') => ({ gross, tare, place });

test('a sack is read in kilograms or pounds, with comma or point', () => {
  expect(readSack(text('62,6'), 1, 'metric')).toEqual({ row: { no: 1, grossG: 62_600, tareG: 600, place: 'rack A' } });
  expect(readSack(text('138', '1.5'), 2, 'imperial')).toMatchObject({ row: { no: 2, grossG: 62_595.7, tareG: 680.4 } });
  expect(readSack(text('62.6', ''), 1, 'metric')).toMatchObject({ row: { tareG: 0 } });
});

test.each([
  ['', '0.6', 'gross weight is missing'],
  ['heavy', '0.6', 'gross weight is not a number'],
  ['62', 'light', 'tare is not a number'],
  ['0.5', '0.6', 'heavier than the full one'],
  ['62600', '0.6', 'right unit'],
  ['-3', '0', 'more than nothing'],
])('a sack of %s less %s is refused', (gross, tare, problem) => {
  const read = readSack(text(gross, tare), 1, 'metric');
  expect('problem' in read && read.problem).toContain(problem);
});

test('what is weighed goes to text and back without a gram lost', () => {
  const row = { no: 1, grossG: 62_457, tareG: 587, place: 'B' };
  expect(rowsOf([sackText(row, 'metric')], 'metric')).toEqual([row]);
});

test('an inspection says only what was looked at', () => {
  expect(inspectionOf(NOTHING_COUNTED, {})).toEqual({
    kind: 'inspection',
    smells: [],
    moisturePct: [],
    per100g: [],
    signs: {
      webbing: false,
      droppings: false,
      rodents: false,
      looked: false,
      larvae: 0,
      moths: 0,
      wetSacks: 0,
      tornSacks: 0,
    },
    cut: null,
    note: '',
  });
  const counts = { ...NOTHING_COUNTED, marks: mark('brown').repeat(3) + mark('slaty'), planned: 50 };
  expect(inspectionOf(counts, { signs: { larvae: 2 }, note: 'dusty' })).toMatchObject({
    cut: { planned: 50, beyond: false, tally: { brown: 3, slaty: 1 } },
    signs: { larvae: 2, looked: true },
    note: 'dusty',
  });
});

test('a sign that was seen was looked for; that nothing was seen has to be said', () => {
  const looked = (signs: object): boolean => inspectionOf(NOTHING_COUNTED, { signs }).signs.looked;
  expect(looked({ looked: false })).toBe(false);
  expect(looked({ looked: true })).toBe(true);
  for (const sign of ['webbing', 'droppings', 'rodents']) expect(looked({ looked: false, [sign]: true })).toBe(true);
  for (const sign of ['larvae', 'moths', 'wetSacks', 'tornSacks']) {
    expect(looked({ looked: false, [sign]: 1 })).toBe(true);
    // What cannot be read is as if nothing stood there.
    expect(looked({ looked: false, [sign]: undefined })).toBe(false);
  }
});
