import { findChange } from '../src/stats/change-point';
import { individuals, signalsOf } from '../src/stats/individuals';
import { seededChance, seededNormal } from './seeded';

describe('individuals chart', () => {
  // Montgomery, Introduction to Statistical Quality Control, table 6.6: viscosity of aircraft primer paint.
  const VISCOSITY = [
    33.75, 33.05, 34.0, 33.81, 33.46, 34.02, 33.68, 33.27, 33.49, 33.2, 33.62, 33.0, 33.54, 33.12, 33.84,
  ];

  it('has the centre and limits of the published example', () => {
    const chart = individuals(VISCOSITY);
    expect(chart?.mean).toBeCloseTo(33.52, 2);
    expect(chart?.meanRange).toBeCloseTo(0.48, 2);
    expect(chart?.upper).toBeCloseTo(34.8, 1);
    expect(chart?.lower).toBeCloseTo(32.24, 1);
    expect(chart && signalsOf(VISCOSITY, chart).every((signal) => signal === null)).toBe(true);
  });

  it('names the rule at the value where it fires', () => {
    const chart = { n: 20, mean: 0, meanRange: 1, lower: -2.66, upper: 2.66 };
    expect(signalsOf([0, 3, 0], chart)).toEqual([null, 'beyond-limits', null]);
    expect(signalsOf([-1, 1, 1, 1, 1, 1, 1, 1, 1], chart).at(-1)).toBe('eight-on-one-side');
    expect(signalsOf([0, 2, 0, 2], chart)).toEqual([null, null, null, 'two-of-three']);
  });

  it('cries out over nothing as rarely as it is known to', () => {
    const normal = seededNormal(41);
    const fired = { 'beyond-limits': 0, 'eight-on-one-side': 0, 'two-of-three': 0 };
    let looked = 0;
    for (let run = 0; run < 200; run += 1) {
      const values = Array.from({ length: 100 }, normal);
      const chart = individuals(values);
      if (!chart) throw new Error('no chart');
      for (const signal of signalsOf(values, chart)) {
        looked += 1;
        if (signal) fired[signal] += 1;
      }
    }
    // Three sigma: 0.27 % for known limits, a little more where they are estimated; eight running: 2·½⁸ = 0.78 %;
    // two of three beyond two sigma on one side: about 0.3 %.
    expect(fired['beyond-limits'] / looked).toBeGreaterThan(0.001);
    expect(fired['beyond-limits'] / looked).toBeLessThan(0.006);
    expect(fired['eight-on-one-side'] / looked).toBeLessThan(0.012);
    expect(fired['two-of-three'] / looked).toBeLessThan(0.006);
  });
});

describe('change point', () => {
  it('finds a clean step and a clean drift where they are', () => {
    const step = findChange(
      [...Array<number>(20).fill(5), ...Array<number>(15).fill(4)].map((v, i) => v + 0.01 * Math.sin(i * 7)),
    );
    expect(step).toMatchObject({ kind: 'step', at: 20, low: 20, high: 20 });
    expect(step?.change).toBeCloseTo(-1, 1);
    const drift = findChange(
      Array.from({ length: 40 }, (_, i) => (i < 25 ? 0.83 : 0.83 - 0.004 * (i - 24)) + 0.0003 * Math.sin(i * 5)),
    );
    expect(drift?.kind).toBe('drift');
    expect(Math.abs((drift?.at ?? 0) - 25)).toBeLessThanOrEqual(1);
    expect(drift?.change).toBeCloseTo(-0.06, 2);
  });

  it('is not misled by groups with levels of their own', () => {
    const groups = Array.from({ length: 48 }, (_, i) => (i < 24 ? 'a' : 'b'));
    const normal = seededNormal(8);
    const levels = groups.map((group) => (group === 'a' ? 0.83 : 0.8) + 0.004 * normal());
    expect(findChange(levels)?.kind).toBe('step');
    expect(findChange(levels, groups)).toBeNull();
  });

  it('holds its tongue over unchanged series: at most one in twenty', () => {
    const normal = seededNormal(5);
    let found = 0;
    for (let run = 0; run < 200; run += 1) if (findChange(Array.from({ length: 40 }, normal)) !== null) found += 1;
    expect(found / 200).toBeLessThan(0.05);
  });

  it('holds the true beginning in its interval at the stated rate', () => {
    const [normal, chance] = [seededNormal(17), seededChance(18)];
    let found = 0;
    let held = 0;
    for (let run = 0; run < 150; run += 1) {
      const at = 8 + Math.floor(chance() * 44);
      const kind = chance() < 0.5 ? 'step' : 'drift';
      const size = 2 + 3 * chance();
      const values = Array.from(
        { length: 60 },
        (_, i) => normal() + (i < at ? 0 : kind === 'step' ? size : (size * (i - at + 1)) / (60 - at)),
      );
      const change = findChange(values);
      if (!change) continue;
      found += 1;
      if (at >= change.low && at <= change.high) held += 1;
    }
    expect(found / 150).toBeGreaterThan(0.8);
    expect(held / found).toBeGreaterThan(0.92);
  });

  it('says nothing about too few values or none that differ', () => {
    expect(findChange([1, 2, 3])).toBeNull();
    expect(findChange(Array<number>(30).fill(2))).toBeNull();
  });
});
