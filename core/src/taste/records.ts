import { z } from 'zod';
import { name, text } from '../ledger/fields';

/* What is written down about tastings beside scores. Only ever added to. */

export const tasteRecord = z.discriminatedUnion('kind', [
  /** A test of whether two are the same, read. */
  z
    .object({
      kind: z.literal('same'),
      test: z.enum(['triangle', 'tetrad', 'paired']),
      a: name,
      b: name,
      tasters: z.number().int('must be whole').min(1, 'must be at least 1').max(500, 'are too many'),
      tries: z.number().int('must be whole').min(1, 'must be at least 1').max(2000, 'are too many'),
      right: z.number().int('must be whole').min(0, 'cannot be below 0').max(2000, 'are too many'),
      note: text(500),
    })
    .refine(({ tries, right }) => right <= tries, { message: 'are more than answers', path: ['right'] })
    .refine(({ tries, tasters }) => tasters <= tries, { message: 'are more than answers', path: ['tasters'] }),
]);
export type TasteRecordValue = z.infer<typeof tasteRecord>;
