import { z } from 'zod/mini';
import { text } from '../fields/fields';
import { windows } from './windows';

/* What is written down about tempering beside the grams. Only ever added to. */

/** What own windows are of: a recipe by its id, or bars by their name where they are made by none. */
export const subjectOf = (recipeId: string | null, name: string): string =>
  recipeId === null ? `bar:${name}` : `recipe:${recipeId}`;

export const temperRecord = z.discriminatedUnion('kind', [
  /** Own windows of a recipe or a bar; null: the usual ones again. */
  z.object({
    kind: z.literal('windows'),
    of: z.string().check(z.minLength(1), z.maxLength(120)),
    windows: z.nullable(windows),
    why: text(300),
  }),
]);
export type TemperRecordValue = z.infer<typeof temperRecord>;
