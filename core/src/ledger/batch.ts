import { z } from 'zod/mini';
import { id, name } from '../fields/fields';
import { field } from '../fields/registry';

/** What a batch is to become. */
export const newBatch = z.object({
  name: field(name, { label: 'Name of the batch', example: 'Fiji 68 %' }),
  routeId: field(id, { label: 'Route' }),
  targetMicron: field(
    z._default(z.number().check(z.minimum(5, 'is finer than any stone'), z.maximum(200, 'is coarser than a grit')), 20),
    { label: 'Target fineness', usual: [15, 25], unit: 'µm' },
  ),
  cocoaTargetPct: field(
    z._default(z.nullable(z.number().check(z.minimum(0), z.maximum(100, 'is more than all of it'))), null),
    { label: 'Cocoa meant', unit: '%' },
  ),
  /** The version of a recipe that it was weighed by. */
  recipe: z.optional(z.nullable(z.object({ id, version: z.number().check(z.int(), z.minimum(1)) }))),
});
