import { z } from 'zod/mini';
import { id, name, text } from '../fields/fields';
import { field } from '../fields/registry';

/* What is written down about moulds and the place where they set. Only ever added to: the newest word counts. */

export const mouldFacts = z.object({
  name: field(name, { label: 'Name' }),
  cavities: field(
    z.number().check(z.int('must be whole'), z.minimum(1, 'must be at least 1'), z.maximum(1000, 'is too many')),
    { label: 'Cavities' },
  ),
  /** Plain chocolate that a cavity holds. */
  cavityG: field(
    z.number().check(z.minimum(0.5, 'is lighter than any piece'), z.maximum(20_000, 'is more than 20 kg')),
    { label: 'Each holds', unit: 'g' },
  ),
  owned: field(
    z.number().check(z.int('must be whole'), z.minimum(0, 'cannot be below 0'), z.maximum(100_000, 'is too many')),
    { label: 'Owned' },
  ),
  /** Painted with coloured cocoa butter before it is filled. */
  painted: field(z._default(z.boolean(), false), { label: 'Painted before it is filled' }),
  retired: z._default(z.boolean(), false),
});
export type MouldFacts = z.infer<typeof mouldFacts>;

/** How many moulds set at once, and how long. */
export const cabinet = z.object({
  moulds: field(
    z.number().check(z.int('must be whole'), z.minimum(1, 'must be at least 1'), z.maximum(10_000, 'is too many')),
    { label: 'Moulds at once' },
  ),
  minutes: field(z.number().check(z.minimum(1, 'is too short'), z.maximum(1440, 'is more than a day')), {
    label: 'For',
    unit: 'min',
  }),
});

export const mouldRecord = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('mould'), mouldId: id, facts: mouldFacts }),
  z.object({ kind: z.literal('cleaned'), mouldId: id, how: text(200) }),
  z.object({ kind: z.literal('cabinet'), ...cabinet.shape }),
]);
export type MouldRecordValue = z.infer<typeof mouldRecord>;
