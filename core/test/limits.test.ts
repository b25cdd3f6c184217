import fc from 'fast-check';
import { figuresOfLines } from '../src/recipe/ingredient';
import {
  aimTolerance,
  deviationFrom,
  nameOfLimit,
  planeOf,
  sideWords,
  toleranceOf,
  valueOf,
  valueText,
} from '../src/recipe/limits';
import { BUTTER, EUR, ERYTHRITOL, LECITHIN, MILK, NIBS, OAT, SUGAR, want } from './recipe-fixtures';

/* A limit as a plane over shares: what the solver sees has to be what a maker reads. */

const PANTRY = [NIBS, BUTTER, SUGAR, MILK, LECITHIN, ERYTHRITOL, OAT];
const linesOf = (grams: readonly number[]) => PANTRY.map((ingredient, i) => ({ ingredient, grams: grams[i] ?? 0 }));
const gramsIn =
  (grams: readonly number[]) =>
  (id: string): number =>
    grams[PANTRY.findIndex((row) => row.id === id)] ?? 0;
const weighed = fc
  .array(fc.integer({ min: 0, max: 3000 }), { minLength: PANTRY.length, maxLength: PANTRY.length })
  .filter(([nibs = 0]) => nibs > 200);

const LINEAR = [
  'cocoa',
  'withoutButter',
  'fat',
  'cocoaButter',
  'dryCocoa',
  'sugar',
  'sweet',
  'milk',
  'milkFat',
  'lecithin',
  'water',
  'share:sugar',
];

test.each(LINEAR)('the plane of %s goes through what the goods really are', (of) => {
  fc.assert(
    fc.property(weighed, (grams) => {
      const value = valueOf(of, figuresOfLines(linesOf(grams)), gramsIn(grams));
      const { factors, right, perInverse } = planeOf(of, value, PANTRY);
      const total = grams.reduce((a, b) => a + b, 0);
      const reached = factors.reduce((sum, factor, i) => sum + (factor * (grams[i] ?? 0)) / total, 0);
      expect(perInverse).toBe(false);
      expect(reached).toBeCloseTo(right, 6);
      expect(deviationFrom(of, value, PANTRY)(grams)).toBeCloseTo(0, 6);
      // A point less is a point off.
      expect(deviationFrom(of, value - 1, PANTRY)(grams)).toBeCloseTo(1, 6);
    }),
    { numRuns: 40 },
  );
});

test('grams of an ingredient count against the batch, however large it is', () => {
  fc.assert(
    fc.property(weighed, (grams) => {
      const sugar = gramsIn(grams)('sugar');
      expect(valueOf('grams:sugar', figuresOfLines(linesOf(grams)), gramsIn(grams))).toBe(sugar);
      expect(planeOf('grams:sugar', 500, PANTRY)).toMatchObject({ right: 50, perInverse: true });
      expect(deviationFrom('grams:sugar', sugar, PANTRY)(grams)).toBeCloseTo(0, 6);
    }),
    { numRuns: 40 },
  );
});

test('flow: at its value the plane is met, and thicker goods are above it', () => {
  fc.assert(
    fc.property(weighed, (grams) => {
      const figures = figuresOfLines(linesOf(grams));
      const flow = valueOf('flow', figures, gramsIn(grams));
      fc.pre(Number.isFinite(flow) && flow > 1.5 && flow < 60);
      expect(deviationFrom('flow', flow, PANTRY)(grams)).toBeLessThan(0.02);
      const { factors } = planeOf('flow', flow / 2, PANTRY);
      const total = grams.reduce((a, b) => a + b, 0);
      expect(factors.reduce((sum, factor, i) => sum + (factor * (grams[i] ?? 0)) / total, 0)).toBeGreaterThan(0);
    }),
    { numRuns: 60 },
  );
});

test('cost is a price of the kilogram, and misses are in hundredths of what is wanted', () => {
  const grams = [700, 0, 300];
  const cost = valueOf('cost', figuresOfLines(linesOf(grams)), gramsIn(grams));
  // 70 % at 12 and 30 % at 2.
  expect(cost).toBeCloseTo(9, 6);
  expect(deviationFrom('cost', 10, PANTRY)(grams)).toBeCloseTo(10, 4);
});

test('of nothing every aim is missed', () => {
  for (const of of [...LINEAR, 'cost', 'flow', 'grams:sugar'])
    expect(deviationFrom(of, 10, PANTRY)([0, 0])).toBe(Infinity);
  expect(valueOf('nothing-known', figuresOfLines(linesOf([1000])), () => 0)).toBeNaN();
});

test('how far off still counts as kept: less than what is shown', () => {
  expect(toleranceOf('cocoa', 70)).toBe(0.005);
  expect(toleranceOf('flow', 8)).toBeCloseTo(0.08, 10);
  expect(toleranceOf('grams:sugar', 500)).toBeCloseTo(0.5, 10);
  expect(aimTolerance('cocoa', 70)).toBe(0.05);
  expect(aimTolerance('lecithin', 0.4)).toBe(0.01);
  expect(aimTolerance('cost', 9)).toBeCloseTo(0.018, 10);
});

test('limits in words', () => {
  const nameOf = (id: string): string => id.toUpperCase();
  expect(nameOfLimit('share:sugar', nameOf)).toBe('SUGAR');
  expect(nameOfLimit('grams:oat', nameOf)).toBe('OAT');
  expect(sideWords(want('share:sugar', { most: 30 }), 'most', nameOf)).toBe('SUGAR at most 30 %');
  expect(sideWords(want('grams:oat', { least: 250 }), 'least', nameOf)).toBe('OAT at least 250 g');
  expect(sideWords(want('cost', { most: 9.5 }), 'most', nameOf, EUR)).toBe('Cost at most 9.50 EUR a kg');
  // A pound is 0.45359237 kg.
  expect(valueText('cost', 10, { currency: 'USD', massSystem: 'imperial' })).toBe('4.54 USD a lb');
  expect(sideWords(want('cocoa', { aim: 72 }), 'aim', nameOf)).toMatch(/ 72 %$/);
  expect([
    valueText('cocoa', 70.25),
    valueText('lecithin', 0.35),
    valueText('lecithin', 1),
    valueText('flow', 8.44),
    valueText('flow', Infinity),
    valueText('grams:salt', 2.5),
  ]).toEqual(['70.3 %', '0.35 %', '1 %', '8.4×', 'too thick to flow', '2.5 g']);
  expect(valueText('grams:sugar', 2500)).toMatch(/^2.?500 g$/);
});
