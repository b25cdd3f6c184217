import {
  BEAN_HEAT,
  BOUND_WATER,
  dryBasis,
  dryingAt,
  follower,
  roastBeans,
  WATER_HEAT,
  weightLeft,
} from '../../src/roast/model';
import { airAfter, airFromSettings, simulateProgram } from '../../src/roast/simulate';
import { minutesAbove } from '../../src/roast/figures';

const level = (tempC: number) => ({ minutes: [0], tempC: [tempC] });
const NO_DRYING = { warmingPerMin: 0.2, dryingPerMin: 0 };
const USUAL = { warmingPerMin: 0.15, dryingPerMin: 0.07 };

describe('the bean model', () => {
  test('without drying beans come to the air exponentially', () => {
    const curve = roastBeans(NO_DRYING, { beanC: 20, moisture: 0.07 }, level(140), 30);
    for (let i = 0; i < curve.minutes.length; i += 30) {
      const exact = 140 - 120 * Math.exp(-0.2 * (curve.minutes[i] ?? 0));
      expect(curve.beanC[i]).toBeCloseTo(exact, 6);
    }
    expect(curve.water.at(-1)).toBe(dryBasis(0.07));
  });

  test('without drying beans lag behind rising air by its slope over the warming', () => {
    // T_air = 60 + 2t: after long enough the beans follow at a distance of 2 / 0.2 = 10 °C.
    const air = { minutes: [0, 60], tempC: [60, 180] };
    const curve = roastBeans(NO_DRYING, { beanC: 60, moisture: 0.07 }, air, 50);
    expect((curve.airC.at(-1) ?? 0) - (curve.beanC.at(-1) ?? 0)).toBeCloseTo(10, 3);
  });

  test('in the end they are as warm as the air and hold only bound water', () => {
    const curve = roastBeans(USUAL, { beanC: 20, moisture: 0.07 }, level(130), 600);
    expect(curve.beanC.at(-1)).toBeCloseTo(130, 3);
    expect(curve.water.at(-1)).toBeCloseTo(BOUND_WATER, 5);
  });

  test('drying alone, at one temperature, is exponential', () => {
    // So strong a warming that the beans are as warm as the air from the start.
    const parameters = { warmingPerMin: 60, dryingPerMin: 0.05 };
    const curve = roastBeans(parameters, { beanC: 120, moisture: 0.07 }, level(120), 20, 0.25);
    const exact = BOUND_WATER + (dryBasis(0.07) - BOUND_WATER) * Math.exp(-0.05 * 20);
    // The evaporation cools them a little, so they dry a little slower.
    expect(curve.water.at(-1)).toBeGreaterThan(exact);
    expect(curve.water.at(-1)).toBeCloseTo(exact, 4);
    expect(dryingAt(120, 0.05)).toBe(0.05);
  });

  test('energy: what the air gives is in the beans and in the water that left', () => {
    const air = { minutes: [0, 8, 20], tempC: [160, 150, 130] };
    const curve = roastBeans(USUAL, { beanC: 20, moisture: 0.07 }, air, 25, 1);
    let given = 0;
    for (let i = 1; i < curve.minutes.length; i += 1) {
      const flow = (at: number): number => USUAL.warmingPerMin * ((curve.airC[at] ?? 0) - (curve.beanC[at] ?? 0));
      given += ((flow(i) + flow(i - 1)) / 2) * ((curve.minutes[i] ?? 0) - (curve.minutes[i - 1] ?? 0)) * BEAN_HEAT;
    }
    const warmed = BEAN_HEAT * ((curve.beanC.at(-1) ?? 0) - 20);
    const boiled = WATER_HEAT * (dryBasis(0.07) - (curve.water.at(-1) ?? 0));
    expect(given).toBeCloseTo(warmed + boiled, 1);
  });

  test('water: what left is what dried, moment by moment, and never grows', () => {
    const curve = roastBeans(USUAL, { beanC: 20, moisture: 0.07 }, level(150), 25, 1);
    let dried = 0;
    for (let i = 1; i < curve.minutes.length; i += 1) {
      const rate = (at: number): number =>
        dryingAt(curve.beanC[at] ?? 0, USUAL.dryingPerMin) * ((curve.water[at] ?? 0) - BOUND_WATER);
      dried += ((rate(i) + rate(i - 1)) / 2) * ((curve.minutes[i] ?? 0) - (curve.minutes[i - 1] ?? 0));
      expect(curve.water[i]).toBeLessThanOrEqual(curve.water[i - 1] ?? 0);
    }
    expect(dryBasis(0.07) - (curve.water.at(-1) ?? 0)).toBeCloseTo(dried, 6);
  });

  test('halving the step divides the error by sixteen', () => {
    const air = (minutes: number) => ({ minutes: [0, minutes], tempC: [170, 120] });
    const run = (stepS: number) =>
      roastBeans({ warmingPerMin: 0.6, dryingPerMin: 0.3 }, { beanC: 20, moisture: 0.07 }, air(20), 20, stepS).beanC;
    const exact = run(0.5);
    const worst = (stepS: number): number =>
      Math.max(
        ...Array.from({ length: 20 }, (_, m) =>
          Math.abs((run(stepS)[((m + 1) * 60) / stepS] ?? 0) - (exact[(m + 1) * 120] ?? 0)),
        ),
      );
    expect(worst(30) / worst(15)).toBeGreaterThan(13);
    expect(worst(30) / worst(15)).toBeLessThan(21);
    expect(worst(5)).toBeLessThan(1e-3);
  });

  test('seven per cent of water roasted to two and a half leave about nineteen twentieths of the weight', () => {
    // Dry 93 g; 2.5 % of wet is 2.385 g with it; less 0.6 % volatiles of the dry.
    expect(100 * weightLeft(dryBasis(0.025), 0.07)).toBeCloseTo(93 + 93 * dryBasis(0.025) - 93 * 0.006, 9);
    expect(weightLeft(dryBasis(0.07), 0.07, 0)).toBeCloseTo(1, 12);
  });

  test('a line is read straight between its points and level beyond them', () => {
    const at = follower({ minutes: [0, 10, 20], tempC: [100, 120, 80] });
    expect([0, 5, 10, 15, 30, 5].map(at)).toEqual([100, 110, 120, 100, 80, 110]);
  });
});

