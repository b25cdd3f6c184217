import { z } from 'zod/mini';
import { field } from '../fields/registry';
import { sources } from '../fields/sources';
import { massG, note } from '../fields/fields';

export const rest = z.object({
  kind: z.literal('rest'),
  sources,
  outG: field(z.optional(massG), { label: 'Off the shelf (empty: all of it)' }),
  note,
});
export type RestCommand = z.infer<typeof rest>;
