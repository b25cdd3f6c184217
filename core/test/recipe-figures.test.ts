import fc from 'fast-check';
import { compositionOf, type Root } from '../src/composition/composition';
import { figuresOf, flowOf, solidsAt, volumes } from '../src/composition/figures';
import { ingredientFacts } from '../src/composition/ingredient-facts';
import { nibContents, USUAL_CONTENTS } from '../src/composition/usual-contents';
import { contents, otherDryPct } from '../src/ledger/contents';
import type { Material } from '../src/ledger/types';
import { figuresOfLines, type Ingredient } from '../src/recipe/ingredient';
import { USUAL_MATERIALS } from '../src/workshop/usual-materials';
import { refusal } from './fixtures';
import {
  BUTTER,
  ERYTHRITOL,
  HAZELNUT,
  LEAN,
  LECITHIN,
  LIQUOR,
  MILK,
  NIBS,
  OAT,
  POWDER,
  SALT,
  SUGAR,
} from './recipe-fixtures';

const mixed = (...rows: [Ingredient, number][]) =>
  figuresOfLines(rows.map(([ingredient, grams]) => ({ ingredient, grams })));

/** Worked by hand: grams of each figure over the grams of the whole. */
test.each([
  [
    'two ingredients, said to be 70 %',
    [
      [NIBS, 200],
      [SUGAR, 60],
    ],
    { cocoaPct: 76.92, withoutButterPct: 76.92, fatPct: 40.77, sugarPct: 23.08 },
  ],
  [
    'dark with butter',
    [
      [NIBS, 638],
      [BUTTER, 62],
      [SUGAR, 300],
    ],
    { cocoaPct: 70, withoutButterPct: 63.8, fatPct: 40.01, dryCocoaPct: 28.39 },
  ],
  [
    'butter added late moves it',
    [
      [NIBS, 720],
      [SUGAR, 280],
      [BUTTER, 50],
    ],
    { cocoaPct: 73.33, withoutButterPct: 68.57, sugarPct: 26.67 },
  ],
  [
    'milk',
    [
      [NIBS, 305],
      [BUTTER, 175],
      [SUGAR, 293],
      [MILK, 227],
    ],
    { cocoaPct: 48, milkPct: 22.02, milkFatPct: 5.9, fatPct: 39.57 },
  ],
  [
    'white',
    [
      [BUTTER, 340],
      [SUGAR, 400],
      [MILK, 260],
    ],
    { cocoaPct: 34, withoutButterPct: 0, dryCocoaPct: 0, milkPct: 25.22, cocoaButterPct: 34 },
  ],
  [
    'oat',
    [
      [NIBS, 500],
      [BUTTER, 100],
      [SUGAR, 250],
      [OAT, 150],
    ],
    { cocoaPct: 60, fatPct: 37.55, waterPct: 2.6 },
  ],
  [
    'hazelnut',
    [
      [NIBS, 400],
      [SUGAR, 300],
      [HAZELNUT, 300],
    ],
    { cocoaPct: 40, otherFatPct: 18.3, fatPct: 39.5 },
  ],
  [
    'sugar-free',
    [
      [NIBS, 700],
      [ERYTHRITOL, 300],
    ],
    { cocoaPct: 70, sugarPct: 0, polyolsPct: 30 },
  ],
  [
    'liquor and powder',
    [
      [LIQUOR, 300],
      [POWDER, 100],
      [BUTTER, 200],
      [SUGAR, 400],
    ],
    { cocoaPct: 60, withoutButterPct: 40, fatPct: 37.3 },
  ],
  [
    'lecithin and salt',
    [
      [NIBS, 700],
      [SUGAR, 294],
      [LECITHIN, 4],
      [SALT, 2],
    ],
    { lecithinPct: 0.388, saltPct: 0.1996, cocoaPct: 70 },
  ],
  [
    'lean beans',
    [
      [LEAN, 720],
      [SUGAR, 280],
    ],
    { cocoaPct: 72, fatPct: 34.56 },
  ],
  ['nothing but nibs', [[NIBS, 100]], { cocoaPct: 100, withoutButterPct: 100, fatPct: 53, waterPct: 2.5 }],
] as const)('%s', (_, lines, expected) => {
  const figures = mixed(...(lines as unknown as [Ingredient, number][]));
  for (const [key, value] of Object.entries(expected)) expect(figures[key as 'cocoaPct']).toBeCloseTo(value, 1);
});

