import type { Answer } from '../recipe/question';
import type { CarriedOver } from '../composition/carry-over';
import type { OriginVerdict } from '../composition/composition';
import type { Change } from '../recipe/compare';
import type { SackLeft } from '../recipe/forward';
import type { Bowlful, LabelVerdict } from '../recipe/correct';
import type { Ingredient, RecipeFigures } from '../recipe/ingredient';
import type { Recipe } from '../recipe/records';
import type { StockLine } from '../recipe/stock';
import type { WeighingLine } from '../recipe/weighing';
import type { RecipeKind } from '../recipe/words';

/* What the recipe room answers. Grams and percent; money in milli; times in UTC ms. */

/** What beans still have to become before they are nibs, as this workshop does it. */
export interface LotYield {
  /** Nibs of a kilogram of green beans. */
  nibsPerKg: { mean: number; low: number; high: number };
  /** Roasted at once, g, and what a sack holds. */
  loadG: number;
  sackG: number | null;
  /** Sacks that were weighed one by one and have beans left. */
  sacks: SackLeft[];
  greenG: number;
}

export interface PantryRow extends Ingredient {
  stock: StockLine[];
  stockG: number;
  /** For nibs of a lot that is still beans, at least in part. */
  lot: LotYield | null;
}

export interface PantryView {
  rows: PantryRow[];
  /** The bar that is usual here, g. */
  barG: number;
  /** Flow of finished batches, the newest last, to hold a recipe against. */
  pastFlow: { code: string; name: string; flow: number; cocoaPct: number; kind: string }[];
}

export interface RecipeRow {
  id: string;
  name: string;
  kind: RecipeKind;
  version: number;
  labelPct: number | null;
  cocoaPct: number;
  withoutButterPct: number;
  shelved: boolean;
  batches: number;
  lastAt: number | null;
  score: number | null;
  at: number;
}

/** A batch that was weighed by a version of a recipe. */
export interface RecipeBatch {
  id: string;
  code: string;
  name: string;
  startedAt: number;
  /** What it was called, and what it is by the arithmetic. */
  calledPct: number | null;
  cocoaPct: number;
  withoutButterPct: number;
  flow: number | null;
  perKgMilli: number | null;
  score: number | null;
  scores: number;
}

export interface RecipeVersionView {
  version: number;
  at: number;
  person: string;
  why: string;
  recipe: Recipe;
  figures: RecipeFigures;
  /** Against the version before, in words. */
  changes: string[];
  effects: Change[];
  batches: RecipeBatch[];
}

export interface LadderView {
  id: string;
  name: string;
  what: string;
  at: number;
  person: string;
  arms: {
    name: string;
    machine: string | null;
    machineId: string | null;
    lines: { ingredient: string; name: string; grams: number }[];
    figures: RecipeFigures;
    batch: RecipeBatch | null;
  }[];
  /** What it says so far. */
  sentence: string;
}

export interface RecipeView {
  id: string;
  shelved: boolean;
  /** Newest first. */
  versions: RecipeVersionView[];
  ladders: LadderView[];
}

/** What a bowl is now, and what its label says. */
export interface BowlView {
  batchId: string;
  code: string;
  name: string;
  bowl: Bowlful;
  figures: RecipeFigures;
  labelPct: number | null;
  label: LabelVerdict | null;
  origin: OriginVerdict;
  recipe: { id: string; version: number; name: string } | null;
  carriedOver: CarriedOver[];
  /** Grams of cacao in it, by lot. */
  cacaoG: number;
}

export interface WeighingView {
  id: string;
  name: string;
  recipe: { id: string; version: number; name: string } | null;
  batchCode: string | null;
  machine: string | null;
  person: string;
  startedAt: number;
  endedAt: number | null;
  stepId: string | null;
  stepBatchCode: string | null;
  stepG: number;
  lines: (WeighingLine & {
    name: string;
    allergens: readonly string[];
    /** What it can be taken from, the first to be used first. */
    stock: StockLine[];
    weighed: { recordId: string; code: string; massG: number; by: 'scale' | 'hand'; person: string; at: number }[];
  })[];
  plannedG: number;
  weighedG: number;
  /** What is on the bench, as it is. */
  figures: RecipeFigures;
  /** What it will be when the rest is weighed as planned. */
  planned: RecipeFigures;
  labelPct: number | null;
  replanned: string[];
}

/** Grams for what was wanted, and out of which holdings they come. */
export interface SolvedRecipe extends Omit<Answer, 'lines'> {
  lines: (Answer['lines'][number] & { from: { code: string; holdingId: string; grams: number }[] })[];
}
