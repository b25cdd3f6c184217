import { trapAlarm, trapWeeks, type TrapCount, type TrapWeek } from '../../src/beans/traps';
import { mondayOf } from '../../src/units/zone';
import { mothAlarms } from '../../calibrate/moths';

const DAY = 86_400_000;
const WEEK = 7 * DAY;
const START = Date.UTC(2025, 0, 6);

const weeksOf = (counts: readonly TrapCount[]): TrapWeek[] => trapWeeks(counts, 'UTC');

const weekly = (moths: readonly number[], from = START): TrapCount[] =>
  moths.map((count, index) => ({ at: from + index * WEEK + DAY, trap: 'door', moths: count, days: 7 }));

describe('moth trap counts', () => {
  it('begin their weeks on Monday', () => {
    expect(new Date(mondayOf(Date.UTC(2026, 10, 23, 23), 'UTC')).toISOString()).toBe('2026-11-23T00:00:00.000Z');
    expect(new Date(mondayOf(Date.UTC(2026, 10, 22), 'UTC')).toISOString()).toBe('2026-11-16T00:00:00.000Z');
  });

  it('add up traps of one week by the days they hung', () => {
    const weeks = weeksOf([
      { at: START, trap: 'door', moths: 3, days: 7 },
      { at: START + DAY, trap: 'window', moths: 1, days: 3.5 },
    ]);
    expect(weeks).toMatchObject([{ moths: 4, trapDays: 10.5 }]);
    expect(weeks[0]?.rate).toBeCloseTo((7 * 4) / 10.5, 9);
  });

  it('lie in the week of the workshop’s own clock, over the nights on which clocks change, in any order', () => {
    for (const zone of ['Europe/Lisbon', 'Pacific/Fiji', 'America/Sao_Paulo'])
      for (const from of [Date.UTC(2026, 2, 16), Date.UTC(2026, 9, 12)]) {
        const counts = Array.from({ length: 21 * 8 }, (_, i) => ({
          at: from + (((i * 61) % (21 * 8)) * DAY) / 8,
          trap: 'door',
          moths: 1,
          days: 7,
        }));
        const expected = new Map<number, number>();
        for (const { at } of counts) expected.set(mondayOf(at, zone), (expected.get(mondayOf(at, zone)) ?? 0) + 1);
        for (const given of [counts, counts.toSorted((a, b) => a.at - b.at)])
          expect(new Map(trapWeeks(given, zone).map((week) => [week.from, week.moths]))).toEqual(expected);
      }
  });

  it('alarm on a week far over the last ones, with the chance worked out', () => {
    const alarm = trapAlarm(weeksOf(weekly([1, 0, 2, 1, 1, 0, 1, 2, 9])));
    expect(alarm).toMatchObject({ tone: 'watch', basis: 'last weeks' });
    // Past: 8 moths in 8 weeks, scatter 5·(0 − 1)²…: even less than chance alone. Five weeks' worth of the usual 3.4 and
    // seven of their own; a geometric check by sums stands in for the incomplete beta function.
    const scatter = [1, 0, 2, 1, 1, 0, 1, 2].reduce((sum, k) => sum + (k - 1) ** 2, 0);
    const clumped = ((5 * 3.4 + scatter) / 12) * (1 + 1.4 * Math.sqrt(2 / 12));
    const [k, shape, p] = [9 / clumped, 8 / clumped + 0.5, 56 / 63];
    // ∫ t^(k−1)(1−t)^(shape−1) over 0…1−p against 0…1, by the midpoint rule in t^k.
    const integral = (to: number): number => {
      let sum = 0;
      const n = 200_000;
      for (let i = 0; i < n; i += 1) sum += (1 - (((i + 0.5) / n) * to ** k) ** (1 / k)) ** (shape - 1);
      return (sum / n) * to ** k;
    };
    expect(alarm.chance).toBeCloseTo(integral(1 - p) / integral(1), 4);
  });

  it('judge by the same season once there is one', () => {
    const lastSummer = weekly([12, 14, 13, 11, 15], Date.UTC(2024, 6, 1));
    const spring = weekly([1, 0, 1, 1], Date.UTC(2025, 4, 26));
    const thisSummer = weekly([13], Date.UTC(2025, 6, 7));
    expect(trapAlarm(weeksOf([...lastSummer, ...spring, ...thisSummer]))).toMatchObject({
      tone: 'good',
      basis: 'same season',
    });
    expect(trapAlarm(weeksOf([...spring, ...thisSummer]))).toMatchObject({ tone: 'watch', basis: 'last weeks' });
  });

  it('say that nothing is known yet', () => {
    expect(trapAlarm([]).tone).toBe('unknown');
    expect(trapAlarm(weeksOf(weekly([4, 5]))).tone).toBe('unknown');
  });

  it('rarely cry out over nothing: about one week in a hundred at most, moths that hatch together or not', () => {
    for (const clump of [1, 2]) expect(mothAlarms(4000, 4, clump, 1, 3)).toBeLessThan(0.012);
  });

  it('do cry out when there really are many', () => {
    expect(mothAlarms(300, 4, 1, 8, 4)).toBeGreaterThan(0.95);
  });
});
