import { compositionOf, type Root } from '../src/composition/composition';
import { ingredientFacts } from '../src/composition/ingredient-facts';
import type { Material } from '../src/ledger/types';
import { labelOf, type LabelGoods, type LabelWish } from '../src/pack/label';

const material = (id: string, name: string, rest: Partial<Material> = {}): Material => ({
  id,
  name,
  kind: 'ingredient',
  cocoa: 'none',
  sugar: false,
  allergens: [],
  ...rest,
});
const MATERIALS: Material[] = [
  material('sugar', 'cane sugar', { sugar: true }),
  material('butter', 'cocoa butter', { cocoa: 'butter' }),
  material('milk', 'whole milk powder', { allergens: ['milk'] }),
  material('ghee', 'ghee', { allergens: ['milk'] }),
  material('hazel', 'hazelnuts', { allergens: ['hazelnuts'] }),
  material('lecithin', 'lecithin', { allergens: ['soy'] }),
  material('salt', 'sea salt'),
  material('oat', 'oat flour', { allergens: ['oats'] }),
  material('praline', 'hazelnut paste', {
    allergens: ['hazelnuts'],
    madeOf: [
      { materialId: 'hazel', pct: 60 },
      { materialId: 'sugar', pct: 40 },
    ],
  }),
];
const of = (id: string): Material => MATERIALS.find((row) => row.id === id) ?? material(id, id);

function goods(shares: Record<string, number>, rest: Partial<LabelGoods> = {}): LabelGoods {
  const rootOf = (id: string): Root => {
    if (id.startsWith('lot')) return { kind: 'cacao', lotId: id };
    const own = of(id);
    return { kind: 'ingredient', material: own, facts: ingredientFacts(own, '2026-11-01', (other) => of(other)) };
  };
  return {
    name: 'A bar',
    composition: compositionOf(new Map(Object.entries(shares)), rootOf),
    inside: (id) => ({
      allergens: of(id).allergens,
      within: (of(id).madeOf ?? [])
        .map(({ materialId, pct }) => ({ name: of(materialId).name, allergens: of(materialId).allergens, pct }))
        .sort((a, b) => b.pct - a.pct),
    }),
    carriedOver: [],
    meanG: 70.8,
    origin: 'Fiji, windward bay',
    code: 'B001-1',
    bestBefore: '2028-05-01',
    maker: 'Orrin & Lusk, Saltgarth',
    ...rest,
  };
}
const text = (own: LabelGoods, wish: Partial<LabelWish> = {}): string =>
  labelOf(own, { market: 'en', ...wish })
    .ingredients.map((run) => (run.strong ? run.text.toUpperCase() : run.text))
    .join('');

/** Eight products by hand: percent, order, allergens. */
test.each([
  ['two ingredients', { lot: 0.7, sugar: 0.3 }, 70, 'Ingredients: cocoa beans, cane sugar.'],
  ['with butter', { lot: 0.65, sugar: 0.3, butter: 0.05 }, 70, 'Ingredients: cocoa beans, cane sugar, cocoa butter.'],
  ['two lots are one', { lot1: 0.35, sugar: 0.33, lot2: 0.32 }, 67, 'Ingredients: cocoa beans, cane sugar.'],
  [
    'milk',
    { lot: 0.22, butter: 0.2, milk: 0.24, sugar: 0.337, lecithin: 0.003 },
    42,
    'Ingredients: cane sugar, WHOLE MILK POWDER, cocoa beans, cocoa butter, lecithin (SOY).'.replace(
      'lecithin (SOY)',
      'LECITHIN (SOY)',
    ),
  ],
  ['white', { butter: 0.3, milk: 0.25, sugar: 0.45 }, 30, 'Ingredients: cane sugar, cocoa butter, WHOLE MILK POWDER.'],
  [
    'an allergen that its name hides',
    { lot: 0.6, sugar: 0.3, ghee: 0.1 },
    60,
    'Ingredients: cocoa beans, cane sugar, GHEE (MILK).',
  ],
  [
    'a compound, opened',
    { lot: 0.5, praline: 0.3, sugar: 0.2 },
    50,
    'Ingredients: cocoa beans, hazelnut paste (HAZELNUTS, cane sugar), cane sugar.',
  ],
  [
    'oat and salt',
    { lot: 0.45, oat: 0.25, sugar: 0.29, salt: 0.01 },
    45,
    'Ingredients: cocoa beans, cane sugar, OAT FLOUR, sea salt.',
  ],
])('%s', (_, shares, pct, ingredients) => {
  const own = goods(shares);
  expect(labelOf(own, { market: 'en' }).cocoa).toBe(`Cocoa solids: ${pct} % minimum`);
  expect(text(own)).toBe(ingredients);
});

test('a lower percent may be declared, a higher one is refused with the true one', () => {
  const own = goods({ lot: 0.694, sugar: 0.306 });
  expect(labelOf(own, { market: 'en' }).cocoa).toBe('Cocoa solids: 69 % minimum');
  expect(labelOf(own, { market: 'en', declaredPct: 65 }).cocoa).toBe('Cocoa solids: 65 % minimum');
  expect(() => labelOf(own, { market: 'en', declaredPct: 70 })).toThrow(
    'B001-1 has 69.4 % cocoa: 70 % cannot be declared. A lower number may be.',
  );
});

test('no more weight is declared than pieces weigh; left out it is rounded down to five grams', () => {
  const own = goods({ lot: 0.7, sugar: 0.3 });
  expect(labelOf(own, { market: 'en' }).net).toBe('70 g');
  expect(labelOf(own, { market: 'en', netG: 68 }).net).toBe('68 g');
  expect(() => labelOf(own, { market: 'en', netG: 75 })).toThrow(/weighs 70\.8 g on the mean/);
});

test('what machines carried over is named as possible, and what is not known is said', () => {
  const label = labelOf(
    goods({ lot: 0.7, sugar: 0.3 }, { carriedOver: ['milk', 'hazelnuts'], origin: null, bestBefore: null }),
    { market: 'de' },
  );
  expect(label.mayContain).toEqual(['hazelnuts', 'milk']);
  expect(label.checks.join(' ')).toMatch(/No best-before.*No origin.*Machines saw milk, hazelnuts/);
  expect(label.ingredients[0]?.text).toBe('Zutaten: ');
});

test('energy is the sum of what it comes from: sugar alone has 1,700 kJ, cocoa butter alone 3,700', () => {
  const row = (shares: Record<string, number>): string =>
    labelOf(goods(shares), { market: 'en' }).nutrition[0]?.[1] ?? '';
  expect(row({ sugar: 1 })).toMatch(/^16\d\d kJ \/ 39\d kcal$|^1700 kJ \/ 400 kcal$/);
  expect(row({ butter: 1 })).toBe('3700 kJ / 900 kcal');
  // A dark bar of the books: 2,300 to 2,500 kJ.
  expect(Number(/^\d+/.exec(row({ lot: 0.7, sugar: 0.3 }))?.[0])).toBeGreaterThan(2200);
  expect(Number(/^\d+/.exec(row({ lot: 0.7, sugar: 0.3 }))?.[0])).toBeLessThan(2600);
});
