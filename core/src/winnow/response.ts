import { inverse, Matrix } from 'ml-matrix';
import { percent } from '../ledger/yields';
import { fisherQuantile, studentQuantile } from '../stats/distributions';

export const DIALS = ['gapMm', 'air', 'feedKgPerHour', 'passes'] as const;
export type Dial = (typeof DIALS)[number];
export const DIAL_NAMES: Record<Dial, string> = {
  gapMm: 'roller gap',
  air: 'air',
  feedKgPerHour: 'feed',
  passes: 'passes',
};
export type Dials = Partial<Record<Dial, number | null | undefined>>;

export interface SettingPoint {
  dials: Dials;
  /** What counts: nib yield of the session, 0 to 1. */
  value: number;
}

export interface Response {
  ready: boolean;
  /** What is missing before a curve can be fitted. */
  missing: string | null;
  /** Dials that were moved enough to learn from. */
  moved: Dial[];
  best: Dials;
  /** Expected value there, with a 95 % interval of the mean. */
  expected: { mean: number; low: number; high: number } | null;
  /** Gain over the setting used last, and whether it is more than chance. */
  gain: number | null;
  proven: boolean;
  sentence: string;
}

const ENOUGH = 8;
const LEVELS = 3;

/**
 * Which setting does best: a parabola in every dial that was set at three levels or more, by least squares, looked up
 * only inside the range that was tried.
 *
 * @param points sessions on one lot family, oldest first
 */
export function fitResponse(points: readonly SettingPoint[]): Response {
  const moved = DIALS.filter(
    (dial) =>
      new Set(points.map(({ dials }) => dials[dial]).filter((v) => v !== null && v !== undefined)).size >= LEVELS,
  );
  const rows = points.filter(({ dials }) => moved.every((dial) => dials[dial] !== null && dials[dial] !== undefined));
  const nothing = { moved, best: {}, expected: null, gain: null, proven: false };
  if (moved.length === 0 || rows.length < Math.max(ENOUGH, 2 * moved.length + 4)) {
    const missing =
      moved.length === 0
        ? 'no dial was set at three levels yet'
        : `${rows.length} of ${Math.max(ENOUGH, 2 * moved.length + 4)} sessions so far`;
    return { ready: false, missing, ...nothing, sentence: `Too little to say which setting is best: ${missing}.` };
  }
  const scale = moved.map((dial) => scaleOf(rows.map(({ dials }) => dials[dial] ?? 0)));
  const line = (dials: Dials): number[] => [
    1,
    ...moved.flatMap((dial, i) => squares(((dials[dial] ?? 0) - (scale[i]?.middle ?? 0)) / (scale[i]?.half ?? 1))),
  ];
  const x = new Matrix(rows.map(({ dials }) => line(dials)));
  const y = Matrix.columnVector(rows.map(({ value }) => value));
  const xtx = x.transpose().mmul(x);
  for (let i = 0; i < xtx.rows; i += 1) xtx.set(i, i, xtx.get(i, i) + 1e-9);
  const covariance = inverse(xtx);
  const beta = covariance.mmul(x.transpose()).mmul(y);
  const residual = Matrix.sub(y, x.mmul(beta));
  const freedom = rows.length - beta.rows;
  const variance = residual.dot(residual) / freedom;
  const at = (dials: Dials): number => Matrix.rowVector(line(dials)).mmul(beta).get(0, 0);
  const spread = (row: number[]): number =>
    Math.sqrt(Math.max(0, variance * Matrix.rowVector(row).mmul(covariance).mmul(Matrix.columnVector(row)).get(0, 0)));
  const best = search(moved, scale, at);
  const t = studentQuantile(0.975, freedom);
  const half = t * spread(line(best));
  const last = rows[rows.length - 1]?.dials ?? {};
  const gain = at(best) - at(last);
  const apart = line(best).map((value, i) => value - (line(last)[i] ?? 0));
  // The best of all settings was looked for: the bound holds for every one of them at once (Scheffé).
  const searched = Math.sqrt((beta.rows - 1) * fisherQuantile(0.95, beta.rows - 1, freedom));
  const proven = gain > searched * spread(apart) && gain > 1e-6;
  const words = moved.map((dial) => `${DIAL_NAMES[dial]} ${Number((best[dial] ?? 0).toFixed(1))}`).join(', ');
  return {
    ready: true,
    missing: null,
    moved,
    best,
    expected: { mean: at(best), low: at(best) - half, high: at(best) + half },
    gain,
    proven,
    sentence: proven
      ? `Best so far: ${words}, about ${percent(at(best))} nibs, ${percent(gain)} more than the setting used last.`
      : `No setting is proven better than the one used last; the fit leans to ${words}.`,
  };
}

const squares = (value: number): [number, number] => [value, value ** 2];

function scaleOf(values: readonly number[]): { middle: number; half: number; low: number; high: number } {
  const [low, high] = [Math.min(...values), Math.max(...values)];
  return { low, high, middle: (low + high) / 2, half: Math.max(1e-9, (high - low) / 2) };
}

const STEPS = 20;

/** The best corner of a fine grid inside what was tried: dials act each on its own, so one after the other. */
function search(
  moved: readonly Dial[],
  scale: readonly { low: number; high: number; middle: number }[],
  at: (dials: Dials) => number,
): Dials {
  const best: Dials = Object.fromEntries(moved.map((dial, i) => [dial, scale[i]?.middle ?? 0]));
  moved.forEach((dial, i) => {
    const { low = 0, high = 0 } = scale[i] ?? {};
    let top = -Infinity;
    let chosen = best[dial];
    for (let step = 0; step <= STEPS; step += 1) {
      const value = low + ((high - low) * step) / STEPS;
      const found = at({ ...best, [dial]: value });
      if (found > top) [top, chosen] = [found, value];
    }
    best[dial] = chosen ?? null;
  });
  return best;
}
