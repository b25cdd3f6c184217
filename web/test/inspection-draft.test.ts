import { EMPTY_INSPECTION, inspectionOf, readSack, rowsOf, sackText } from '../src/beans/inspection-draft';
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
  expect(inspectionOf(EMPTY_INSPECTION)).toMatchObject({
    cut: null,
    smells: [],
    moisturePct: [],
    signs: { larvae: 0, webbing: false },
  });
  const draft = {
    ...EMPTY_INSPECTION,
    marks: mark('brown').repeat(3) + mark('slaty'),
    planned: 50,
    signs: { ...EMPTY_INSPECTION.signs, larvae: '2' },
  };
  expect(inspectionOf(draft)).toMatchObject({
    cut: { planned: 50, beyond: false, tally: { brown: 3, slaty: 1 } },
    signs: { larvae: 2 },
  });
});
