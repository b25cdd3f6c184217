import type { MassSystem } from '../units/mass';
import type { Named } from './conflict';
import type { Ingredient, RecipeFigures } from './ingredient';
import type { Limit } from './records';

/** An ingredient that the recipe may use, and how much of it there can be. */
export interface Choice {
  ingredient: Ingredient;
  /** Free in the house; null: as much as is wanted. */
  stockG: number | null;
  /** In the bowl already: exactly so much stays, none is added. */
  fixedG?: number | undefined;
  /** In the bowl already, and more of it may be added. */
  thereG?: number | undefined;
}

export type Size = { grams: number } | 'most' | 'least';

export interface Question {
  choices: readonly Choice[];
  limits: readonly Limit[];
  /** What the machine really takes; null: no bound. */
  leastG: number | null;
  mostG: number | null;
  machine: string;
  size: Size;
  stepG: number;
  currency: string;
  /** In which weights are spoken of; left out, metric. */
  massSystem?: MassSystem | undefined;
}

/** One aim or bound, and what became of it. */
export interface Kept extends Named {
  of: string;
  side: 'aim' | 'least' | 'most';
  wanted: number;
  /** Before rounding to the scale's step, and after. */
  exact: number;
  rounded: number;
  kept: boolean;
}

export interface Answer {
  /** `met`: all of it; `near`: some aim is missed; `contradiction`: bounds contradict each other. */
  outcome: 'met' | 'near' | 'contradiction';
  /** The nearest there is; empty where even that cannot be. */
  lines: { id: string; grams: number; exactG: number }[];
  figures: RecipeFigures | null;
  kept: Kept[];
  /** Limits that contradict each other: without any one of them the others of the set can be kept. */
  conflict: Named[];
  /** Further sets of the same kind that have no limit in common with the first. */
  further: Named[][];
  /** Each single limit that would be enough to give up; where none is, the fewest that together are. */
  giveUp: Named[][];
  /** What rounding, small stocks and the like mean, in sentences. */
  notes: string[];
}
