import fc from 'fast-check';
import { holdClock, USUAL_HOLD, type CoreReading, type HoldPlan } from '../../src/beans/hold';

const HOUR = 3_600_000;
const readings = (...rows: [hour: number, tempC: number][]): CoreReading[] =>
  rows.map(([hour, tempC]) => ({ at: hour * HOUR, tempC }));
const freeze = (rest: Partial<HoldPlan> = {}): HoldPlan => ({
  ...USUAL_HOLD.freeze,
  hours: 20,
  maxGapHours: 6,
  ...rest,
});

describe('pest hold clock', () => {
  it('begins when the core crosses the threshold, on the line between two readings', () => {
    // +2 at 0 h, −38 at 8 h would cross −18 half-way; two readings 4 h apart each side.
    const clock = holdClock(readings([0, 2], [4, -18], [8, -20]), freeze());
    expect(clock.hours).toBeCloseTo(4, 9);
    expect(holdClock(readings([0, -14], [4, -22]), freeze()).hours).toBeCloseTo(2, 9);
    expect(clock).toMatchObject({ done: false, holding: true, expectedAt: 24 * HOUR });
  });

  it('is done at the very moment the hours are reached, and stays done', () => {
    const clock = holdClock(readings([0, -20], [6, -20], [12, -20], [18, -20], [24, -20], [28, 10]), freeze());
    expect(clock).toMatchObject({ done: true, doneAt: 20 * HOUR, share: 1 });
  });

  it('starts over after a thaw where the plan says so', () => {
    const thawed = readings([0, -20], [5, -20], [6, -10], [7, -20], [12, -20]);
    const strict = holdClock(thawed, freeze());
    // Down again at −18 on the way from −10 to −20: 0.8 h after the reading at 6 h.
    expect(strict.hours).toBeCloseTo(12 - 6.8, 9);
    expect(strict.breaks).toHaveLength(1);
    expect(strict.breaks[0]?.lostHours).toBeCloseTo(5.2, 9);
    const lenient = holdClock(thawed, freeze({ restart: false }));
    expect(lenient.hours).toBeCloseTo(5.2 + 5.2, 9);
  });

  it('counts nothing over a gap, and does not start over for one', () => {
    const clock = holdClock(readings([0, -20], [5, -20], [15, -20], [18, -20]), freeze());
    expect(clock.hours).toBeCloseTo(5 + 3, 9);
    expect(clock.breaks).toMatchObject([{ from: 5 * HOUR, to: 15 * HOUR, why: 'gap', lostHours: 0 }]);
  });

  it('starts over when the reading behind a gap is too warm', () => {
    const clock = holdClock(readings([0, -20], [5, -20], [15, -10], [16, -20], [20, -20]), freeze());
    expect(clock.hours).toBeCloseTo(20 - 15.8, 9);
  });

  it('reads heat the other way round', () => {
    const clock = holdClock(readings([0, 20], [2, 60], [4, 60]), { ...USUAL_HOLD.heat, hours: 2 });
    expect(clock.hours).toBeCloseTo(0.25 + 2, 9);
    expect(clock.done).toBe(true);
  });

  it('has nothing to count without readings', () => {
    expect(holdClock([], freeze())).toMatchObject({ hours: 0, done: false, holding: false, expectedAt: null });
    expect(holdClock(readings([0, -20]), freeze())).toMatchObject({ hours: 0, holding: true });
  });

  const logs = fc.array(fc.tuple(fc.integer({ min: 0, max: 400 }), fc.integer({ min: -30, max: 10 })), {
    maxLength: 40,
  });

  it('never counts more than the time logged, nor depends on the order of the log', () => {
    fc.assert(
      fc.property(logs, fc.boolean(), (rows, restart) => {
        const unique = [...new Map(rows).entries()];
        const log = readings(...unique);
        const clock = holdClock(log, freeze({ restart, hours: 1e6 }));
        const times = log.map(({ at }) => at).sort((a, b) => a - b);
        const logged = times.length > 1 ? ((times.at(-1) ?? 0) - (times[0] ?? 0)) / HOUR : 0;
        expect(clock.hours).toBeLessThanOrEqual(logged + 1e-9);
        expect(clock.hours).toBeGreaterThanOrEqual(0);
        expect(holdClock([...log].reverse(), freeze({ restart, hours: 1e6 })).hours).toBeCloseTo(clock.hours, 9);
        const lenient = holdClock(log, freeze({ restart: false, hours: 1e6 }));
        expect(lenient.hours).toBeGreaterThanOrEqual(clock.hours - 1e-9);
        const kept = lenient.kept.reduce((sum, { from, to }) => sum + (to - from) / HOUR, 0);
        expect(kept).toBeCloseTo(lenient.hours, 6);
      }),
    );
  });
});
