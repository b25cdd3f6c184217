import { z } from 'zod/mini';
import { id } from '../fields/fields';

/** The channel of a bowl's fineness, as its gauge says it, µm. */
export const FINENESS = 'fineness';

/** What a planned act at a bowl waits for beside the clock: running hours since it began, a reading, an act that was done. */
export const waits = z.discriminatedUnion('by', [
  z.object({
    by: z.literal('running'),
    hours: z.number().check(z.minimum(0, 'cannot be below 0'), z.maximum(1000, 'is more than six weeks')),
  }),
  z.object({
    by: z.literal('reading'),
    /** The first gauge reading at or under so many µm. */
    micron: z.number().check(z.minimum(5, 'is finer than any stone'), z.maximum(300, 'is coarser than grit')),
  }),
  z.object({
    by: z.literal('act'),
    actId: id,
    minutes: z.number().check(z.minimum(0, 'cannot be below 0'), z.maximum(100_000, 'is too long')),
  }),
]);
export type Waits = z.infer<typeof waits>;
