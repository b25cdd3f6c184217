import { z } from 'zod';
import { id, massG, massOrNoneG, text } from '../fields/fields';
import { FIGURE_IDS, FIGURES, RECIPE_KINDS, type FigureId, type RecipeKind } from './words';

/*
 * What is written down about recipes: their versions, ladders of variants, weighing runs. Only ever added to.
 */

const name = z.string().trim().min(1, 'is missing').max(80, 'is longer than 80 letters');

/** An ingredient of a recipe: `nibs` of whatever lot, `lot:…` nibs of one, or an ingredient of the pantry by its id. */
export const ingredientId = z.string().min(1, 'is missing').max(70);
export const NIBS = 'nibs';
export const lotOf = (ingredient: string): string | null =>
  ingredient.startsWith('lot:') ? ingredient.slice(4) : null;

const bound = z.number().min(0, 'cannot be below 0').max(1_000_000, 'is too much').nullable().default(null);

/** What is wanted of one figure, or of one ingredient's share: an aim, or bounds, or both. */
export const limit = z
  .object({
    /** A figure, or `share:` and an ingredient for its percent, or `grams:` and an ingredient. */
    of: z.string().min(1).max(80),
    aim: bound,
    least: bound,
    most: bound,
    /** How much an aim counts against others. */
    weight: z.number().min(0.01, 'is too little').max(100, 'is too much').default(1),
  })
  .superRefine(({ of, aim, least, most }, context) => {
    const wrong = (path: string, message: string): void => context.addIssue({ code: 'custom', path: [path], message });
    const figure = FIGURES[of as FigureId] as (typeof FIGURES)[FigureId] | undefined;
    const [kind] = of.split(':');
    if (!figure && kind !== 'share' && kind !== 'grams')
      wrong('of', `is one of ${FIGURE_IDS.join(', ')}, share:… or grams:…`);
    const top = figure ? figure.most : kind === 'share' ? 100 : 1_000_000;
    for (const [path, value] of Object.entries({ aim, least, most }))
      if (value !== null && value > top) wrong(path, `is more than ${top}`);
    if (least !== null && most !== null && least > most) wrong('least', 'is more than the most');
    if (aim !== null && least !== null && aim < least) wrong('aim', 'is less than the least');
    if (aim !== null && most !== null && aim > most) wrong('aim', 'is more than the most');
  });
export type Limit = z.infer<typeof limit>;

export const recipeLine = z.object({
  ingredient: ingredientId,
  /** In the batch that the recipe is written for; 0: may be used, and is not at the moment. */
  grams: massOrNoneG,
  /** When it goes in, minutes after the stones start; null: as usual for its kind. */
  atMinutes: z.number().min(0, 'cannot be below 0').max(10_080, 'is more than a week').nullable().default(null),
  /** In how many portions it goes in; null: as usual. */
  portions: z
    .number()
    .int('must be whole')
    .min(1, 'must be at least 1')
    .max(60, 'is too many')
    .nullable()
    .default(null),
});
export type RecipeLine = z.infer<typeof recipeLine>;

export const recipe = z
  .object({
    name,
    kind: z.enum(Object.keys(RECIPE_KINDS) as [RecipeKind, ...RecipeKind[]]),
    /** What the label calls it, % cocoa. */
    labelPct: z.number().min(0, 'cannot be below 0').max(100, 'is more than all of it').nullable().default(null),
    routeId: id.nullable().default(null),
    machineId: id.nullable().default(null),
    targetMicron: z.number().min(5, 'is finer than any stone').max(200, 'is coarser than a grit').default(20),
    lines: z.array(recipeLine).min(1, 'needs an ingredient').max(30, 'are too many'),
    limits: z.array(limit).max(40, 'are too many').default([]),
    /** The smallest step of the scale it is weighed on. */
    stepG: z.number().min(0.001, 'is finer than any scale').max(1000, 'is coarser than any scale').default(1),
    note: text(2000),
  })
  .superRefine(({ lines, limits }, context) => {
    const twice = <T>(rows: readonly T[], of: (row: T) => string, path: string, word: string): void => {
      const seen = new Set<string>();
      rows.forEach((row, index) => {
        if (seen.has(of(row)))
          context.addIssue({ code: 'custom', path: [path, index, word], message: 'is named twice' });
        seen.add(of(row));
      });
    };
    twice(lines, (row) => row.ingredient, 'lines', 'ingredient');
    twice(limits, (row) => row.of, 'limits', 'of');
  });
export type Recipe = z.infer<typeof recipe>;

export const plannedLine = z.object({
  ingredient: ingredientId,
  grams: massG,
});

const weighingId = id;
export const recipeRecord = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('recipe'), recipeId: id, version: z.number().int().min(1), recipe, why: text(300) }),
  z.object({ kind: z.literal('shelved'), recipeId: id, shelved: z.boolean() }),
  /** Variants on one lot, side by side, that end in a tasting. */
  z.object({
    kind: z.literal('ladder'),
    ladderId: id,
    recipeId: id,
    name,
    /** What is varied, in words. */
    what: text(120),
    arms: z
      .array(z.object({ name, machineId: id.nullable().default(null), lines: z.array(plannedLine).min(1).max(30) }))
      .min(2, 'needs two to compare')
      .max(5, 'has more than five'),
  }),
  /** A batch is an arm of a ladder. */
  z.object({ kind: z.literal('ladder-batch'), ladderId: id, arm: z.number().int().min(0).max(4), batchId: id }),
  /** A batch, or an addition to one, is weighed together. */
  z.object({
    kind: z.literal('weighing'),
    weighingId,
    /** By which version of a recipe; null for an addition that a correction asks for. */
    recipe: z.object({ id, version: z.number().int().min(1) }).nullable(),
    name,
    /** The bowl it is added to; null: it begins a batch. */
    batchId: id.nullable(),
    machineId: id.nullable(),
    routeId: id.nullable(),
    targetMicron: z.number().min(5).max(200),
    stepG: z.number().min(0.001).max(1000),
    /** How far off a weighing may be, % of what is planned of it. */
    tolerancePct: z.number().min(0.05, 'is finer than anybody weighs').max(20, 'is too much').default(1),
    lines: z.array(plannedLine).min(1).max(30),
    ladder: z
      .object({ id, arm: z.number().int().min(0).max(4) })
      .nullable()
      .default(null),
  }),
  /** So much of a tub went into the weighing. */
  z.object({
    kind: z.literal('weighed'),
    weighingId,
    ingredient: ingredientId,
    holdingId: id,
    massG,
    by: z.enum(['scale', 'hand']),
  }),
  /** The newest weighing is taken back. */
  z.object({ kind: z.literal('unweighed'), weighingId, recordId: id }),
  /** What is still to be weighed is worked out again. */
  z.object({ kind: z.literal('replanned'), weighingId, lines: z.array(plannedLine).min(1).max(30), why: text(300) }),
  z.object({ kind: z.literal('weighing-ended'), weighingId, stepId: id.nullable() }),
]);
export type RecipeRecordValue = z.infer<typeof recipeRecord>;

export interface RecipeRecord {
  id: string;
  at: number;
  recordedAt: number;
  personId: string;
  value: RecipeRecordValue;
}
