/** When a series left its level, how it did, and how sure that is. Indices count from 0 in the order given. */
export interface ChangePoint {
  kind: 'step' | 'drift';
  /** The first value that is no longer on the old level: the likeliest, and the ends of its 95 % interval. */
  at: number;
  low: number;
  high: number;
  /** Change from the old level to the end of the series, in the unit of the values. */
  change: number;
  /** How much better than “nothing changed”, as a difference of the Bayesian information criterion; over 0 always. */
  evidence: number;
}

/** Fewer values than this on either side say nothing about a level. */
const SHORTEST = 4;
const LEVEL = 0.95;

interface Fit {
  kind: ChangePoint['kind'];
  at: number;
  change: number;
  logWeight: number;
  sse: number;
}

/**
 * Finds where a series steps or begins to drift.
 *
 * Least squares of a level (one for each group) plus, from a change point on, a step or a straight ramp. With flat
 * priors on the levels, on the size of the change and on its place, and 1/σ on the noise, the posterior of the place
 * is known in closed form up to a constant (Smith 1975, Biometrika 62, 407–416); its smallest set holding 95 % gives
 * the interval. A change is reported only if it beats the unchanged series by the Bayesian information criterion with
 * three parameters more: size, place and kind.
 *
 * @param values in time order; @param groups what each value belongs to, where levels differ from the start
 * @returns null when nothing speaks for a change, or with fewer than eleven values
 */
export function findChange(values: readonly number[], groups: readonly string[] = []): ChangePoint | null {
  const n = values.length;
  if (n < 2 * SHORTEST + 3) return null;
  const centre = centring(n, groups);
  const y = centre.take(values);
  const still = square(y);
  if (still <= 1e-18 * n) return null;
  const freedom = n - centre.count - 1;
  if (freedom < 3) return null;
  const fits: Fit[] = [];
  for (let at = SHORTEST; at <= n - SHORTEST; at += 1) {
    for (const kind of ['step', 'drift'] as const) {
      const shape = values.map((_, i) => (i < at ? 0 : kind === 'step' ? 1 : (i - at + 1) / (n - at)));
      const z = centre.take(shape);
      const zz = square(z);
      if (zz < 1e-9) continue;
      const zy = z.reduce((sum, value, i) => sum + value * (y[i] ?? 0), 0);
      const sse = Math.max(1e-12 * still, still - zy ** 2 / zz);
      fits.push({ kind, at, change: zy / zz, sse, logWeight: -0.5 * Math.log(zz) - (freedom / 2) * Math.log(sse) });
    }
  }
  const best = fits.reduce((a, b) => (b.logWeight > a.logWeight ? b : a), fits[0] as Fit);
  if (!best) return null;
  const evidence = n * Math.log(still / best.sse) - 3 * Math.log(n);
  if (evidence <= 0) return null;
  return { kind: best.kind, at: best.at, change: best.change, evidence, ...smallestSet(fits) };
}

/** Ends of the smallest set of places that holds 95 % of the posterior, steps and drifts together. */
function smallestSet(fits: readonly Fit[]): { low: number; high: number } {
  const most = Math.max(...fits.map(({ logWeight }) => logWeight));
  const mass = new Map<number, number>();
  for (const { at, logWeight } of fits) mass.set(at, (mass.get(at) ?? 0) + Math.exp(logWeight - most));
  const total = [...mass.values()].reduce((a, b) => a + b, 0);
  let held = 0;
  const chosen: number[] = [];
  for (const [at, weight] of [...mass].sort((a, b) => b[1] - a[1])) {
    chosen.push(at);
    held += weight;
    if (held >= LEVEL * total) break;
  }
  return { low: Math.min(...chosen), high: Math.max(...chosen) };
}

const square = (values: readonly number[]): number => values.reduce((sum, value) => sum + value ** 2, 0);

/** Takes the mean of each group off. */
function centring(
  n: number,
  groups: readonly string[],
): { take: (values: readonly number[]) => number[]; count: number } {
  const of = Array.from({ length: n }, (_, i) => groups[i] ?? '');
  const names = [...new Set(of)];
  const index = of.map((name) => names.indexOf(name));
  const sizes = names.map((_, g) => index.filter((own) => own === g).length);
  return {
    count: names.length,
    take: (values) => {
      const sums = names.map(() => 0);
      values.forEach((value, i) => (sums[index[i] ?? 0] = (sums[index[i] ?? 0] ?? 0) + value));
      return values.map((value, i) => value - (sums[index[i] ?? 0] ?? 0) / (sizes[index[i] ?? 0] ?? 1));
    },
  };
}
