import fc from 'fast-check';
import { meanInterval, projectMean, wilson } from '../../src/stats/intervals';
import { seededNormal } from '../seeded';

describe('Wilson interval of a share', () => {
  // Newcombe (1998), Stat. Med. 17, 857–872, table I, method 3 (score).
  it.each([
    [81, 263, 0.2553, 0.3662],
    [15, 148, 0.0624, 0.1605],
    [0, 20, 0, 0.1611],
    [1, 29, 0.0061, 0.1718],
  ])('%i of %i is %f to %f', (hits, n, low, high) => {
    const found = wilson(hits, n);
    expect(found.low).toBeCloseTo(low, 4);
    expect(found.high).toBeCloseTo(high, 4);
  });

  it('holds the share, stays within 0 and 1, and narrows with more beans', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 2000 }), fc.double({ min: 0, max: 1, noNaN: true }), (n, part) => {
        const hits = Math.round(part * n);
        const { low, high } = wilson(hits, n);
        expect(low).toBeGreaterThanOrEqual(0);
        expect(high).toBeLessThanOrEqual(1);
        expect(low).toBeLessThanOrEqual(hits / n);
        expect(high).toBeGreaterThanOrEqual(hits / n);
        const more = wilson(4 * hits, 4 * n);
        expect(more.high - more.low).toBeLessThan(high - low);
      }),
    );
  });

  it('says nothing about nothing and refuses the impossible', () => {
    expect(wilson(0, 0)).toEqual({ low: 0, high: 1 });
    expect(() => wilson(5, 4)).toThrow(RangeError);
  });
});

describe('mean of a few readings', () => {
  it('is Student’s interval: 6.8, 7.0, 7.2 with t(0.975, 2) = 4.3027', () => {
    const found = meanInterval([6.8, 7, 7.2]);
    expect(found?.mean).toBeCloseTo(7, 9);
    expect(found?.sd).toBeCloseTo(0.2, 9);
    expect(found?.high).toBeCloseTo(7 + (4.3027 * 0.2) / Math.sqrt(3), 3);
  });

  it('with one reading is unbounded, with none is nothing', () => {
    expect(meanInterval([7])).toMatchObject({ low: -Infinity, high: Infinity, sd: null });
    expect(meanInterval([])).toBeNull();
  });
});

describe('projection of what is to come', () => {
  it('covers the mean of the next sessions at its stated rate', () => {
    const normal = seededNormal(11);
    const trials = 4000;
    for (const [seen, next, level] of [
      [3, 1, 0.8],
      [6, 4, 0.8],
      [12, 3, 0.95],
    ] as const) {
      let covered = 0;
      for (let i = 0; i < trials; i += 1) {
        const draw = (count: number): number[] => Array.from({ length: count }, () => 0.05 + 0.02 * normal());
        const found = projectMean(draw(seen), next, level);
        const truth = draw(next).reduce((a, b) => a + b, 0) / next;
        if (found && truth >= found.low && truth <= found.high) covered += 1;
      }
      // Four standard errors of a share of 4,000.
      const error = 4 * Math.sqrt((level * (1 - level)) / trials);
      expect(Math.abs(covered / trials - level)).toBeLessThan(error);
    }
  });
});
