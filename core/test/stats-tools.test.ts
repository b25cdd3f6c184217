import fc from 'fast-check';
import { Heap } from '../src/stats/heap';
import {
  cholesky,
  diagonal,
  drawPosterior,
  invert,
  momentsOf,
  rising,
  times,
  weightedQuantile,
} from '../src/stats/importance';
import { clumping, mean, median, MEDIAN_TO_SD, sum } from '../src/stats/spread';
import { guessUnit, readTableDate, readTableNumber } from '../src/units/table';

/* Tools that verdicts stand on, against what is worked out by hand. */

test('a heap gives out in order whatever order things came in', () => {
  fc.assert(
    fc.property(fc.array(fc.integer({ min: -50, max: 50 })), (values) => {
      const heap = new Heap<number>((a, b) => a < b);
      for (const value of values) heap.push(value);
      expect(heap.size).toBe(values.length);
      expect(heap.peek()).toBe(values.length === 0 ? undefined : Math.min(...values));
      const out = values.map(() => heap.pop());
      expect(out).toEqual([...values].sort((a, b) => a - b));
      expect([heap.pop(), heap.size]).toEqual([undefined, 0]);
    }),
  );
});

test('a heap that is filled and emptied by turns never gives a later one first', () => {
  const heap = new Heap<number>((a, b) => a < b);
  const order: number[] = [];
  for (const [give, take] of [
    [[5, 1, 4], 2],
    [[2, 9], 3],
    [[3], 1],
  ] as const) {
    for (const value of give) heap.push(value);
    for (let n = 0; n < take; n += 1) order.push(heap.pop() ?? NaN);
  }
  expect(order).toEqual([1, 4, 2, 5, 9, 3]);
});

test('the middle, the mean, and the factor between a median deviation and a standard one', () => {
  expect(median([3, 1, 2])).toBe(2);
  expect(median([4, 1, 3, 2])).toBe(2.5);
  expect(median([])).toBeNaN();
  const values = [3, 1, 2];
  median(values);
  expect(values).toEqual([3, 1, 2]);
  expect([sum([]), mean([]), mean([1, 2, 6])]).toEqual([0, 0, 3]);
  // The upper quartile of a standard normal is 0.6745.
  expect(MEDIAN_TO_SD).toBeCloseTo(1 / 0.6745, 3);
});

describe('counts that come together', () => {
  const usual = { effect: 1.5, worth: 4, safe: 0 };
  const binomial = (expected: number, share: number): number => expected * (1 - share);

  test('nothing counted is what is usual', () => {
    expect(clumping([], binomial, usual)).toBeCloseTo(1.5, 10);
  });

  test('by hand: four trays of a hundred with 0, 0, 0 and 20', () => {
    const counts = [0, 0, 0, 20].map((hits) => ({ hits, of: 100 }));
    // Share 0.05: each expected 5, variance 4.75; Pearson (3·25 + 225)/4.75 = 63.158 on three degrees of freedom.
    expect(clumping(counts, binomial, usual)).toBeCloseTo((4 * 1.5 + 63.1579) / 7, 4);
  });

  test('counts as even as chance makes them pull it down, never under one', () => {
    const even = Array.from({ length: 40 }, () => ({ hits: 5, of: 100 }));
    expect(clumping(even, binomial, usual)).toBe(1);
  });

  test('the same on the safe side is more', () => {
    const counts = [2, 8, 5, 9].map((hits) => ({ hits, of: 100 }));
    const plain = clumping(counts, binomial, usual);
    expect(clumping(counts, binomial, { ...usual, safe: 1 })).toBeCloseTo(plain * (1 + Math.sqrt(2 / 7)), 10);
  });
});

/** A matrix that a covariance could be. */
const positive = fc
  .array(fc.array(fc.double({ min: -2, max: 2, noNaN: true }), { minLength: 3, maxLength: 3 }), {
    minLength: 3,
    maxLength: 3,
  })
  .map((a) =>
    a.map((row, i) =>
      a.map((other, j) => row.reduce((total, value, k) => total + value * (other[k] ?? 0), 0) + (i === j ? 0.5 : 0)),
    ),
  );

