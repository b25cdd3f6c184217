import fc from 'fast-check';
import { judgeYield } from '../src/ledger/yields';
import { yieldOf } from '../src/stations';
import { individuals, signalAtEnd } from '../src/stats/individuals';

test('individuals chart by hand: mean 10, mean moving range 2, limits 10 ± 5.32', () => {
  const chart = individuals([9, 11, 9, 11]);
  expect(chart).toMatchObject({ n: 4, mean: 10, meanRange: 2 });
  expect(chart?.lower).toBeCloseTo(4.68, 10);
  expect(chart?.upper).toBeCloseTo(15.32, 10);
  expect(individuals([1])).toBeNull();
});

test('each rule fires on its own pattern and not before', () => {
  const chart = { n: 20, mean: 10, meanRange: 1, lower: 7.34, upper: 12.66 };
  expect(signalAtEnd([10, 12.7], chart)).toBe('beyond-limits');
  expect(signalAtEnd([10.1, 10.1, 10.1, 10.1, 10.1, 10.1, 10.1], chart)).toBeNull();
  expect(signalAtEnd([10.1, 10.1, 10.1, 10.1, 10.1, 10.1, 10.1, 10.1], chart)).toBe('eight-on-one-side');
  expect(signalAtEnd([12, 9, 12], chart)).toBe('two-of-three');
  expect(signalAtEnd([12, 9, 10], chart)).toBeNull();
});

test('limits hold about 99.7 % of normal readings', () => {
  let inside = 0;
  let all = 0;
  fc.assert(
    fc.property(
      fc.array(fc.double({ min: 1e-9, max: 1 - 1e-9, noNaN: true }), { minLength: 400, maxLength: 400 }),
      (u) => {
        const z = u.flatMap((v, i) =>
          i % 2 ? [] : [Math.sqrt(-2 * Math.log(v)) * Math.cos(2 * Math.PI * (u[i + 1] ?? 0.5))],
        );
        const chart = individuals(z);
        if (!chart) return;
        all += z.length;
        inside += z.filter((v) => v >= chart.lower && v <= chart.upper).length;
      },
    ),
    { numRuns: 60, seed: 5 },
  );
  expect(all).toBeGreaterThan(5000);
  expect(inside / all).toBeGreaterThan(0.9);
});

test('without history the trade’s range speaks, and says so', () => {
  const verdict = judgeYield(yieldOf('winnow'), 0.82, [0.8, 0.81], 'Fiji');
  expect(verdict).toMatchObject({ tone: 'good', chart: null });
  expect(verdict.evidence).toContain('Only 2 earlier');
  expect(judgeYield(yieldOf('winnow'), 0.7, [], 'Fiji')).toMatchObject({ tone: 'watch' });
  expect(judgeYield(yieldOf('winnow'), 0.7, [], 'Fiji').todo).toContain('husk');
});

test('with history the maker’s own limits speak', () => {
  const past = [0.82, 0.83, 0.82, 0.83, 0.82, 0.83, 0.82, 0.83];
  expect(judgeYield(yieldOf('winnow'), 0.826, past, 'Fiji').tone).toBe('good');
  const low = judgeYield(yieldOf('winnow'), 0.76, past, 'Fiji');
  expect(low).toMatchObject({ tone: 'watch', signal: 'beyond-limits' });
  expect(low.todo).toContain('husk');
  expect(judgeYield(yieldOf('winnow'), 0.9, past, 'Fiji').todo).toContain('Shell');
});
