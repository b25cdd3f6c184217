import fc from 'fast-check';
import { seeded } from '../src/stats/chance';
import { atLeast, fewestRight, isItTheSame, power, triesFor } from '../src/taste/same';
import { blindCodes, fairTasters, imbalance, readRounds, sameRounds, servings, williams } from '../src/taste/serving';

/* Orders that are balanced for what came before, and exact answers to whether two are the same. */

describe('orders', () => {
  test.each([2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12])(
    '%i bars: each in every place, and after every other, equally often',
    (bars) => {
      const square = williams(bars);
      expect(square).toHaveLength(bars % 2 === 0 ? bars : 2 * bars);
      for (const row of square)
        expect([...row].sort((a, b) => a - b)).toEqual(Array.from({ length: bars }, (_, i) => i));
      expect(imbalance(square, bars)).toEqual({ places: 0, neighbours: 0 });
    },
  );
  test('for any number of tasters no bar stands anywhere twice as often as it could', () => {
    fc.assert(
      fc.property(fc.integer({ min: 2, max: 9 }), fc.integer({ min: 1, max: 40 }), fc.nat(), (bars, tasters, seed) => {
        const rows = servings(bars, tasters, seeded(seed));
        expect(rows.map(({ taster }) => taster)).toEqual(Array.from({ length: tasters }, (_, i) => i));
        const size = bars % 2 === 0 ? bars : 2 * bars;
        const { places } = imbalance(
          rows.map(({ order }) => order),
          bars,
        );
        // Within one square left over a bar is at most as often in a place as the square has it there.
        expect(places).toBeLessThanOrEqual(size / bars);
      }),
    );
  });
  test('triangles: the six orders equally often, one bar alone in each, its code the answer', () => {
    const rows = sameRounds('triangle', 24, 1, seeded(9));
    const counts = new Map<string, number>();
    for (const { bars, codes, right } of rows) {
      counts.set(bars.join(''), (counts.get(bars.join('')) ?? 0) + 1);
      const alone = bars.filter((bar) => bar === 'A').length === 1 ? 'A' : 'B';
      expect(codes[bars.indexOf(alone)]).toBe(right);
      expect(new Set(codes).size).toBe(3);
    }
    expect([...counts.values()]).toEqual([4, 4, 4, 4, 4, 4]);
    expect(new Set(rows.flatMap(({ codes }) => codes)).size).toBe(72);
  });
  test('so many tasters make it fair: whole squares, twice as long for odd bars', () => {
    expect([1, 4, 5, 8].map((tasters) => fairTasters(4, tasters))).toEqual([4, 4, 8, 8]);
    expect(fairTasters(3, 7)).toBe(12);
    const rows = servings(3, fairTasters(3, 7), seeded(2)).map(({ order }) => order);
    expect(imbalance(rows, 3)).toEqual({ places: 0, neighbours: 0 });
  });
  test('one bar, or more than a tongue bears, has no order', () => {
    expect(() => williams(1)).toThrow('Two to 12 bars');
    expect(() => williams(13)).toThrow('Two to 12 bars');
  });
  test('codes: three digits, all different, none that says something', () => {
    const codes = blindCodes(200, seeded(5));
    expect(new Set(codes).size).toBe(200);
    for (const code of codes) expect(code).toMatch(/^[1-9]\d\d$/);
    for (const telling of ['111', '123', '987', '200']) expect(codes).not.toContain(telling);
    expect(() => blindCodes(900, seeded(5))).toThrow('codes only');
  });
});

