import { simulateBand, weightRange } from '../../src/roast/band';
import { DEFAULTS, expectedRoaster, expectLoad, fitRoaster, fitWords } from '../../src/roast/fit';
import { bayesLine, estimateAt } from '../../src/stats/bayes-line';
import { FALLING, madeLoad, normals, step } from './made';

const TRUE = { warmingPerMin: 0.12, dryingPerMin: 0.09 };

describe('the fit of one load', () => {
  test('finds what made a noisy curve', () => {
    const { loads } = fitRoaster('oven', [madeLoad({ parameters: TRUE })]);
    // The prior of the other figures pulls a little: a tenth on the logarithm is what one load can say.
    expect(Math.abs(Math.log((loads[0]?.parameters.warmingPerMin ?? 0) / TRUE.warmingPerMin))).toBeLessThan(0.15);
    expect(Math.abs(Math.log((loads[0]?.parameters.dryingPerMin ?? 0) / TRUE.dryingPerMin))).toBeLessThan(0.2);
    expect(loads[0]?.rmsC).toBeGreaterThan(0.3);
    expect(loads[0]?.rmsC).toBeLessThan(0.8);
  });

  test('works without an air probe, from the settings', () => {
    const load = madeLoad({ parameters: TRUE });
    const fit = fitRoaster('oven', [{ ...load, airC: [] }]);
    expect(fit.airRead).toBe(false);
    expect(fit.loads[0]?.rmsC).toBeLessThan(0.8);
  });

  test('finds how the air follows: its lag, its dip, and that it stays under its setting', () => {
    const made = { lagMin: 4.5, dipC: 40, underC: 8 };
    const { air, airRead } = fitRoaster(
      'oven',
      [1, 2, 3, 4, 5, 6].map((seed) => madeLoad({ parameters: TRUE, air: made, random: normals(seed) })),
    );
    expect(airRead).toBe(true);
    expect(Math.abs(air.lagMin - made.lagMin)).toBeLessThan(0.6);
    expect(Math.abs(air.dipC - made.dipC)).toBeLessThan(5);
    expect(Math.abs(air.underC - made.underC)).toBeLessThan(1.5);
  });

  test('a knocked probe for a minute moves little', () => {
    const whole = madeLoad({ parameters: TRUE });
    const knocked = { ...whole, beanC: Array.from(whole.beanC, (c, i) => (i > 100 && i < 112 ? c - 40 : c)) };
    const [a, b] = [whole, knocked].map((load) => fitRoaster('oven', [load]).loads[0]?.parameters.warmingPerMin ?? 0);
    expect(Math.abs(Math.log((a ?? 1) / (b ?? 1)))).toBeLessThan(0.05);
  });

  test('leaves out a load of a dozen readings less one', () => {
    const load = madeLoad({ parameters: TRUE, everyS: 200 });
    expect(load.minutes.length).toBeLessThan(12);
    expect(fitRoaster('oven', [load]).loads).toEqual([]);
  });
});

describe('the fit of a roaster', () => {
  test('begins at the usual, wide, and says so', () => {
    const fit = fitRoaster('oven', []);
    expect(expectedRoaster(fit, { massG: 5000, layerMm: null }).beans).toEqual({
      warmingPerMin: expect.closeTo(DEFAULTS.oven.warmingPerMin, 9),
      dryingPerMin: expect.closeTo(DEFAULTS.oven.dryingPerMin, 9),
      fade: expect.closeTo(0.15, 9),
    });
    const { warming } = expectLoad(fit, { massG: 5000, layerMm: null });
    expect(Math.exp(warming.high) / Math.exp(warming.low)).toBeGreaterThan(2.5);
    expect(fitWords(fit)).toContain('band is wide');
  });

  test('eight in ten of the next loads fall in its 80 % interval, and its own mean as well', () => {
    const random = normals(20);
    let [next, own, of] = [0, 0, 0];
    for (let world = 0; world < 40; world += 1) {
      // A roaster of its own, a little unlike the usual; its loads scatter about it.
      const [warming, drying] = [Math.log(0.17) + 0.3 * random(), Math.log(0.09) + 0.3 * random()];
      const load = (code: string) =>
        madeLoad({
          parameters: {
            warmingPerMin: Math.exp(warming + 0.1 * random()),
            dryingPerMin: Math.exp(drying + 0.1 * random()),
          },
          everyS: 40,
          random,
          code,
        });
      const fit = fitRoaster(
        'oven',
        Array.from({ length: 4 }, (_, i) => load(`T${i}`)),
      );
      const expected = expectLoad(fit, { massG: 5000, layerMm: null });
      const truth = warming + 0.1 * random();
      if (truth >= expected.warming.low && truth <= expected.warming.high) next += 1;
      const mean = estimateAt(fit.warming, [1, 0], false);
      if (warming >= mean.low && warming <= mean.high) own += 1;
      of += 1;
    }
    expect(next / of).toBeGreaterThanOrEqual(0.7);
    expect(next / of).toBeLessThanOrEqual(0.97);
    expect(own / of).toBeGreaterThanOrEqual(0.7);
  });

  test('learns that a deeper layer warms more slowly', () => {
    const random = normals(3);
    const layers = [14, 18, 22, 28, 36, 44];
    const fit = fitRoaster(
      'oven',
      layers.map((layerMm) =>
        madeLoad({
          parameters: { ...TRUE, warmingPerMin: 0.12 * (24 / layerMm) ** 0.8 * Math.exp(0.03 * random()) },
          layerMm,
          random,
        }),
      ),
    );
    expect(fit.sizeBy).toBe('layer');
    expect(fit.warming.coefficients[1]).toBeLessThan(-0.65);
    const at = (layerMm: number): number => expectedRoaster(fit, { massG: 5000, layerMm }).beans.warmingPerMin;
    expect(at(20)).toBeGreaterThan(1.4 * at(40));
    expect(fit.heldOut?.n).toBe(6);
    expect(fit.heldOut?.rmsC).toBeLessThan(3);
    expect(fitWords(fit)).toMatch(/From 6 logged loads.*missed the beans by \d\.\d °C/);
  });

  test('says honestly when it foretells badly', () => {
    const good = fitRoaster(
      'oven',
      [1, 2, 3, 4].map((seed) => madeLoad({ parameters: TRUE, random: normals(seed) })),
    );
    const bad = fitRoaster(
      'oven',
      [0.07, 0.12, 0.2, 0.3].map((warmingPerMin) => madeLoad({ parameters: { ...TRUE, warmingPerMin } })),
    );
    expect(good.heldOut?.rmsC).toBeLessThan(2);
    expect(bad.heldOut?.rmsC).toBeGreaterThan(4 * (good.heldOut?.rmsC ?? 1));
    expect(expectLoad(bad, { massG: 5000, layerMm: null }).warming.sd).toBeGreaterThan(
      3 * expectLoad(good, { massG: 5000, layerMm: null }).warming.sd,
    );
  });
});

