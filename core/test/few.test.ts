import { holdClock, USUAL_HOLD } from '../src/beans/hold';
import { dryingForecast } from '../src/beans/harvest';
import { judgeYield } from '../src/ledger/yields';
import { yieldOf } from '../src/stations';
import { fitResponse } from '../src/winnow/response';
import { sampleShare } from '../src/winnow/samples';
import { seededChance, seededNormal } from './seeded';

const HOUR = 3_600_000;

describe('a word over nothing', () => {
  test.each([6, 8, 12, 30])('a yield against %i earlier of the same: called low in one of a hundred at most', (n) => {
    const normal = seededNormal(n);
    let called = 0;
    for (let run = 0; run < 4000; run += 1) {
      const past = Array.from({ length: n }, () => 0.82 + 0.01 * normal());
      if (judgeYield(yieldOf('winnow'), 0.82 + 0.01 * normal(), past, 'x').signal === 'beyond-limits') called += 1;
    }
    expect(called / 4000).toBeLessThan(0.01);
  });

  test.each([1, 2] as const)('%i useless dials are called proven in one of twenty at most', (dials) => {
    const [normal, chance] = [seededNormal(5), seededChance(6)];
    let proven = 0;
    let ready = 0;
    for (let run = 0; run < 600; run += 1) {
      const points = Array.from({ length: 14 }, () => ({
        dials: {
          gapMm: 2 + Math.floor(5 * chance()) / 2,
          ...(dials === 2 ? { air: 3 + Math.floor(5 * chance()) } : {}),
        },
        value: 0.82 + 0.01 * normal(),
      }));
      const found = fitResponse(points);
      if (!found.ready) continue;
      ready += 1;
      if (found.proven) proven += 1;
    }
    expect(ready).toBeGreaterThan(550);
    expect(proven / ready).toBeLessThanOrEqual(0.05);
  });

  test('a dial that matters is still found', () => {
    const [normal, chance] = [seededNormal(9), seededChance(10)];
    let proven = 0;
    for (let run = 0; run < 100; run += 1) {
      const points = Array.from({ length: 16 }, (_, i) => {
        const gapMm = i === 15 ? 2 : 2 + Math.floor(5 * chance()) / 2;
        return { dials: { gapMm }, value: 0.84 - 0.02 * (gapMm - 3.2) ** 2 + 0.004 * normal() };
      });
      if (fitResponse(points).proven) proven += 1;
    }
    expect(proven).toBeGreaterThan(80);
  });
});

test('picked samples count for what they weigh', () => {
  const found = sampleShare([
    { sampleG: 20, foundG: 2 },
    { sampleG: 200, foundG: 2 },
  ]);
  expect(found?.mean).toBeCloseTo(4 / 220, 12);
  expect(found?.low).toBe(0);
  // Of equal samples it is the t-interval of their shares.
  const equal = sampleShare([1, 2, 3].map((foundG) => ({ sampleG: 100, foundG })));
  expect(equal?.mean).toBeCloseTo(0.02, 12);
  expect(equal?.high).toBeCloseTo(0.02 + (4.302653 * 0.01) / Math.sqrt(3), 6);
});

describe('two readings at one moment', () => {
  test('of a frozen core the warmer counts, in whatever order they were written', () => {
    const plan = { ...USUAL_HOLD.freeze, hours: 4 };
    for (const pair of [
      [-20, -5],
      [-5, -20],
    ]) {
      const clock = holdClock(
        [
          { at: 0, tempC: -20 },
          ...pair.map((tempC) => ({ at: 2 * HOUR, tempC })),
          { at: 4 * HOUR, tempC: -20 },
          { at: 6 * HOUR, tempC: -20 },
        ],
        plan,
      );
      expect(clock.done).toBe(false);
      expect(clock.hours).toBeLessThan(2.3);
    }
  });

  test('of drying beans within the hour the wetter counts, and no pace is endless', () => {
    const forecast = dryingForecast(
      [
        { at: 0, moisturePct: 30, massG: null },
        { at: 24 * HOUR, moisturePct: 18, massG: null },
        { at: 24 * HOUR, moisturePct: 9, massG: null },
      ],
      25 * HOUR,
    );
    expect(forecast.moisturePct).toBe(18);
    expect(Number.isFinite(forecast.readyAt)).toBe(true);
    expect(forecast.advice.sentence).not.toMatch(/Infinity|NaN/);
  });
});
