import type { Factor, TrialPlan } from '../trials/records';
import type { TrialVerdict } from '../trials/judge';

/** Something made as an arm of a trial. */
export interface MadeView {
  arm: number;
  code: string;
  link: string;
  at: number;
  scores: number[];
  /** What the book says of what was varied, in the order of the factors; null: not logged. */
  really: (number | string | null)[];
}

export interface TrialView {
  id: string;
  at: number;
  person: string;
  /** Where it is looked at and added to. */
  link: string;
  trial: TrialPlan;
  /** Levels in words, by arm. */
  arms: string[];
  made: MadeView[];
  verdict: TrialVerdict;
  /** Blind sessions that were its panel. */
  sessions: { id: string; name: string; state: string }[];
}

/** What is usual here of what can be varied. */
export type UsualLevels = Partial<Record<Factor, { middle: number; low: number; high: number }>>;
