import fc from 'fast-check';
import { curveOf } from '../../src/roast/curve';
import { curveRows, readCurveTable } from '../../src/roast/curve-file';
import { areaAbove, killFigure, minutesAbove } from '../../src/roast/figures';
import { BOUND_WATER, roastBeans, weightLeft } from '../../src/roast/model';
import { plannedSettings, programMinutes, withEnd, withSetting, withSplit, without } from '../../src/roast/program';
import { simulateProgram } from '../../src/roast/simulate';
import { thin } from '../../src/roast/thin';
import type { ProgramStep } from '../../src/roast/records';

const parameters = fc.record({
  warmingPerMin: fc.double({ min: 0.02, max: 1, noNaN: true }),
  dryingPerMin: fc.double({ min: 0.005, max: 0.4, noNaN: true }),
});
const start = fc.record({
  beanC: fc.double({ min: 5, max: 35, noNaN: true }),
  moisture: fc.double({ min: 0.03, max: 0.12, noNaN: true }),
});
const steps: fc.Arbitrary<ProgramStep[]> = fc.array(
  fc.record({
    setC: fc.integer({ min: 90, max: 200 }),
    minutes: fc.integer({ min: 1, max: 30 }),
    until: fc.constant(null),
    note: fc.constant(''),
  }),
  { minLength: 1, maxLength: 6 },
);
const air = { lagMin: 3, dipC: 25, underC: 0 };
/** A curve as a logger writes it: tenths of a degree, seconds that rise. */
const logged = fc
  .array(fc.tuple(fc.integer({ min: 1, max: 20 }), fc.integer({ min: 150, max: 1500 })), {
    minLength: 3,
    maxLength: 60,
  })
  .map((rows) => {
    let second = 0;
    return curveOf(
      rows.map(([by, tenths], i) => [(second += i === 0 ? 0 : by), tenths / 10, (tenths + 100) / 10] as const),
    );
  });

describe('whatever the roast', () => {
  test('beans never get warmer than the warmest air, water never grows, weight never falls under the dry beans', () => {
    fc.assert(
      fc.property(steps, parameters, start, (program, bean, from) => {
        const curve = simulateProgram({ steps: program, preheatC: 150 }, { air, beans: bean }, from, 15);
        const hottest = Math.max(from.beanC, ...curve.airC);
        let last = Infinity;
        curve.beanC.forEach((tempC, i) => {
          expect(tempC).toBeLessThanOrEqual(hottest + 1e-6);
          expect(curve.water[i]).toBeLessThanOrEqual(last + 1e-12);
          last = curve.water[i] ?? 0;
        });
        expect(last).toBeGreaterThanOrEqual(BOUND_WATER - 1e-9);
        expect(curve.weightLeft).toBeGreaterThanOrEqual(weightLeft(BOUND_WATER, from.moisture) - 1e-9);
        expect(curve.weightLeft).toBeLessThanOrEqual(1);
      }),
      { numRuns: 60 },
    );
  });

  test('a degree more in the air is never a cooler bean', () => {
    fc.assert(
      fc.property(steps, parameters, start, fc.integer({ min: 1, max: 30 }), (program, bean, from, warmer) => {
        const end = (by: number): number => {
          const line = program.map((row) => ({ ...row, setC: row.setC + by }));
          const curve = simulateProgram({ steps: line, preheatC: 150 + by }, { air, beans: bean }, from, 15);
          return curve.beanC.at(-1) ?? 0;
        };
        expect(end(warmer)).toBeGreaterThan(end(0) - 1e-6);
      }),
      { numRuns: 60 },
    );
  });

  test('half as fine a step says the same to a tenth of a degree', () => {
    fc.assert(
      fc.property(parameters, start, (bean, from) => {
        const around = { minutes: [0, 10, 25], tempC: [130, 160, 140] };
        const end = (stepS: number): number => roastBeans(bean, from, around, 25, stepS).beanC.at(-1) ?? 0;
        expect(Math.abs(end(10) - end(5))).toBeLessThan(0.1);
      }),
      { numRuns: 60 },
    );
  });
});

