import fc from 'fast-check';
import { doubt, doubts, usual } from '../src/entry/doubt';

test.each([
  ['grams typed as kilograms', 9.3, 10_000, 9300],
  ['a mark too many', 1.149, 1_200, 1149],
  ['kilograms typed as grams', 9300, 9, 9.3],
  ['a digit too many', 47_000, 5_000, 4700],
])('%s: what was meant is named', (_, typed, near, meant) => {
  expect(doubt('goodG', typed, near, 'what went in')?.meant).toBe(meant);
});

test('nothing is asked about what is less than ten times away, or cannot be held against anything', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 1, max: 1e6, noNaN: true }),
      fc.double({ min: 0.13, max: 7.9, noNaN: true }),
      (near, ratio) => {
        expect(doubt('x', near * ratio, near, '')).toBeNull();
      },
    ),
  );
  for (const [typed, near] of [
    [0, 5],
    [5, 0],
    [NaN, 5],
  ])
    expect(doubt('x', typed as number, near as number, '')).toBeNull();
});

test('a slip by any factor of ten is always found back', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 100, max: 99_999 }),
      fc.constantFrom(10, 100, 1000, 0.1, 0.01, 0.001),
      fc.double({ min: 0.55, max: 1.8, noNaN: true }),
      (meant, slip, off) => {
        const near = meant * off;
        const typed = meant * slip;
        fc.pre(typed / near >= 8 || typed / near <= 1 / 8);
        expect(doubt('x', typed, near, '')?.meant).toBeCloseTo(meant, 6);
      },
    ),
  );
});

test('what was said to be meant is not asked again, until it is typed otherwise', () => {
  const near = { goodG: { value: 10_000, of: 'what went in' } };
  expect(doubts({ goodG: 9.3 }, near, new Set())).toHaveLength(1);
  expect(doubts({ goodG: 9.3 }, near, new Set(['goodG 9.3']))).toEqual([]);
  expect(doubts({ goodG: 9.4 }, near, new Set(['goodG 9.3']))).toHaveLength(1);
});

test('usual is the middle of at least three', () => {
  expect(usual([5, 6])).toBeNull();
  expect(usual([5000, 6, 5200, 0, 5100])).toBe(5050);
});