describe('the band of a program', () => {
  const load = { massG: 5000, layerMm: null };
  const start = { beanC: 20, moisture: 0.07 };

  test('is wide on a new roaster and narrow on a known one, and holds its middle', () => {
    const program = { steps: FALLING, preheatC: 160 };
    const known = fitRoaster(
      'oven',
      [1, 2, 3, 4, 5, 6].map((seed) => madeLoad({ parameters: TRUE, random: normals(seed) })),
    );
    const [wide, narrow] = [fitRoaster('oven', []), known].map((fit) => simulateBand(program, load, fit, start, [100]));
    const width = (band: typeof wide): number => (band?.endC.high ?? 0) - (band?.endC.low ?? 0);
    expect(width(wide)).toBeGreaterThan(2 * width(narrow));
    for (const band of [wide, narrow]) {
      expect(band?.endC.low).toBeLessThanOrEqual(band?.endC.mid ?? 0);
      expect(band?.above[0]?.minutes.high).toBeGreaterThanOrEqual(band?.above[0]?.minutes.mid ?? 0);
      expect(band?.minutes.length).toBe(band?.low.length);
    }
    expect(simulateBand(program, load, known, start)).toEqual(simulateBand(program, load, known, start));
  });

  test('its weight is no surer than weights were missed by', () => {
    const range = { mid: 0.94, low: 0.939, high: 0.941 };
    const miss = (weight: number | null) => ({
      heldOut: { n: 6, rmsC: 1, endC: 1, weight, quartersC: [1, 1, 1, 1], restC: 0.5, stretch: 1 },
    });
    expect(weightRange(range, miss(0.01))).toEqual({ mid: 0.94, low: 0.94 - 0.012816, high: 0.94 + 0.012816 });
    expect(weightRange(range, miss(0.0001))).toEqual(range);
    // Nothing weighed yet: as such roasters are missed by as a rule.
    expect(weightRange(range, { heldOut: null }).high).toBeGreaterThan(0.944);
  });

  test('a step until a bean temperature moves the end in time instead', () => {
    const program = { steps: [step(150, 60, { what: 'bean', beanC: 118 })], preheatC: 150 };
    const band = simulateBand(program, load, fitRoaster('oven', []), start);
    expect(band.totalMin.high - band.totalMin.low).toBeGreaterThan(3);
    expect(band.endC.high - band.endC.low).toBeLessThan(4);
  });
});

describe('Bayesian regression', () => {
  const prior = { mean: [0, 0], sd: [1e4, 1e4], scatter: 1, worth: 1e-6 };

  test('with a prior that knows nothing it is least squares', () => {
    const x = [0, 1, 2, 3, 4];
    const y = [1, 3.1, 4.9, 7.2, 8.8];
    const line = bayesLine(
      x.map((v) => [1, v]),
      y,
      prior,
    );
    // By hand: slope Sxy/Sxx = 19.7/10, intercept 5 − 2·1.97.
    expect(line.coefficients[1]).toBeCloseTo(1.97, 4);
    expect(line.coefficients[0]).toBeCloseTo(1.06, 4);
  });

  test('without points it is the prior', () => {
    const line = bayesLine([], [], { mean: [2], sd: [0.5], scatter: 0.3, worth: 4 });
    expect(line.coefficients).toEqual([expect.closeTo(2, 12)]);
    expect(line.scatter).toBeCloseTo(0.3, 9);
    expect(estimateAt(line, [1], true).sd).toBeCloseTo(Math.hypot(0.5, 0.3), 9);
  });
});