describe('whatever the curve', () => {
  test('minutes and area above a base fall as the base rises, and fit in the roast', () => {
    fc.assert(
      fc.property(logged, fc.integer({ min: 10, max: 140 }), ({ seconds, beanC }, base) => {
        const minutes = seconds.map((second) => second / 60);
        const whole = minutes.at(-1) ?? 0;
        expect(minutesAbove(minutes, beanC, base)).toBeGreaterThanOrEqual(
          minutesAbove(minutes, beanC, base + 5) - 1e-9,
        );
        expect(areaAbove(minutes, beanC, base)).toBeGreaterThanOrEqual(areaAbove(minutes, beanC, base + 5) - 1e-9);
        expect(minutesAbove(minutes, beanC, base)).toBeLessThanOrEqual(whole + 1e-9);
      }),
    );
  });

  test('the kill figure of a whole is that of its two parts', () => {
    fc.assert(
      fc.property(logged, fc.nat(), ({ beanC }, pick) => {
        // Even steps: what is a gap depends on how often a curve is read, and a part of it may be read otherwise.
        const minutes = beanC.map((_, i) => i / 12);
        const cut = 1 + (pick % (minutes.length - 2));
        const values = { dMin: 2, zC: 12, refC: 100 };
        const part = (from: number, to: number): number =>
          killFigure(minutes.slice(from, to), beanC.slice(from, to), values);
        const whole = killFigure(minutes, beanC, values);
        expect(part(0, cut + 1) + part(cut, minutes.length)).toBeCloseTo(whole, 9 - Math.ceil(Math.log10(1 + whole)));
      }),
    );
  });

  test('out as a table and in again it is the same', () => {
    fc.assert(
      fc.property(logged, (curve) => {
        const table = curveRows(curve).map((row) => row.map((cell) => (cell === null ? '' : String(cell))));
        const { curve: again, badCount, mapping } = readCurveTable(table);
        expect(badCount).toBe(0);
        expect(mapping).toMatchObject({ unit: 'C', time: 'seconds' });
        expect(Array.from(again.seconds)).toEqual(Array.from(curve.seconds));
        expect(Array.from(again.beanC)).toEqual(Array.from(curve.beanC));
        expect(Array.from(again.airC)).toEqual(Array.from(curve.airC));
      }),
    );
  });

  test('thinned it keeps its ends and its order, and nothing that was not there', () => {
    fc.assert(
      fc.property(logged, fc.integer({ min: 3, max: 30 }), (curve, most) => {
        const thinned = thin(curve, most);
        const at = new Map(Array.from(curve.seconds, (second, i) => [second, curve.beanC[i]]));
        const kept = Array.from(thinned.seconds).flatMap((second, i) =>
          Number.isFinite(thinned.beanC[i]) ? [[second, thinned.beanC[i]] as const] : [],
        );
        expect(kept[0]?.[0]).toBe(curve.seconds[0]);
        expect(kept.at(-1)?.[0]).toBe(curve.seconds.at(-1));
        kept.forEach(([second, beanC], i) => {
          expect(at.get(second)).toBe(beanC);
          if (i > 0) expect(second).toBeGreaterThan(kept[i - 1]?.[0] ?? Infinity);
        });
        expect(kept.length).toBeLessThanOrEqual(Math.max(most, 3));
      }),
    );
  });
});

describe('whatever is dragged', () => {
  test('a program keeps its other steps, its length adds up, and its settings begin where steps do', () => {
    fc.assert(
      fc.property(steps, fc.nat(), fc.double({ min: -50, max: 500, noNaN: true }), (program, pick, to) => {
        const index = pick % program.length;
        const warmer = withSetting(program, index, to);
        expect(warmer[index]?.setC).toBeGreaterThanOrEqual(20);
        expect(warmer[index]?.setC).toBeLessThanOrEqual(300);
        const longer = withEnd(program, index, to);
        expect(longer[index]?.minutes).toBeGreaterThanOrEqual(0.25);
        for (const changed of [warmer, longer])
          changed.forEach((row, i) => i !== index && expect(row).toEqual(program[i]));
        expect(programMinutes(withSplit(program, index))).toBeCloseTo(programMinutes(program), 9);
        expect(without(program, index).length).toBe(Math.max(1, program.length - 1));
        const settings = plannedSettings({ steps: program });
        expect(settings[0]?.second).toBe(0);
        expect((settings.at(-1)?.second ?? 0) / 60 + (program.at(-1)?.minutes ?? 0)).toBeCloseTo(
          programMinutes(program),
          9,
        );
      }),
    );
  });
});
