import { z } from 'zod/mini';
import { field } from '../fields/registry';
import { newBatch } from '../ledger/batch';
import { sources } from '../fields/sources';
import { massG, massOrNoneG, id, note } from '../fields/fields';

export const charge = z.object({
  kind: z.literal('charge'),
  /** The batch in the bowl; leave out to begin a new one. */
  batchId: field(z.optional(id), { label: 'The batch' }),
  batch: z.optional(newBatch),
  sources,
  note,
});
export type ChargeCommand = z.infer<typeof charge>;

export const discharge = z.object({
  kind: z.literal('discharge'),
  batchId: field(id, { label: 'The batch' }),
  /** Each block or tub that was poured. */
  outsG: field(z.array(massG).check(z.minLength(1, 'weigh what was poured'), z.maxLength(40)), {
    label: 'Poured, block by block',
    hint: 'Add each block: every weighing is one block.',
  }),
  /** What stays in the bowl and runs on; left out, nothing. */
  leftG: field(z.optional(massG), { label: 'Stays in the bowl (empty: nothing)' }),
  holdUpG: field(z._default(massOrNoneG, 0), { label: 'Scraped off, not used' }),
  /** What the sieve kept back. */
  sievedG: field(z.optional(massOrNoneG), { label: 'Kept by the sieve' }),
  micron: field(z._default(z.nullable(z.number().check(z.minimum(1), z.maximum(500))), null), {
    label: 'Last reading',
    usual: [12, 30],
    unit: 'µm',
  }),
  note,
});
export type DischargeCommand = z.infer<typeof discharge>;
