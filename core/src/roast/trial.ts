import { CholeskyDecomposition, Matrix } from 'ml-matrix';
import { bayesLine, estimateAt, type Estimate } from '../stats/bayes-line';
import { normals, seeded } from '../stats/chance';

/** One roast of a plan, and what the panel has said of its loads, 0 to 10. */
export interface TriedRoast {
  peakC: number;
  minutes: number;
  /** Each tasted load made by it: the mean of its scores, and how many they are. */
  loads: readonly TastedLoad[];
}

export interface TastedLoad {
  score: number;
  tasters: number;
}

export interface TrialVerdict {
  cells: { expected: Estimate; chanceBest: number; loads: number }[];
  /** Roast to make next, and what it could gain. */
  next: { cell: number; why: string } | null;
  scored: number;
  sentence: string;
}

/** Loads of one roast differ so much, and so much one taster from the next. */
const [LOAD_SD, TASTER_SD] = [0.5, 1];
const meanSd = (tasters: number): number => Math.hypot(LOAD_SD, TASTER_SD / Math.sqrt(Math.max(1, tasters)));
/** A panel of three is what the prior speaks of. */
const PANEL_SD = meanSd(3);

/** What panels give on the mean, and how far roasts, warmth and length usually move it: wide. */
const PRIOR = { mean: [6, 0, 0, 0, 0, 0], sd: [1.5, 1, 1, 0.6, 0.6, 0.6], scatter: PANEL_SD, worth: 3 };
const DRAWS = 2000;

/**
 * Which roast suits a lot: scores over warmth and length as a shallow hill, with a prior so that three scores cannot
 * shout, and for every planned roast what to expect and how likely it is the best of them.
 *
 * @param roasts the plan; @param seed of the draws
 */
export function judgeTrial(roasts: readonly TriedRoast[], seed = 1): TrialVerdict {
  const rows = roasts.map(regressors(roasts));
  const points = roasts.flatMap(({ loads }, i) => loads.map((load) => ({ row: rows[i] ?? [], ...load })));
  // A load that fewer have tasted weighs less: both sides are brought to the scatter of a panel of three.
  const weights = points.map(({ tasters }) => PANEL_SD / meanSd(tasters));
  const line = bayesLine(
    points.map(({ row }, i) => row.map((x) => x * (weights[i] ?? 1))),
    points.map(({ score }, i) => score * (weights[i] ?? 1)),
    PRIOR,
  );
  const draws = drawn(line.coefficients, line.spread, line.scatter, line.dof, seed);
  const best = roasts.map(() => 0);
  const gain = roasts.map(() => 0);
  const expected = rows.map((row) => estimateAt(line, row, false));
  const top = Math.max(...expected.map(({ mean }) => mean));
  for (const coefficients of draws) {
    const values = rows.map((row) => row.reduce((sum, x, k) => sum + x * (coefficients[k] ?? 0), 0));
    const winner = values.indexOf(Math.max(...values));
    best[winner] = (best[winner] ?? 0) + 1 / DRAWS;
    values.forEach((value, i) => (gain[i] = (gain[i] ?? 0) + Math.max(0, value - top) / DRAWS));
  }
  const cells = roasts.map(({ loads }, i) => ({
    expected: { ...(expected[i] ?? { mean: 0, low: 0, high: 0 }) },
    chanceBest: best[i] ?? 0,
    loads: loads.length,
  }));
  return { cells, scored: points.length, ...words(cells, gain, points.length) };
}

/** One, warmth, length, their squares and their product, each brought to −1 … 1 over the plan. */
function regressors(roasts: readonly TriedRoast[]): (roast: TriedRoast) => number[] {
  const scale = (values: number[]): ((value: number) => number) => {
    const [low, high] = [Math.min(...values), Math.max(...values)];
    return (value) => (high > low ? (2 * (value - low)) / (high - low) - 1 : 0);
  };
  const warmth = scale(roasts.map(({ peakC }) => peakC));
  const length = scale(roasts.map(({ minutes }) => minutes));
  return ({ peakC, minutes }) => {
    const [w, l] = [warmth(peakC), length(minutes)];
    return [1, w, l, w * w, l * l, w * l];
  };
}

/** Draws of the coefficients: a multivariate Student's t by its Cholesky factor. */
function drawn(mean: number[], spread: number[][], scatter: number, dof: number, seed: number): number[][] {
  const normal = normals(seeded(seed));
  const factor = new CholeskyDecomposition(new Matrix(spread)).lowerTriangularMatrix;
  return Array.from({ length: DRAWS }, () => {
    const z = mean.map(normal);
    let chi = 0;
    for (let i = 0; i < dof; i += 1) chi += normal() ** 2;
    const widen = scatter / Math.sqrt(chi / dof);
    return mean.map((m, i) => m + widen * z.slice(0, i + 1).reduce((sum, v, j) => sum + v * factor.get(i, j), 0));
  });
}

function words(
  cells: TrialVerdict['cells'],
  gain: readonly number[],
  scored: number,
): Pick<TrialVerdict, 'next' | 'sentence'> {
  // What nobody has tasted does not lead, however high it is hoped to be.
  const lead = cells.reduce(
    (top, { expected, loads }, i) => (loads > 0 && expected.mean > (cells[top]?.expected.mean ?? 0) ? i : top),
    Math.max(
      0,
      cells.findIndex(({ loads }) => loads > 0),
    ),
  );
  const most = gain.indexOf(Math.max(...gain));
  const untried = cells.findIndex(({ loads }) => loads === 0);
  if (scored === 0)
    return {
      next: untried < 0 ? null : { cell: untried, why: 'Nothing is tasted yet: begin anywhere, best in the middle.' },
      sentence: 'No score yet: every roast of the plan could be the best.',
    };
  const chance = cells[lead]?.chanceBest ?? 0;
  const mean = (cells[lead]?.expected.mean ?? 0).toFixed(1);
  const range = `${(cells[lead]?.expected.low ?? 0).toFixed(1)} to ${(cells[lead]?.expected.high ?? 0).toFixed(1)}`;
  const tasted = scored === 1 ? 'one load is tasted' : `${scored} loads are tasted`;
  const sentence =
    chance >= 0.8
      ? `Roast ${lead + 1} is likely the best of them (${Math.round(100 * chance)} %), worth ${mean} (${range}); ${tasted}.`
      : `Of the roasts tasted, roast ${lead + 1} does best so far: ${mean} (${range}). That is far from sure (${Math.round(100 * chance)} % to be the best of the plan); ${tasted}.`;
  const loads = cells[most]?.loads ?? 0;
  return {
    sentence,
    next:
      chance >= 0.9
        ? null
        : {
            cell: most,
            why: `It could still gain most over what leads now (${(gain[most] ?? 0).toFixed(1)} points on the mean of what is possible)${loads === 0 ? ', and nobody has tasted it' : ''}.`,
          },
  };
}
