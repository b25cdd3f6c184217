import { z } from 'zod/mini';
import { id, name, text } from '../fields/fields';

/* What is written down about moulds and the place where they set. Only ever added to: the newest word counts. */

export const mouldFacts = z.object({
  name,
  cavities: z
    .number()
    .check(z.int('must be whole'), z.minimum(1, 'must be at least 1'), z.maximum(1000, 'is too many')),
  /** Plain chocolate that a cavity holds. */
  cavityG: z.number().check(z.minimum(0.5, 'is lighter than any piece'), z.maximum(20_000, 'is more than 20 kg')),
  owned: z.number().check(z.int('must be whole'), z.minimum(0, 'cannot be below 0'), z.maximum(100_000, 'is too many')),
  /** Painted with coloured cocoa butter before it is filled. */
  painted: z._default(z.boolean(), false),
  retired: z._default(z.boolean(), false),
});
export type MouldFacts = z.infer<typeof mouldFacts>;

export const mouldRecord = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('mould'), mouldId: id, facts: mouldFacts }),
  z.object({ kind: z.literal('cleaned'), mouldId: id, how: text(200) }),
  /** How many moulds set at once, and how long. */
  z.object({
    kind: z.literal('cabinet'),
    moulds: z
      .number()
      .check(z.int('must be whole'), z.minimum(1, 'must be at least 1'), z.maximum(10_000, 'is too many')),
    minutes: z.number().check(z.minimum(1, 'is too short'), z.maximum(1440, 'is more than a day')),
  }),
]);
export type MouldRecordValue = z.infer<typeof mouldRecord>;
