import type { Estimate } from '../stats/bayes-line';
import { judgeArms, type TastedMade } from '../trials/judge';
import type { TrialPlan } from '../trials/records';

/** One roast of a plan, and what the panel has said of its loads, 0 to 10. */
export interface TriedRoast {
  peakC: number;
  minutes: number;
  /** Each tasted load made by it: the mean of its scores, and how many they are. */
  loads: readonly TastedMade[];
}

export interface RoastTrialVerdict {
  cells: { expected: Estimate; chanceBest: number; loads: number }[];
  /** Roast to make next, and what it could gain. */
  next: { cell: number; why: string } | null;
  scored: number;
  sentence: string;
}

const distinct = (values: readonly number[]): number[] => [...new Set(values)].sort((a, b) => a - b);

/** A plan of roasts as a trial of warmth and length. */
export const roastFactors = (roasts: readonly Pick<TriedRoast, 'peakC' | 'minutes'>[]): TrialPlan['factors'] => [
  { factor: 'peakC', levels: distinct(roasts.map(({ peakC }) => peakC)) },
  { factor: 'roastMin', levels: distinct(roasts.map(({ minutes }) => minutes)) },
];
export const ROAST_WORDS = { arm: (index: number) => `roast ${index + 1}`, one: 'load', many: 'loads' };

/**
 * Which roast suits a lot: a trial of warmth and length.
 *
 * @param roasts the plan; @param seed of the draws
 */
export function judgeTrial(roasts: readonly TriedRoast[], seed = 1): RoastTrialVerdict {
  const verdict = judgeArms(
    roastFactors(roasts),
    roasts.map(({ peakC, minutes, loads }) => ({ levels: [peakC, minutes], made: loads })),
    ROAST_WORDS,
    seed,
  );
  return {
    cells: verdict.arms.map(({ expected, chanceBest, made }) => ({ expected, chanceBest, loads: made })),
    next: verdict.next === null ? null : { cell: verdict.next.arm, why: verdict.next.why },
    scored: verdict.scored,
    sentence: verdict.sentence,
  };
}