const anyLines = fc.array(
  fc.tuple(
    fc.constantFrom(NIBS, LEAN, BUTTER, LIQUOR, POWDER, SUGAR, MILK, OAT, HAZELNUT, LECITHIN, SALT, ERYTHRITOL),
    fc.integer({ min: 1, max: 20_000 }),
  ),
  { minLength: 1, maxLength: 8 },
);

test('whatever is weighed, its parts add up to a hundred', () => {
  fc.assert(
    fc.property(anyLines, (rows) => {
      const f = mixed(...rows);
      const sum =
        f.cocoaButterPct +
        f.milkFatPct +
        f.otherFatPct +
        f.dryCocoaPct +
        f.sugarPct +
        f.polyolsPct +
        f.dryMilkPct +
        f.saltPct +
        f.waterPct +
        f.otherDryPct +
        f.unknownPct;
      expect(sum).toBeCloseTo(100, 6);
      expect(f.withoutButterPct).toBeLessThanOrEqual(f.cocoaPct + 1e-9);
      expect(f.fatPct).toBeCloseTo(f.cocoaButterPct + f.milkFatPct + f.otherFatPct, 9);
    }),
  );
});

test('more fat is thinner, more sugar thicker; the inverse of the flow finds its solids', () => {
  const flow = (butter: number, sugar: number): number =>
    mixed([NIBS, 600], [BUTTER, butter], [SUGAR, sugar]).flow ?? Infinity;
  expect(flow(50, 300)).toBeLessThan(flow(0, 300));
  expect(flow(0, 350)).toBeGreaterThan(flow(0, 300));
  // (1 − 0.5/0.68)^(−1.7), by hand.
  expect(flowOf(0.5)).toBeCloseTo(9.58, 2);
  expect(flowOf(0.7)).toBeNull();
  for (const solids of [0.1, 0.3, 0.5, 0.6]) expect(solidsAt(flowOf(solids) ?? 0)).toBeCloseTo(solids, 9);
});

test('volumes by hand: 100 g of sugar are 62.9 ml, a measured density stands in its place', () => {
  expect(volumes(USUAL_CONTENTS.sugar.contents)).toEqual({ fatMl: 0, solidMl: expect.closeTo(62.89, 2) as number });
  expect(volumes({ ...USUAL_CONTENTS.sugar.contents, densityGPerMl: 1.6 }).solidMl).toBeCloseTo(62.5, 6);
});

test('every usual ingredient adds up and knows what it is made of', () => {
  for (const { contents: c } of Object.values(USUAL_CONTENTS)) expect(otherDryPct(c)).toBeGreaterThanOrEqual(0);
  for (const [index, usual] of USUAL_MATERIALS.entries()) {
    if (usual.kind !== 'ingredient' || usual.cocoa === 'couverture') continue;
    const facts = ingredientFacts({ id: String(index), ...usual }, '2027-01-01', () => undefined);
    expect([usual.name, facts.contents !== null]).toEqual([usual.name, true]);
  }
});

const material = (id: string, more: Partial<Material> = {}): Material => ({
  id,
  name: id,
  kind: 'ingredient',
  cocoa: 'none',
  sugar: false,
  allergens: [],
  ...more,
});

test('own contents hold from their day, and what was bought before stays what it was', () => {
  const fat = (fatPct: number, from: string | null) => ({
    from,
    source: 'label',
    contents: contents.parse({ fatPct }),
    allergens: null,
    pricePerKg: null,
  });
  const nut = material('hazelnut', { contents: [fat(60, null), fat(64, '2027-03-01')] });
  const on = (day: string) => ingredientFacts(nut, day, () => undefined).contents?.fatPct;
  expect([on('2027-02-28'), on('2027-03-01'), on('2030-01-01')]).toEqual([60, 64, 64]);
});

