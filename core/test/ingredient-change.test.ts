import { ingredientFacts, withFacts } from '../src/composition/ingredient-facts';
import { contents } from '../src/ledger/contents';
import type { Material } from '../src/ledger/types';
import { newMaterial } from '../src/workshop/schemas';

const plain: Material = {
  id: 'm',
  name: 'Coconut milk powder',
  kind: 'ingredient',
  cocoa: 'none',
  sugar: false,
  allergens: ['coconut'],
  pricePerKg: 9,
};
const fat = (fatPct: number) => ({ contents: contents.parse({ fatPct }), source: 'label' });
const on = (material: Material, day: string) => {
  const { allergens, pricePerKg, contents: made, own } = ingredientFacts(material, day, () => undefined);
  return { allergens, pricePerKg, fatPct: own ? made?.fatPct : null };
};

test('what is said from a day on leaves what was before it', () => {
  const changed = withFacts(
    plain,
    { allergens: ['coconut', 'milk'], pricePerKg: 11, ...{ contents: fat(60) } },
    '2027-03-01',
  );
  expect(on(changed, '2027-02-28')).toEqual({ allergens: ['coconut'], pricePerKg: 9, fatPct: null });
  expect(on(changed, '2027-03-01')).toEqual({ allergens: ['coconut', 'milk'], pricePerKg: 11, fatPct: 60 });
});

test('each fact has its own days: what is not said again goes on', () => {
  const first = withFacts(plain, { pricePerKg: 11 }, '2027-03-01');
  const then = withFacts(first, { allergens: [] }, '2027-06-01');
  expect(on(then, '2027-05-31')).toMatchObject({ allergens: ['coconut'], pricePerKg: 11 });
  expect(on(then, '2028-01-01')).toMatchObject({ allergens: [], pricePerKg: 11 });
  const dearer = withFacts(then, { pricePerKg: 12 }, '2027-06-01');
  expect(dearer.contents).toHaveLength(2);
  expect(on(dearer, '2027-06-01')).toMatchObject({ allergens: [], pricePerKg: 12 });
});

test('what was always so takes the place of every earlier word about it, and of no other', () => {
  const dated = withFacts(withFacts(plain, { pricePerKg: 11 }, '2027-03-01'), { allergens: ['milk'] }, '2027-06-01');
  const always = withFacts(dated, { allergens: ['soy'] }, null);
  expect(on(always, '2027-07-01')).toMatchObject({ allergens: ['soy'], pricePerKg: 11 });
  expect(on(always, '2020-01-01')).toMatchObject({ allergens: ['soy'], pricePerKg: 9 });
  expect(always.contents).toHaveLength(1);
});

test('own figures can be given up again, whatever their days', () => {
  const own = withFacts(withFacts(plain, { contents: fat(60) }, null), { contents: fat(64) }, '2027-03-01');
  expect([on(own, '2027-01-01').fatPct, on(own, '2027-04-01').fatPct]).toEqual([60, 64]);
  const none = withFacts(own, { contents: null }, null);
  expect([on(none, '2027-04-01').fatPct, none.contents]).toEqual([null, []]);
});

test('rows from before facts other than contents had days are read as they were', () => {
  const read = newMaterial.parse({
    ...plain,
    contents: [{ from: '2027-03-01', source: 'label', contents: { fatPct: 60 } }],
  });
  expect(on({ ...plain, ...read }, '2027-04-01')).toEqual({
    allergens: ['coconut'],
    pricePerKg: 9,
    fatPct: 60,
  });
  expect(newMaterial.safeParse({ ...plain, contents: [{ from: null, pricePerKg: -1 }] }).success).toBe(false);
});
