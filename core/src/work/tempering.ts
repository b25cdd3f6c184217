import { z } from 'zod/mini';
import { tempC } from '../fields/fields';

/* What a pour carries beside its weights: its plan, what was marked, what a meter said. */

/** Ways of tempering, those that a pour can go by. */
export const SCHOOLS = ['slab', 'seed', 'silk', 'bath', 'bag', 'machine', 'none'] as const;
export type School = (typeof SCHOOLS)[number];

export const SCHOOL_WORDS: Readonly<Record<School, string>> = {
  slab: 'Slab',
  seed: 'Seed',
  silk: 'Silk',
  bath: 'Bath or ice',
  bag: 'Bags in a bath',
  machine: 'Machine',
  none: 'Untempered',
};

const orNone = <T extends z.ZodMiniType>(schema: T) => z._default(z.nullable(schema), null);

/** One act of a pour: what is done, and what ends it. Everything in it can be typed over. */
export const pourAct = z.object({
  id: z.string().check(z.minLength(1), z.maxLength(20)),
  what: z.string().check(z.trim(), z.minLength(1, 'is missing'), z.maxLength(120, 'is longer than 120 letters')),
  /** A temperature that has to be reached, from below (`up`) or from above (`down`). */
  way: orNone(z.enum(['up', 'down'])),
  tempC: orNone(z.number().check(z.minimum(0, 'is colder than any bowl'), z.maximum(90, 'is hotter than any bowl'))),
  /** Minutes that it goes on for, there. */
  minutes: orNone(z.number().check(z.minimum(0, 'cannot be below 0'), z.maximum(600, 'is more than ten hours'))),
  /** What is taken or put in, grams. */
  grams: orNone(z.number().check(z.minimum(0, 'cannot be below 0'), z.maximum(1_000_000, 'is too much'))),
  /** When somebody said that it was done, seconds into the pour. */
  doneS: orNone(z.number().check(z.minimum(0))),
});
export type PourAct = z.infer<typeof pourAct>;

/** What is marked by one press while a bowl is worked. */
export const MARKS = ['stirred', 'still', 'seed', 'silk', 'warmed', 'thick'] as const;
export type MarkKind = (typeof MARKS)[number];
export const MARK_WORDS: Readonly<Record<MarkKind, string>> = {
  stirred: 'Stirring',
  still: 'Left standing',
  seed: 'Seed in',
  silk: 'Silk in',
  warmed: 'Warmed a little',
  thick: 'It thickens',
};
export const pourMark = z.object({ second: z.number().check(z.minimum(0)), what: z.enum(MARKS) });
export type PourMark = z.infer<typeof pourMark>;

/** What a cooling-curve meter said of it. */
export const meterFacts = z.object({
  tempC,
  slopeCperMin: z.number().check(z.minimum(-100), z.maximum(100)),
  verdict: z.enum(['under', 'well', 'over']),
});
export type MeterFacts = z.infer<typeof meterFacts>;

/** What is known of a pour under way beside its readings. */
export const livePour = z.object({
  school: z._default(z.nullable(z.enum(SCHOOLS)), null),
  /** What its heat balance went by: the bowl's own weight, of steel, and the room. */
  bowlKg: z.optional(z.number().check(z.minimum(0, 'cannot be below 0'), z.maximum(200, 'is heavier than any bowl'))),
  roomC: z.optional(
    z.number().check(z.minimum(5, 'is colder than any kitchen'), z.maximum(45, 'is hotter than any kitchen')),
  ),
  acts: z._default(z.array(pourAct).check(z.maxLength(20, 'are too many')), []),
  marks: z._default(z.array(pourMark).check(z.maxLength(400, 'are too many')), []),
});
export type LivePour = z.infer<typeof livePour>;
export const NO_POUR: LivePour = { school: null, acts: [], marks: [] };
