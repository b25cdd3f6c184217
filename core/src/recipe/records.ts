import { z } from 'zod/mini';
import { id, massG, massOrNoneG, text } from '../fields/fields';
import { FIGURE_IDS, FIGURES, RECIPE_KINDS, type FigureId, type RecipeKind } from './words';

/*
 * What is written down about recipes: their versions, ladders of variants, weighing runs. Only ever added to.
 */

const name = z.string().check(z.trim(), z.minLength(1, 'is missing'), z.maxLength(80, 'is longer than 80 letters'));

/** An ingredient of a recipe: `nibs` of whatever lot, `lot:…` nibs of one, or an ingredient of the pantry by its id. */
export const ingredientId = z.string().check(z.minLength(1, 'is missing'), z.maxLength(70));
export const NIBS = 'nibs';
export const lotOf = (ingredient: string): string | null =>
  ingredient.startsWith('lot:') ? ingredient.slice(4) : null;

const bound = z._default(
  z.nullable(z.number().check(z.minimum(0, 'cannot be below 0'), z.maximum(1_000_000, 'is too much'))),
  null,
);

/** What is wanted of one figure, or of one ingredient's share: an aim, or bounds, or both. */
export const limit = z
  .object({
    /** A figure, or `share:` and an ingredient for its percent, or `grams:` and an ingredient. */
    of: z.string().check(z.minLength(1), z.maxLength(80)),
    aim: bound,
    least: bound,
    most: bound,
    /** How much an aim counts against others. */
    weight: z._default(z.number().check(z.minimum(0.01, 'is too little'), z.maximum(100, 'is too much')), 1),
  })
  .check(
    z.superRefine(({ of, aim, least, most }, context) => {
      const wrong = (path: string, message: string): void =>
        context.addIssue({ code: 'custom', path: [path], message });
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
    }),
  );
export type Limit = z.infer<typeof limit>;

export const recipeLine = z.object({
  ingredient: ingredientId,
  /** In the batch that the recipe is written for; 0: may be used, and is not at the moment. */
  grams: massOrNoneG,
  /** When it goes in, minutes after the stones start; null: as usual for its kind. */
  atMinutes: z._default(
    z.nullable(z.number().check(z.minimum(0, 'cannot be below 0'), z.maximum(10_080, 'is more than a week'))),
    null,
  ),
  /** In how many portions it goes in; null: as usual. */
  portions: z._default(
    z.nullable(
      z.number().check(z.int('must be whole'), z.minimum(1, 'must be at least 1'), z.maximum(60, 'is too many')),
    ),
    null,
  ),
});
export type RecipeLine = z.infer<typeof recipeLine>;

export const recipe = z
  .object({
    name,
    kind: z.enum(Object.keys(RECIPE_KINDS) as [RecipeKind, ...RecipeKind[]]),
    /** What the label calls it, % cocoa. */
    labelPct: z._default(
      z.nullable(z.number().check(z.minimum(0, 'cannot be below 0'), z.maximum(100, 'is more than all of it'))),
      null,
    ),
    routeId: z._default(z.nullable(id), null),
    machineId: z._default(z.nullable(id), null),
    targetMicron: z._default(
      z.number().check(z.minimum(5, 'is finer than any stone'), z.maximum(200, 'is coarser than a grit')),
      20,
    ),
    lines: z.array(recipeLine).check(z.minLength(1, 'needs an ingredient'), z.maxLength(30, 'are too many')),
    limits: z._default(z.array(limit).check(z.maxLength(40, 'are too many')), []),
    /** The smallest step of the scale it is weighed on. */
    stepG: z._default(
      z.number().check(z.minimum(0.001, 'is finer than any scale'), z.maximum(1000, 'is coarser than any scale')),
      1,
    ),
    note: text(2000),
  })
  .check(
    z.superRefine(({ lines, limits }, context) => {
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
    }),
  );
export type Recipe = z.infer<typeof recipe>;

export const plannedLine = z.object({
  ingredient: ingredientId,
  grams: massG,
});

const weighingId = id;
export const recipeRecord = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('recipe'),
    recipeId: id,
    version: z.number().check(z.int(), z.minimum(1)),
    recipe,
    why: text(300),
  }),
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
      .array(
        z.object({
          name,
          machineId: z._default(z.nullable(id), null),
          lines: z.array(plannedLine).check(z.minLength(1), z.maxLength(30)),
        }),
      )
      .check(z.minLength(2, 'needs two to compare'), z.maxLength(5, 'has more than five')),
  }),
  /** A batch is an arm of a ladder. */
  z.object({
    kind: z.literal('ladder-batch'),
    ladderId: id,
    arm: z.number().check(z.int(), z.minimum(0), z.maximum(4)),
    batchId: id,
  }),
  /** A batch, or an addition to one, is weighed together. */
  z.object({
    kind: z.literal('weighing'),
    weighingId,
    /** By which version of a recipe; null for an addition that a correction asks for. */
    recipe: z.nullable(z.object({ id, version: z.number().check(z.int(), z.minimum(1)) })),
    name,
    /** The bowl it is added to; null: it begins a batch. */
    batchId: z.nullable(id),
    machineId: z.nullable(id),
    routeId: z.nullable(id),
    targetMicron: z.number().check(z.minimum(5), z.maximum(200)),
    stepG: z.number().check(z.minimum(0.001), z.maximum(1000)),
    /** How far off a weighing may be, % of what is planned of it. */
    tolerancePct: z._default(
      z.number().check(z.minimum(0.05, 'is finer than anybody weighs'), z.maximum(20, 'is too much')),
      1,
    ),
    lines: z.array(plannedLine).check(z.minLength(1), z.maxLength(30)),
    ladder: z._default(z.nullable(z.object({ id, arm: z.number().check(z.int(), z.minimum(0), z.maximum(4)) })), null),
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
  z.object({
    kind: z.literal('replanned'),
    weighingId,
    lines: z.array(plannedLine).check(z.minLength(1), z.maxLength(30)),
    why: text(300),
  }),
  z.object({ kind: z.literal('weighing-ended'), weighingId, stepId: z.nullable(id) }),
]);
export type RecipeRecordValue = z.infer<typeof recipeRecord>;

export interface RecipeRecord {
  id: string;
  at: number;
  recordedAt: number;
  personId: string;
  value: RecipeRecordValue;
}
