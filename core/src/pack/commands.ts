import { z } from 'zod/mini';
import { field } from '../fields/registry';
import { massG, pieces, id, note } from '../fields/fields';

export const pack = z.object({
  kind: z.literal('pack'),
  holdingId: field(id, { label: 'What is packed' }),
  /** Bars, or packs of what is weighed. */
  pieces: field(pieces.check(z.minimum(1, 'must be at least 1')), { label: 'Bars packed' }),
  /** Of blocks and tubs: what goes into the packs, all together. */
  massG: field(z.optional(massG), { label: 'What goes into the packs' }),
  labelCode: field(
    z.string().check(z.trim(), z.regex(/^[A-Za-z0-9][A-Za-z0-9-]{1,23}$/, 'is 2 to 24 letters, digits and hyphens')),
    { label: 'Code on the label' },
  ),
  bestBefore: field(z.iso.date('is a date like 2027-05-31'), { label: 'Best before' }),
  /** What is used up, and what of it was spoilt while packing. */
  packaging: z._default(
    z
      .array(z.object({ holdingId: id, pieces: pieces.check(z.minimum(1)), damaged: z.optional(pieces) }))
      .check(z.maxLength(10)),
    [],
  ),
  /** What it is sold as, in which version. */
  product: z.optional(z.object({ id, version: z.number().check(z.int(), z.minimum(1)) })),
  note,
});
export type PackCommand = z.infer<typeof pack>;
