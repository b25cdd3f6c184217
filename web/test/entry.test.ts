import { gramsFrom } from '@wunsch/core/units/mass';
import '../src/kinds';
import { fieldG, fieldsOf, readFields, readNumber } from '../src/entry/entry';

const METRIC = { temperature: 'C', heavy: 'kg' } as const;
const IN_F = { temperature: 'F', heavy: 'lb' } as const;

test('numbers as people type them', () => {
  expect(readNumber('4,25')).toBe(4.25);
  expect(readNumber(' 1 200 ')).toBe(1200);
  for (const bad of ['', 'abc', '1.2.3', 'NaN', '1e5', '--1']) expect(readNumber(bad)).toBeNull();
});

test('several weighings, a tare and a unit make one mass', () => {
  expect(fieldG({ text: '2.5', unit: 'kg', parts: [1000, 500], tareG: 300 })).toBe(3700);
  expect(fieldG({ text: '', unit: 'g' })).toBeNull();
  expect(fieldG({ text: '', unit: 'g', parts: [20] })).toBe(20);
});

test('fields that cannot be read are named; the rest is kept', () => {
  const { values, problems } = readFields(
    'winnow',
    { nibsG: { text: 'x', unit: 'g' }, huskG: { text: '700', unit: 'g' } },
    METRIC,
  );
  expect(problems).toEqual({ nibsG: 'is not a weight' });
  expect(values['huskG']).toBe(700);
  expect(readFields('winnow', { nibsG: { text: '100', unit: 'g', tareG: 200 } }, METRIC).problems).toMatchObject({
    nibsG: 'is below 0 after the tare',
    huskG: 'is missing',
  });
});

test('rejects become a list by reason; temperatures become °C', () => {
  const sort = readFields(
    'sort',
    { goodG: { text: '950', unit: 'g' }, 'reject.flat': { text: '30', unit: 'g' } },
    METRIC,
  );
  expect(sort.values).toMatchObject({ goodG: 950, rejects: [{ reason: 'flat', massG: 30 }] });
  expect(
    readFields(
      'temper',
      {
        method: { text: 'slab' },
        test: { text: 'set' },
        meltC: { text: '113' },
        coolC: { text: '81.5' },
        workC: { text: '88.7' },
      },
      IN_F,
    ).values,
  ).toMatchObject({ meltC: 45, coolC: 27.5, workC: 31.5 });
});

test('a command goes into fields and comes back the same', () => {
  const command = { goodG: 950, rejects: [{ reason: 'flat', massG: 30 }], note: 'n' };
  const { values, problems } = readFields('sort', fieldsOf(command, 'sort', 'g', METRIC), METRIC);
  expect(problems).toEqual({});
  expect(values).toEqual(command);
});

test('what was not changed in a correction is sent back exactly as it was, in every unit', () => {
  for (const unit of ['g', 'kg', 'oz', 'lb'] as const)
    for (const grams of [4512.345, 9071.8474, 0.3, 12_345.678]) {
      const fields = fieldsOf({ outG: grams, endBeanC: 117.46, note: 'x' }, 'roast', unit, IN_F);
      const { values } = readFields('roast', { ...fields, note: { text: 'another word' } }, IN_F);
      expect(values['outG']).toBe(grams);
      expect(values['endBeanC']).toBe(117.46);
      const typed = { ...fields, outG: { ...fields['outG'], text: '5' } };
      expect(readFields('roast', typed, IN_F).values['outG']).toBeCloseTo(gramsFrom(5, unit), 2);
    }
});

test('a price is typed of a kilogram or a pound, and sent as that of a kilogram', () => {
  const of = (text: string, units: typeof METRIC | typeof IN_F) =>
    readFields('receive', { pricePerKg: { text } }, units).values['pricePerKg'];
  expect(of('5.10', METRIC)).toBe(5.1);
  // 2.50 a pound of 0.45359237 kg.
  expect(of('2.50', IN_F)).toBeCloseTo(5.5116, 4);
  const shown = fieldsOf({ pricePerKg: 5.1 }, 'receive', 'lb', IN_F);
  expect(shown['pricePerKg']?.text).toBe('2.3133');
  expect(readFields('receive', shown, IN_F).values['pricePerKg']).toBe(5.1);
});
