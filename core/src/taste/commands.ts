import { z } from 'zod/mini';
import { field } from '../fields/registry';
import { pieces, id, note } from '../fields/fields';

export const taste = z
  .object({
    kind: z.literal('taste'),
    /** Left out for goods of no batch: what began with bought chocolate. */
    batchId: z._default(z.nullable(id), null),
    holdingId: field(z._default(z.nullable(id), null), { label: 'What is tasted' }),
    pieces: field(z._default(pieces, 0), { label: 'Bars eaten' }),
    score: field(z.number().check(z.minimum(0, 'is 0 to 10'), z.maximum(10, 'is 0 to 10')), {
      label: 'Score, 0 to 10',
    }),
    note: field(note, { label: 'What was it like', long: true }),
  })
  .check(z.refine((t) => t.batchId !== null || t.holdingId !== null, { message: 'is missing', path: ['holdingId'] }));
export type TasteCommand = z.infer<typeof taste>;