test('one that is made of others is what they are, with their allergens; never of itself', () => {
  const all = new Map<string, Material>([
    ['sugar', material('sugar', { sugar: true })],
    ['hazelnut', material('hazelnut', { allergens: ['hazelnut'] })],
    ['butter', material('butter', { cocoa: 'butter' })],
  ]);
  const praline = material('praline', {
    madeOf: [
      { materialId: 'hazelnut', pct: 50 },
      { materialId: 'sugar', pct: 40 },
      { materialId: 'butter', pct: 10 },
    ],
  });
  all.set('praline', praline);
  const facts = ingredientFacts(praline, '2027-01-01', (id) => all.get(id));
  expect(facts.allergens).toEqual(['hazelnut']);
  expect(facts.contents?.fatPct).toBeCloseTo(40.5, 6);
  expect(facts.contents?.sugarPct).toBeCloseTo(40, 6);
  expect(facts.cocoaPct).toBe(10);
  all.set('sugar', material('sugar', { madeOf: [{ materialId: 'praline', pct: 100 }] }));
  expect(refusal(() => ingredientFacts(praline, '2027-01-01', (id) => all.get(id)))).toBe('recipe/contains-itself');
});

test('bought chocolate is reckoned from its label; one that says nothing is said to be unknown', () => {
  const label = ingredientFacts(
    material('couverture', { cocoa: 'couverture', cocoaPct: 70, addedButterPct: 10, sugarPct: 30 }),
    '2027-01-01',
    () => undefined,
  );
  expect(label.cocoaPct).toBe(70);
  expect(label.withoutButterPct).toBe(60);
  expect(label.contents?.fatPct).toBeCloseTo(10 + 0.6 * 53, 6);
  const mute = ingredientFacts(material('couverture', { cocoa: 'couverture' }), '2027-01-01', () => undefined);
  expect(mute.contents).toBeNull();
  expect(figuresOf([{ share: 1, contents: null, cocoaPct: 0, withoutButterPct: 0 }]).unknownPct).toBe(100);
});

test('contents that cannot be are refused with the field', () => {
  const wrong = (given: object) => contents.safeParse(given).error?.issues[0]?.path.join('.');
  expect(wrong({ fatPct: 101 })).toBe('fatPct');
  expect(wrong({ fatPct: 10, cocoaButterPct: 20 })).toBe('fatPct');
  expect(wrong({ fatPct: 60, sugarPct: 50 })).toBe('fatPct');
  expect(wrong({ lecithinPct: 5 })).toBe('lecithinPct');
  expect(wrong({ waterPct: -1 })).toBe('waterPct');
});

test('the ledger’s composition says the same as the recipe’s arithmetic', () => {
  const roots = new Map<string, Root>([
    ['lot', { kind: 'cacao', lotId: 'lot', contents: nibContents(50) }],
    [
      'milk',
      {
        kind: 'ingredient',
        material: material('Whole milk powder', { allergens: ['milk'] }),
        facts: ingredientFacts(material('Whole milk powder', { allergens: ['milk'] }), '2027-01-01', () => undefined),
      },
    ],
    [
      'sugar',
      {
        kind: 'ingredient',
        material: material('Sugar', { sugar: true }),
        facts: ingredientFacts(material('Sugar', { sugar: true }), '2027-01-01', () => undefined),
      },
    ],
  ]);
  const { figures, cocoaPct, allergens } = compositionOf(
    new Map([
      ['lot', 0.4],
      ['milk', 0.25],
      ['sugar', 0.35],
    ]),
    (id) => roots.get(id),
  );
  const own = mixed([{ ...NIBS, contents: nibContents(50) }, 400], [MILK, 250], [SUGAR, 350]);
  expect(cocoaPct).toBeCloseTo(own.cocoaPct, 9);
  for (const key of ['fatPct', 'sugarPct', 'milkPct', 'waterPct', 'dryCocoaPct', 'flow'] as const)
    expect(figures[key]).toBeCloseTo(own[key] ?? NaN, 9);
  expect(allergens).toEqual(['milk']);
});
