import { CholeskyDecomposition, Matrix } from 'ml-matrix';
import { bayesLine, estimateAt, type Estimate } from '../stats/bayes-line';
import { normals, seeded } from '../stats/chance';
import { regressorsOf } from './design';
import type { Level, TrialPlan } from './records';

/** Something made of an arm that was tasted. */
export interface TastedMade {
  /** Mean of the panel, 0 to 10. */
  score: number;
  tasters: number;
}

export interface ArmVerdict {
  expected: Estimate;
  chanceBest: number;
  /** How many of it were tasted. */
  made: number;
}

export interface TrialVerdict {
  arms: ArmVerdict[];
  /** What to make next, and what it could gain; null: it would change little. */
  next: { arm: number; gain: number; why: string } | null;
  scored: number;
  sentence: string;
}

/** What an arm and what is made of it are called. */
export interface TrialWords {
  arm: (index: number) => string;
  one: string;
  many: string;
}

/** What is made of one arm differs so much, and so much one taster from the next. */
const [MADE_SD, TASTER_SD] = [0.5, 1];
const meanSd = (tasters: number): number => Math.hypot(MADE_SD, TASTER_SD / Math.sqrt(Math.max(1, tasters)));
/** A panel of three is what the prior speaks of. */
const PANEL_SD = meanSd(3);
/** What panels give on the mean, and how far things usually move it: wide. */
const PRIOR_MEAN = 6;
const PRIOR_SD: Readonly<Record<string, number>> = { one: 1.5, linear: 1, square: 0.6, product: 0.6, kind: 1 };
const DRAWS = 2000;

/**
 * What the facts of a trial say so far: scores over its factors as a shallow hill, with a prior so that three scores
 * cannot shout; for every arm what to expect and how likely it is the best; what to make next, by the gain to expect.
 *
 * @param arms levels in the order of the factors, with all that was tasted of each; @param seed of the draws
 */
export function judgeArms(
  factors: TrialPlan['factors'],
  arms: readonly { levels: readonly Level[]; made: readonly TastedMade[] }[],
  words: TrialWords,
  seed = 1,
): TrialVerdict {
  const { names, row } = regressorsOf(factors);
  const rows = arms.map(({ levels }) => row(levels));
  const points = arms.flatMap(({ made }, i) => made.map((one) => ({ row: rows[i] ?? [], ...one })));
  // What fewer have tasted weighs less: both sides are brought to the scatter of a panel of three.
  const weights = points.map(({ tasters }) => PANEL_SD / meanSd(tasters));
  const line = bayesLine(
    points.map((point, i) => point.row.map((x) => x * (weights[i] ?? 1))),
    points.map(({ score }, i) => score * (weights[i] ?? 1)),
    {
      mean: names.map((name) => (name === 'one' ? PRIOR_MEAN : 0)),
      sd: names.map((name) => PRIOR_SD[name] ?? 1),
      scatter: PANEL_SD,
      worth: 3,
    },
  );
  const draws = drawn(line.coefficients, line.spread, line.scatter, line.dof, seed);
  const best = arms.map(() => 0);
  const gain = arms.map(() => 0);
  const expected = rows.map((at) => estimateAt(line, at, false));
  const top = Math.max(...expected.map(({ mean }) => mean));
  for (const coefficients of draws) {
    const values = rows.map((at) => at.reduce((sum, x, k) => sum + x * (coefficients[k] ?? 0), 0));
    const winner = values.indexOf(Math.max(...values));
    best[winner] = (best[winner] ?? 0) + 1 / DRAWS;
    values.forEach((value, i) => (gain[i] = (gain[i] ?? 0) + Math.max(0, value - top) / DRAWS));
  }
  const read = arms.map(({ made }, i) => ({
    expected: { ...(expected[i] ?? { mean: 0, low: 0, high: 0 }) },
    chanceBest: best[i] ?? 0,
    made: made.length,
  }));
  return { arms: read, scored: points.length, ...said(read, gain, points.length, words) };
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

const upper = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

function said(
  arms: readonly ArmVerdict[],
  gain: readonly number[],
  scored: number,
  { arm: nameOf, one, many }: TrialWords,
): Pick<TrialVerdict, 'next' | 'sentence'> {
  // What nobody has tasted does not lead, however high it is hoped to be.
  const lead = arms.reduce(
    (top, { expected, made }, i) => (made > 0 && expected.mean > (arms[top]?.expected.mean ?? 0) ? i : top),
    Math.max(
      0,
      arms.findIndex(({ made }) => made > 0),
    ),
  );
  const most = gain.indexOf(Math.max(...gain));
  const untried = arms.findIndex(({ made }) => made === 0);
  if (scored === 0)
    return {
      next:
        untried < 0
          ? null
          : { arm: untried, gain: 0, why: 'Nothing is tasted yet: begin anywhere, best in the middle.' },
      sentence: `No score yet: every ${many === 'loads' ? 'roast' : 'arm'} of the plan could be the best.`,
    };
  const chance = arms[lead]?.chanceBest ?? 0;
  const mean = (arms[lead]?.expected.mean ?? 0).toFixed(1);
  const range = `${(arms[lead]?.expected.low ?? 0).toFixed(1)} to ${(arms[lead]?.expected.high ?? 0).toFixed(1)}`;
  const tasted = scored === 1 ? `one ${one} is tasted` : `${scored} ${many} are tasted`;
  const of = many === 'loads' ? 'roasts' : 'arms';
  const sentence =
    chance >= 0.8
      ? `${upper(nameOf(lead))} is likely the best of them (${Math.round(100 * chance)} %), worth ${mean} (${range}); ${tasted}.`
      : `Of the ${of} tasted, ${nameOf(lead)} does best so far: ${mean} (${range}). That is far from sure (${Math.round(100 * chance)} % to be the best of the plan); ${tasted}.`;
  const made = arms[most]?.made ?? 0;
  return {
    sentence,
    next:
      chance >= 0.9
        ? null
        : {
            arm: most,
            gain: gain[most] ?? 0,
            why: `It could still gain most over what leads now (${(gain[most] ?? 0).toFixed(1)} points on the mean of what is possible)${made === 0 ? ', and nobody has tasted it' : ''}.`,
          },
  };
}

/**
 * The arm that something was really nearest to, by the range of each factor; its own where it is as near.
 *
 * @param own the arm it was meant as; @param really what the book says, in the order of the factors; null: not logged
 */
export function nearestArm(
  { factors, arms }: Pick<TrialPlan, 'factors' | 'arms'>,
  own: number,
  really: readonly (number | string | null)[],
): number {
  const off = (arm: readonly Level[]): number =>
    factors.reduce((sum, { levels }, f) => {
      const [value, level] = [really[f], arm[f]];
      if (typeof value !== 'number' || typeof level !== 'number') return sum;
      const figures = levels.map(Number);
      const range = Math.max(...figures) - Math.min(...figures);
      return sum + (range > 0 ? ((value - level) / range) ** 2 : 0);
    }, 0);
  return arms.reduce((best, arm, i) => (off(arm) < off(arms[best] ?? []) - 1e-9 ? i : best), own);
}
