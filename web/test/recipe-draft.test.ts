import type { PantryRow, PantryView } from '@wunsch/core/api/recipe';
import { READY_MADE_RECIPES } from '@wunsch/core/recipe/ready-made';
import { recipe } from '@wunsch/core/recipe/records';
import { ROUTE_TEMPLATES } from '@wunsch/core/workshop/routes';
import { rowsOf } from '../src/recipe/compute';
import { blankLimit, draftFrom, draftOfReadyMade, recipeOf, routeFor } from '../src/recipe/draft';
import { limitProblems } from '../src/recipe/weighed';

const row = (id: string, role: PantryRow['role'], stockG: number, name = id): PantryRow => ({
  id,
  name,
  role,
  contents: null,
  source: '',
  assumed: true,
  cocoaPct: 0,
  withoutButterPct: 0,
  allergens: [],
  perKgMilli: null,
  lots: [],
  stock: [],
  stockG,
  lot: null,
});
const PANTRY: PantryView = {
  rows: [row('lot:a', 'nibs', 500), row('nibs', 'nibs', 500), row('white', 'sugar', 10), row('cane', 'sugar', 900)],
  barG: 70,
  pastFlow: [],
};

test('a ready-made recipe takes what is here, most first, and names what is not', () => {
  const { draft, missing } = draftOfReadyMade(READY_MADE_RECIPES[1], PANTRY);
  expect(draft.lines.map(({ ingredient }) => ingredient)).toEqual(['nibs', 'cane']);
  expect(missing).toEqual(['Cocoa butter']);
  expect(draft.by).toBe('targets');
  expect(draftOfReadyMade(undefined, PANTRY).draft.by).toBe('grams');
});

test('what is kept of a draft is the recipe, and a draft of it weighs the same', () => {
  const kept = recipe.parse({
    name: 'Seventy',
    kind: 'dark',
    lines: [
      { ingredient: 'nibs', grams: 700 },
      { ingredient: 'cane', grams: 300 },
    ],
    limits: [{ of: 'cocoa', aim: 70 }],
  });
  const draft = draftFrom(kept, 3);
  expect(draft.sizeG).toBe(1000);
  expect(draft.base).toBe(3);
  expect(recipeOf(draft)).toEqual(kept);
});

test('a limit that cannot be is named by its place; one that can is not', () => {
  const cocoa = { ...blankLimit('cocoa'), least: 80, most: 70 };
  expect(limitProblems([{ ...blankLimit('fat'), least: 38 }, cocoa])).toEqual({ 'limits.1': 'is more than the most' });
  expect(limitProblems([{ ...blankLimit('sugar'), most: 180 }])).toEqual({ 'limits.0': 'is more than 100' });
});

test('rows of the pantry come in the order asked for, without those that are gone', () => {
  expect(rowsOf(PANTRY, ['cane', 'gone', 'nibs']).map(({ id }) => id)).toEqual(['cane', 'nibs']);
});

test('an unroasted recipe goes by a route without a roast, unless it names another', () => {
  expect(routeFor({ routeId: null, kind: 'unroasted' }, ROUTE_TEMPLATES)).toBe('unroasted');
  expect(routeFor({ routeId: null, kind: 'dark' }, ROUTE_TEMPLATES)).toBe('whole-bean');
  expect(routeFor({ routeId: 'tablet', kind: 'unroasted' }, ROUTE_TEMPLATES)).toBe('tablet');
});
