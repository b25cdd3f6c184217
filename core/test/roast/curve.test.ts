import { clean, curveOf, smooth } from '../../src/roast/curve';
import { gapsOf, usualEvery } from '../../src/run/gaps';
import { seededNormal } from '../seeded';

const second = (n: number, f: (s: number) => number, every = 1) =>
  curveOf(Array.from({ length: n }, (_, i) => [i * every, f(i * every), NaN] as const));
const smoothed = (n: number, f: (s: number) => number, every = 1) => smooth(clean(second(n, f, every)));

describe('smoothing and climb', () => {
  test('a parabola comes through unchanged, its slope exact, to the very ends', () => {
    // T = 20 + 9 t − 0.1 t² (t in minutes): climb 9 − 0.2 t.
    const curve = smoothed(1200, (s) => 20 + (9 * s) / 60 - 0.1 * (s / 60) ** 2);
    curve.seconds.forEach((s, i) => {
      expect(curve.beanC[i]).toBeCloseTo(20 + (9 * s) / 60 - 0.1 * (s / 60) ** 2, 6);
      expect(curve.climb[i]).toBeCloseTo(9 - (0.2 * s) / 60, 5);
    });
  });

  test('an exponential approach: the climb is the slope within a hundredth', () => {
    const curve = smoothed(1500, (s) => 130 - 110 * Math.exp((-0.15 * s) / 60));
    curve.seconds.forEach((s, i) => expect(curve.climb[i]).toBeCloseTo(110 * 0.15 * Math.exp((-0.15 * s) / 60), 1));
  });

  test('a slow sine keeps its height; noise of half a degree leaves a climb within 1 °C/min', () => {
    const normal = seededNormal(4);
    const wave = (s: number): number => 100 + 5 * Math.sin((2 * Math.PI * s) / 600);
    const quiet = smoothed(1200, wave);
    expect(Math.max(...quiet.beanC)).toBeCloseTo(105, 1);
    const noisy = smoothed(1200, (s) => wave(s) + 0.5 * normal());
    let squares = 0;
    noisy.seconds.forEach((s, i) => {
      const exact = (60 * 5 * 2 * Math.PI * Math.cos((2 * Math.PI * s) / 600)) / 600;
      squares += ((noisy.climb[i] ?? 0) - exact) ** 2;
    });
    expect(Math.sqrt(squares / noisy.seconds.length)).toBeLessThan(1);
  });

  test('any interval of a logger will do', () => {
    for (const every of [0.5, 2, 7.5]) {
      const curve = smoothed(Math.round(1200 / every), (s) => 20 + (6 * s) / 60, every);
      expect(usualEvery(curve.seconds)).toBeCloseTo(every, 9);
      curve.climb.forEach((perMin) => expect(perMin).toBeCloseTo(6, 6));
    }
  });

  test('nothing is smoothed across a gap', () => {
    const rows = Array.from({ length: 600 }, (_, s) => [s, 20 + s / 10, NaN] as const);
    const curve = smooth(clean(curveOf(rows.filter(([s]) => s < 200 || s > 290))));
    const at = (s: number): number => curve.beanC[curve.seconds.findIndex((x) => x === s)] ?? 0;
    expect(at(150)).toBeCloseTo(35, 6);
    expect(at(240)).toBeNaN();
    expect(at(400)).toBeCloseTo(60, 6);
  });

  test('two readings are too few to smooth, and no readings are no curve', () => {
    expect([...smoothed(2, (s) => 20 + s).beanC]).toEqual([20, 21]);
    expect(smooth(clean(curveOf([]))).seconds).toHaveLength(0);
  });
});

describe('what a probe gets wrong', () => {
  const normal = seededNormal(8);
  const rising = (s: number): number => 20 + 100 * (1 - Math.exp(-s / 400)) + 0.3 * normal();

  test('a clean curve has no gap, no slip, and was never stuck', () => {
    expect(clean(second(1500, rising))).toMatchObject({ gaps: [], slips: [], stuck: [] });
  });

  test('single readings that no bean can do are taken out, and named', () => {
    const curve = second(900, rising);
    curve.beanC[300] = 21;
    curve.beanC[301] = 400;
    curve.beanC[700] = 0;
    const cleaned = clean(curve);
    expect(cleaned.slips.map((slip) => slip.second)).toEqual([300, 301, 700]);
    expect(cleaned.beanC[301]).toBeNaN();
    expect(smooth(cleaned).beanC[301]).toBeCloseTo(20 + 100 * (1 - Math.exp(-301 / 400)), 0);
  });

  test('a probe that is pulled out is a gap, also when the curve ends in it', () => {
    const curve = second(900, (s) => ((s > 400 && s < 460) || s > 880 ? NaN : rising(s)));
    expect(clean(curve).gaps).toEqual([
      { fromS: 400, toS: 460 },
      { fromS: 880, toS: 899 },
    ]);
    // Five usual steps of a slow logger are no gap.
    expect(gapsOf([0, 30, 60, 150, 180], [1, 2, 3, 4, 5])).toEqual([]);
    expect(gapsOf([0, 30, 60, 240, 270], [1, 2, 3, 4, 5])).toEqual([{ fromS: 60, toS: 240 }]);
  });

  test('a stuck probe says the very same for most of a minute', () => {
    const curve = second(900, (s) => (s >= 500 && s <= 560 ? 88.4 : rising(s)));
    expect(clean(curve).stuck).toEqual([{ fromS: 500, toS: 560 }]);
  });
});