describe('is it the same', () => {
  // ISO 4120, table A.1: fewest right answers of a triangle test at 0.05.
  test.each([
    [6, 5],
    [7, 5],
    [8, 6],
    [9, 6],
    [10, 7],
    [12, 8],
    [15, 9],
    [18, 10],
    [20, 11],
    [24, 13],
    [30, 15],
  ])('triangle: %i tasters need %i', (tries, fewest) => expect(fewestRight('triangle', tries)).toBe(fewest));
  // The same table at 0.01, and the pair (one-sided) as ISO 5495 has it.
  test('at one in a hundred, and of two', () => {
    expect(fewestRight('triangle', 12, 0.01)).toBe(9);
    expect(fewestRight('triangle', 24, 0.01)).toBe(15);
    expect(fewestRight('paired', 10)).toBe(9);
    expect(fewestRight('paired', 20)).toBe(15);
    expect(fewestRight('tetrad', 12)).toBe(fewestRight('triangle', 12));
  });
  test('tails by hand: two of two, and at least one of three', () => {
    expect(atLeast(2, 2, 1 / 3)).toBeCloseTo(1 / 9, 12);
    expect(atLeast(1, 3, 1 / 3)).toBeCloseTo(1 - 8 / 27, 12);
    expect(atLeast(0, 3, 0.2)).toBe(1);
    expect(atLeast(4, 3, 0.2)).toBe(0);
  });
  test('tails fall with hits and rise with chance, and are those that counting finds', () => {
    const chance = seeded(11);
    for (const [n, p] of [
      [12, 1 / 3],
      [24, 2 / 3],
      [40, 1 / 2],
    ] as const) {
      const runs = 20_000;
      const hits = Array.from({ length: runs }, () => {
        let k = 0;
        for (let i = 0; i < n; i += 1) if (chance() < p) k += 1;
        return k;
      });
      const at = Math.round(n * p) + 2;
      expect(hits.filter((k) => k >= at).length / runs).toBeCloseTo(atLeast(at, n, p), 1);
    }
  });
  test('power: the other people guess; more tasters notice more, a small difference wants many', () => {
    // Twelve tasters, eight right are needed; who tastes is right, who does not one time in three: p = 2/3.
    expect(power('triangle', 12, 0.5)).toBeCloseTo(atLeast(8, 12, 2 / 3), 12);
    expect(power('triangle', 30, 0.5)).toBeGreaterThan(power('triangle', 12, 0.5));
    expect(power('triangle', 12, 0)).toBeLessThanOrEqual(0.05);
    const half = triesFor('triangle', 0.5, 0.8) ?? 0;
    expect(power('triangle', half, 0.5)).toBeGreaterThanOrEqual(0.8);
    expect(triesFor('triangle', 0.2, 0.8) ?? 0).toBeGreaterThan(3 * half);
  });
  test('guessing is taken for a difference one time in twenty at the most', () => {
    for (const test of ['triangle', 'tetrad', 'paired'] as const)
      for (let tries = 3; tries <= 80; tries += 1) expect(power(test, tries, 0)).toBeLessThanOrEqual(0.05 + 1e-12);
  });
  test('said as a sentence: a difference, none found, cannot tell; who tasted again is said', () => {
    expect(isItTheSame('triangle', 20, 30)).toMatchObject({ differs: true, fewest: 15 });
    expect(isItTheSame('triangle', 20, 30).sentence).toMatch(/^They are not the same: 20 of 30 were right/);
    expect(isItTheSame('triangle', 10, 30).sentence).toMatch(/^No difference was found: 10 of 30 were right, 15 would/);
    expect(isItTheSame('triangle', 4, 8).sentence).toMatch(/^Cannot tell: 4 of 8/);
    expect(isItTheSame('triangle', 10, 24, 12).sentence).toMatch(/24 answers of 12 people/);
    expect(() => isItTheSame('triangle', 9, 8)).toThrow('more right answers than answers');
    expect(isItTheSame('triangle', 0, 12).share).toEqual({ value: 0, low: 0, high: 0 });
  });
  test('the bounds of who tastes it hold nineteen times in twenty', () => {
    const chance = seeded(3);
    let held = 0;
    const runs = 2000;
    for (let run = 0; run < runs; run += 1) {
      const truth = 0.2 + 0.6 * chance();
      let right = 0;
      for (let i = 0; i < 30; i += 1) if (chance() < truth + (1 - truth) / 3) right += 1;
      const { low, high } = isItTheSame('triangle', right, 30).share;
      if (low <= truth && truth <= high) held += 1;
    }
    expect(held / runs).toBeGreaterThanOrEqual(0.945);
  });
});

describe('rounds and their answers', () => {
  test('tetrads: two and two, in six orders; the first one finds its like', () => {
    const rows = sameRounds('tetrad', 12, 2, seeded(3));
    expect(rows).toHaveLength(24);
    expect(rows.map(({ taster, round }) => [taster, round]).slice(0, 3)).toEqual([
      [0, 0],
      [0, 1],
      [1, 0],
    ]);
    for (const { bars, codes, right } of rows) {
      expect(bars.filter((bar) => bar === 'A')).toHaveLength(2);
      expect(bars[codes.indexOf(right)]).toBe(bars[0]);
      expect(codes.indexOf(right)).toBeGreaterThan(0);
      expect(new Set(codes).size).toBe(4);
    }
  });
  test('pairs: each first equally often; the other is right to name', () => {
    const rows = sameRounds('paired', 10, 1, seeded(3));
    expect(rows.filter(({ bars }) => bars[0] === 'A')).toHaveLength(5);
    for (const { bars, codes, right } of rows) expect(bars[codes.indexOf(right)]).toBe('B');
  });
  test('who guesses is right as often as the test counts on', () => {
    for (const [test, by] of [
      ['triangle', 1 / 3],
      ['tetrad', 1 / 3],
      ['paired', 1 / 2],
    ] as const) {
      const chance = seeded(8);
      const rows = sameRounds(test, 60, 4, chance).concat(sameRounds(test, 60, 4, chance));
      const can = (codes: string[]): string[] => (test === 'tetrad' ? codes.slice(1) : codes);
      const right = rows.filter((row) => can(row.codes)[Math.floor(chance() * can(row.codes).length)] === row.right);
      expect(Math.abs(right.length / rows.length - by)).toBeLessThan(0.07);
    }
  });
  test('right, wrong, none of the codes, and not answered yet; people are counted once', () => {
    const sheet = [
      { taster: 0, round: 0, codes: ['101', '202', '303'], bars: ['A', 'A', 'B'], right: '303' },
      { taster: 0, round: 1, codes: ['404', '505', '606'], bars: ['B', 'A', 'B'], right: '505' },
      { taster: 1, round: 0, codes: ['707', '808', '909'], bars: ['A', 'B', 'B'], right: '707' },
    ] as never;
    expect(readRounds('triangle', sheet, {})).toEqual({ given: 0, right: 0, tasters: 0, strange: [] });
    expect(readRounds('triangle', sheet, { 0: ' 303 ', 1: '404', 2: '123' })).toEqual({
      given: 3,
      right: 1,
      tasters: 2,
      strange: [2],
    });
    // The first of a tetrad answers nothing.
    expect(readRounds('tetrad', sheet, { 0: '101' }).strange).toEqual([0]);
  });
});
