import { askedAt } from '../src/fields/asked';
import type { Material } from '../src/ledger/types';
import { entryBeside, entryOf, ingredientEntry, materialFrom } from '../src/recipe/ingredient-entry';

const TODAY = '2026-11-20';
const milk: Material = {
  id: 'milk',
  name: 'Whole milk powder',
  kind: 'ingredient',
  cocoa: 'none',
  sugar: false,
  allergens: ['milk'],
  cocoaPct: null,
  sugarPct: null,
  pricePerKg: 6.2,
};
const typed = (more: object, material = milk) =>
  entryBeside(material, TODAY).safeParse({ ...entryOf(material, TODAY, null), ...more });
const saved = (more: object, material = milk) => {
  const read = typed(more, material);
  if (!read.success) throw new Error(read.error.message);
  return materialFrom(read.data, material, TODAY);
};
const problems = (more: object) =>
  Object.fromEntries((typed(more).error?.issues ?? []).map(({ path, message }) => [path.join('.'), message]));

describe('an ingredient from its form', () => {
  test('left as it stands it says nothing anew', () => {
    expect(saved({})).toMatchObject({ name: 'Whole milk powder', allergens: ['milk'], pricePerKg: 6.2, contents: [] });
    const own = saved({ own: true, source: 'label', made: { ...entryOf(milk, TODAY, null).made, fatPct: 26 } });
    expect(own.contents).toMatchObject([{ from: null, source: 'label', contents: { fatPct: 26 } }]);
    const again = { ...milk, contents: own.contents } as Material;
    expect(saved({}, again).contents).toEqual(own.contents);
    // Its own figures taken away again: then it is as usual.
    expect(saved({ own: false }, again).contents).toEqual([]);
  });

  test('from a day on only what changed is said, and what was before stays', () => {
    const changed = saved({ from: '2027-01-01', pricePerKg: 7, allergens: ['milk'] });
    expect(changed).toMatchObject({
      pricePerKg: 6.2,
      allergens: ['milk'],
      contents: [{ from: '2027-01-01', pricePerKg: 7, allergens: null, contents: null }],
    });
  });

  test('what cannot be is told at its field', () => {
    expect(problems({ from: '2027-01-01', pricePerKg: null })).toEqual({
      pricePerKg: expect.stringContaining('leave the day empty'),
    });
    expect(problems({ pricePerKg: null })).toEqual({});
    expect(problems({ madeOf: [{ materialId: 'a', pct: 60 }] })).toEqual({ madeOf: 'does not add up to 100 %' });
    const { made } = entryOf(milk, TODAY, null);
    expect(problems({ own: true, made: { ...made, fatPct: 80, sugarPct: 60 } })).toEqual({
      'made.fatPct': 'and the rest add up to 140.0 %, more than all of it',
    });
  });

  test('a sugar that turns into cocoa is no sugar, and every field has a name', () => {
    expect(saved({ sugar: true, cocoa: 'butter' })).toMatchObject({ sugar: false, cocoa: 'butter' });
    for (const name of Object.keys(ingredientEntry.shape).filter((at) => !['made', 'madeOf'].includes(at)))
      expect(askedAt(ingredientEntry, [name])?.label).toBeTruthy();
    for (const name of Object.keys(ingredientEntry.shape.made.shape))
      expect(askedAt(ingredientEntry, ['made', name])?.label).toBeTruthy();
  });
});
