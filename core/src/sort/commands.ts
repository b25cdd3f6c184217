import { z } from 'zod/mini';
import { field } from '../fields/registry';
import { sources } from '../fields/sources';
import { massG, massOrNoneG, note } from '../fields/fields';

/** One of the usual piles, or one of the workshop's own. */
const rejectReason = z
  .string()
  .check(z.trim(), z.minLength(1, 'is missing'), z.maxLength(30, 'is longer than 30 letters'));

export const sort = z.object({
  kind: z.literal('sort'),
  sources,
  rejects: z._default(
    z
      .array(
        z.object({
          reason: field(rejectReason, { label: 'What is wrong with them' }),
          massG: field(massOrNoneG, { label: 'A pile' }),
        }),
      )
      .check(z.maxLength(20)),
    [],
  ),
  goodG: field(massG, { label: 'Good beans' }),
  /** The sacks that were opened for it, by number. */
  sacks: field(
    z.optional(z.array(z.number().check(z.int('must be whole'), z.minimum(1), z.maximum(5000))).check(z.maxLength(60))),
    { label: 'Sacks' },
  ),
  note,
});
export type SortCommand = z.infer<typeof sort>;