test('a root times its transpose is the matrix, and the inverse undoes it', () => {
  fc.assert(
    fc.property(positive, (matrix) => {
      const lower = cholesky(matrix);
      lower.forEach((row, i) => row.forEach((value, j) => j > i && expect(value).toBe(0)));
      matrix.forEach((row, i) =>
        row.forEach((value, j) =>
          expect(lower[i]?.reduce((total, x, k) => total + x * (lower[j]?.[k] ?? 0), 0)).toBeCloseTo(value, 8),
        ),
      );
      const inverse = invert(matrix);
      [0, 1, 2].forEach((i) => {
        const unit = times(
          inverse,
          times(
            matrix,
            [0, 1, 2].map((j) => (i === j ? 1 : 0)),
          ),
        );
        unit.forEach((value, j) => expect(value).toBeCloseTo(i === j ? 1 : 0, 4));
      });
    }),
    { numRuns: 60 },
  );
});

test('a share of the weight lies below its quantile', () => {
  const values = [30, 10, 20];
  expect(rising(values)).toEqual([1, 2, 0]);
  expect(weightedQuantile(values, [0.2, 0.5, 0.3], 0.5)).toBe(10);
  expect(weightedQuantile(values, [0.2, 0.5, 0.3], 0.51)).toBe(20);
  expect(weightedQuantile(values, [0.2, 0.5, 0.3], 0.9)).toBe(30);
  expect(weightedQuantile(values, [0.2, 0.5, 0.3], 1)).toBe(30);
});

test('with a normal prior and normal readings the posterior is the one worked out by hand, but for heavier tails', () => {
  const prior = { mean: [10, 0], covariance: diagonal([2, 1]) };
  const readings = [12.5, 13.1, 12.2, 12.9];
  const draws = drawPosterior(
    prior,
    ([level = NaN]) => readings.reduce((log, reading) => log - 0.5 * ((reading - level) / 1) ** 2, 0),
    4000,
    7,
  );
  expect(draws.weights.reduce((a, b) => a + b, 0)).toBeCloseTo(1, 10);
  expect(draws.effective).toBeGreaterThan(400);
  const { mean: found, covariance } = momentsOf(draws);
  // Precision 1/4 + 4, mean (10/4 + 50.7)/4.25 = 12.518, deviation 0.485.
  expect(Math.abs((found[0] ?? NaN) - 12.518)).toBeLessThan(0.12);
  expect(Math.sqrt(covariance[0]?.[0] ?? NaN)).toBeCloseTo(0.485, 1);
  // Of what was not read the prior stays.
  expect(Math.abs(found[1] ?? NaN)).toBeLessThan(0.15);
});

test('the same data and seed give the same draws; readings far off are followed', () => {
  const prior = { mean: [0], covariance: diagonal([1]) };
  const far = ([level = NaN]: readonly number[]): number => -0.5 * ((9 - level) / 0.3) ** 2;
  const [one, two] = [drawPosterior(prior, far, 600, 3), drawPosterior(prior, far, 600, 3)];
  expect(one).toEqual(two);
  const [level = NaN] = momentsOf(one).mean;
  expect(level).toBeGreaterThan(7);
  expect(level).toBeLessThan(9.3);
});

test.each([
  ['1,234.5', 1234.5],
  ['1.234,5', 1234.5],
  ['1 234,5', 1234.5],
  ['62,5', 62.5],
  ['€ 6.40', 6.4],
  ['1,234,567', 1_234_567],
  ['1.234.567', 1_234_567],
  ['-3', -3],
  ['7.5 %', 7.5],
  ['', null],
  ['two', null],
  ['3 kg', null],
  ['.', null],
])('a table’s %p is %p', (text, value) => expect(readTableNumber(text)).toBe(value));

test.each([
  ['net (kg)', 'kg'],
  ['netG', 'g'],
  ['grams', 'g'],
  ['weight lb', 'lb'],
  ['pounds', 'lb'],
  ['tonnes', 't'],
  ['weight', 'kg'],
])('the heading %p is in %p', (heading, unit) => expect(guessUnit(heading)).toBe(unit));

test('days of a table are the workshop’s, at noon; what is no day is none', () => {
  expect(readTableDate('2026-03-14')).toBe('2026-03-14T12:00:00.000Z');
  expect(readTableDate('14.3.2026', 'Europe/Lisbon')).toBe('2026-03-14T12:00:00.000Z');
  expect(readTableDate('14/07/2026', 'Asia/Ho_Chi_Minh')).toBe('2026-07-14T05:00:00.000Z');
  for (const text of ['', 'soon', '14.3.26', '2026']) expect(readTableDate(text)).toBeNull();
});
