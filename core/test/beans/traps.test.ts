import { trapAlarm, trapWeeks, type TrapCount, type TrapWeek } from '../../src/beans/traps';
import { mondayOf } from '../../src/units/zone';
import { seededChance } from '../seeded';

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

  it('alarm on a week far over the last ones, with the chance worked out', () => {
    const alarm = trapAlarm(weeksOf(weekly([1, 0, 2, 1, 1, 0, 1, 2, 9])));
    expect(alarm).toMatchObject({ tone: 'watch', basis: 'last weeks' });
    // Past: 8 moths in 56 trap days; shape 8.5, p = 56/63. P(X ≥ 9) by the sum of the first nine terms.
    let term = (56 / 63) ** 8.5;
    let below = term;
    for (let i = 1; i <= 8; i += 1) {
      term *= ((8.5 + i - 1) / i) * (7 / 63);
      below += term;
    }
    expect(alarm.chance).toBeCloseTo(1 - below, 9);
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

  it('rarely cry out over nothing: at most one week in a hundred of an unchanged store', () => {
    const chance = seededChance(3);
    const poisson = (mean: number): number => {
      let k = 0;
      for (let p = chance(); p > Math.exp(-mean); p *= chance()) k += 1;
      return k;
    };
    let alarms = 0;
    for (let i = 0; i < 4000; i += 1) {
      if (trapAlarm(weeksOf(weekly(Array.from({ length: 9 }, () => poisson(1.5))))).tone === 'watch') alarms += 1;
    }
    expect(alarms / 4000).toBeLessThan(0.012);
  });
});