describe('a program through the model', () => {
  const air = { lagMin: 3, dipC: 25, underC: 0 };
  const steps = [
    { setC: 160, minutes: 6, until: null, note: '' },
    { setC: 130, minutes: 14, until: null, note: '' },
  ];

  test('the air comes to its setting by Newton’s law, from where the door left it', () => {
    const curve = simulateProgram({ steps, preheatC: 150 }, { air, beans: USUAL }, { beanC: 20, moisture: 0.07 });
    const at = (minute: number): number => curve.minutes.findIndex((m) => Math.abs(m - minute) < 1e-6);
    expect(curve.airC[0]).toBe(125);
    expect(curve.airC[at(6)]).toBeCloseTo(160 - 35 * Math.exp(-2), 9);
    expect(curve.airC[at(9)]).toBeCloseTo(airAfter(160 - 35 * Math.exp(-2), 130, 3, air), 9);
    expect(curve.totalMin).toBeCloseTo(20, 9);
    expect(curve.begins).toEqual([0, expect.closeTo(6, 9)]);
  });

  test('air that comes to rest under its setting starts, goes and ends under it', () => {
    const under = { ...air, underC: 6 };
    const curve = simulateProgram(
      { steps, preheatC: 150 },
      { air: under, beans: USUAL },
      { beanC: 20, moisture: 0.07 },
    );
    expect(curve.airC[0]).toBe(119);
    expect(airAfter(119, 160, 1e6, under)).toBeCloseTo(154, 9);
  });

  test('a probe that lags and feels the air says so of the same beans', () => {
    const start = { beanC: 20, moisture: 0.07 };
    const plain = simulateProgram({ steps, preheatC: 150 }, { air, beans: USUAL }, start);
    const late = simulateProgram(
      { steps, preheatC: 150 },
      { air, beans: USUAL, probe: { airShare: 0, lagMin: 0.5 } },
      start,
    );
    const airy = simulateProgram(
      { steps, preheatC: 150 },
      { air, beans: USUAL, probe: { airShare: 0.1, lagMin: 0 } },
      start,
    );
    const at = plain.minutes.findIndex((m) => m >= 5);
    const climb = ((plain.beanC[at] ?? 0) - (plain.beanC[at - 6] ?? 0)) / 0.5;
    expect((plain.beanC[at] ?? 0) - (late.beanC[at] ?? 0)).toBeCloseTo(0.5 * climb, 0);
    expect(airy.beanC[at]).toBeCloseTo(0.9 * (plain.beanC[at] ?? 0) + 0.1 * (plain.airC[at] ?? 0), 6);
    expect(late.weightLeft).toBe(plain.weightLeft);
  });

  test('the same settings written down one by one give the same air', () => {
    const curve = simulateProgram({ steps, preheatC: 150 }, { air, beans: USUAL }, { beanC: 20, moisture: 0.07 });
    const settings = [
      { second: 0, setC: 160, step: 0 },
      { second: 360, setC: 130, step: 1 },
    ];
    const line = airFromSettings(settings, 150, air, curve.minutes);
    curve.airC.forEach((tempC, i) => expect(line[i]).toBeCloseTo(tempC, 6));
  });

  test('a step until a bean temperature ends there, or after its minutes', () => {
    const until = (beanC: number) => ({ what: 'bean' as const, beanC });
    const run = (beanC: number) =>
      simulateProgram(
        { steps: [{ setC: 150, minutes: 60, until: until(beanC), note: '' }], preheatC: 150 },
        { air, beans: USUAL },
        { beanC: 20, moisture: 0.07 },
      );
    const reached = run(110);
    expect(reached.ends).toEqual(['bean']);
    expect(reached.beanC.at(-1)).toBeGreaterThanOrEqual(110);
    expect(reached.beanC.at(-2)).toBeLessThan(110);
    expect(minutesAbove(reached.minutes, reached.beanC, 110)).toBeLessThan(5 / 60);
    expect(run(200).ends).toEqual(['minutes']);
    expect(run(200).totalMin).toBeCloseTo(60, 9);
  });

  test('wetter beans of one load come out later and lose more', () => {
    const run = (moisture: number) =>
      simulateProgram({ steps, preheatC: 150 }, { air, beans: USUAL }, { beanC: 20, moisture });
    expect(run(0.09).beanC.at(-1)).toBeLessThan(run(0.06).beanC.at(-1) ?? 0);
    expect(run(0.09).weightLeft).toBeLessThan(run(0.06).weightLeft);
  });
});
