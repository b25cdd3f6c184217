import { carriedOver } from '../src/composition/carry-over';
import { compositionOf, type Root } from '../src/composition/composition';
import type { Material } from '../src/ledger/types';
import { keepsUntil, usualKeeping } from '../src/pack/best-before';

const material = (name: string, more: Partial<Material> = {}): Material => ({
  id: name,
  name,
  kind: 'ingredient',
  cocoa: 'none',
  sugar: false,
  allergens: [],
  ...more,
});
const ROOTS: Record<string, Root> = {
  lot: { kind: 'cacao', lotId: 'lot' },
  sugar: { kind: 'ingredient', material: material('Sugar', { sugar: true }) },
  silk: { kind: 'ingredient', material: material('Silk', { cocoa: 'butter' }) },
  hazelnut: { kind: 'ingredient', material: material('Hazelnut paste', { allergens: ['hazelnut'] }) },
  milk: { kind: 'ingredient', material: material('Milk powder', { allergens: ['milk'] }) },
  bought: {
    kind: 'ingredient',
    material: material('Couverture 70', { cocoa: 'couverture', cocoaPct: 70, sugarPct: 29, allergens: ['soy'] }),
  },
  old: {
    kind: 'opening',
    id: 'old',
    goods: { name: 'Old dark', cacao: false, cocoaPct: 72, withoutButterPct: null, sugarPct: 28, allergens: ['milk'] },
  },
};
const of = (shares: Record<string, number>) => compositionOf(new Map(Object.entries(shares)), (id) => ROOTS[id]);

test('silk at the tempering bench moves the percentage with added butter, not the one without', () => {
  const bowl = of({ lot: 0.7, sugar: 0.3 });
  const tempered = of({ lot: 0.7 / 1.02, sugar: 0.3 / 1.02, silk: 0.02 / 1.02 });
  expect(bowl).toMatchObject({ cocoaPct: 70, withoutButterPct: 70 });
  expect(tempered.cocoaPct).toBeCloseTo(70.588, 3);
  expect(tempered.withoutButterPct).toBeCloseTo(68.627, 3);
});

test('every allergen says what brought it and how much; parts stand in falling order', () => {
  const bars = of({ lot: 0.55, sugar: 0.25, hazelnut: 0.14, milk: 0.06 });
  expect(bars.allergens).toEqual(['hazelnut', 'milk']);
  expect(bars.allergensFrom).toEqual([
    { allergen: 'hazelnut', from: ['Hazelnut paste'], share: 0.14 },
    { allergen: 'milk', from: ['Milk powder'], share: 0.06 },
  ]);
  expect(bars.parts.map(({ name }) => name)).toEqual(['lot', 'Sugar', 'Hazelnut paste', 'Milk powder']);
});

test('bought couverture counts by its label; how much of its butter was added is not known', () => {
  const bars = of({ bought: 0.9, hazelnut: 0.1 });
  expect(bars.cocoaPct).toBeCloseTo(63, 9);
  expect(bars.sugarPct).toBeCloseTo(26.1, 9);
  expect(bars.butterKnown).toBe(false);
  expect(bars.allergens).toEqual(['hazelnut', 'soy']);
  ROOTS['plain'] = { kind: 'ingredient', material: material('Bag', { cocoa: 'couverture' }) };
  expect(of({ plain: 1 })).toMatchObject({ unknownShare: 1, cocoaPct: 0 });
});

test('goods from before the book bring what is known of them', () => {
  expect(of({ old: 1 })).toMatchObject({ cocoaPct: 72, allergens: ['milk'], butterKnown: false });
  expect(of({ old: 1 }).sugarPct).toBeCloseTo(28, 9);
});

test('a machine carries over what it saw before and since its last cleaning, and not what is in the goods anyhow', () => {
  const uses = [
    { at: 70, code: 'B004', allergens: ['soy'] },
    { at: 50, code: 'B003', allergens: [] },
    { at: 30, code: 'B002', allergens: ['milk', 'hazelnut'] },
    { at: 10, code: 'B001', allergens: ['sesame'] },
  ];
  const names = (cleanings: { at: number; how: string }[], before = 60, own: string[] = []) =>
    carriedOver('Stones', uses, cleanings, before, own).map(({ allergen, code }) => `${allergen} ${code}`);
  expect(names([])).toEqual(['hazelnut B002', 'milk B002', 'sesame B001']);
  expect(names([{ at: 20, how: 'washed' }])).toEqual(['hazelnut B002', 'milk B002']);
  expect(names([{ at: 40, how: 'washed' }])).toEqual([]);
  // A cleaning after the goods went through helps the next ones only.
  expect(names([{ at: 65, how: 'washed' }])).toEqual(['hazelnut B002', 'milk B002', 'sesame B001']);
  expect(names([], 60, ['milk'])).toEqual(['hazelnut B002', 'sesame B001']);
});

test('how long goods usually keep is what their shortest-lived part allows; the maker’s own figure replaces it', () => {
  const none = new Map<string, number>();
  expect(usualKeeping(of({ lot: 0.7, sugar: 0.3 }), none).months).toBe(24);
  expect(usualKeeping(of({ lot: 0.6, milk: 0.4 }), none).months).toBe(12);
  expect(usualKeeping(of({ lot: 0.6, milk: 0.2, hazelnut: 0.2 }), none).months).toBe(9);
  expect(usualKeeping(of({ lot: 0.6, hazelnut: 0.4 }), new Map([['Hazelnut paste', 5]])).months).toBe(5);
  const made = Date.UTC(2026, 7, 31);
  expect(keepsUntil(made, { months: 18, because: '' }).toISOString().slice(0, 10)).toBe('2028-02-29');
});
