import { z } from 'zod/mini';
import { field } from './registry';
import { id, massG, pieces } from './fields';

/* What several kinds of entries are made of, beside single fields. */

/** A room's air, °C and % relative humidity. */
export const roomAir = z.object({
  tempC: field(z.number().check(z.minimum(-20, 'is colder than any room'), z.maximum(60, 'is hotter than any room')), {
    label: 'Air of the room',
    unit: '°C',
  }),
  humidityPct: field(z.nullable(z.number().check(z.minimum(1, 'is 1 to 100'), z.maximum(100, 'is 1 to 100'))), {
    label: 'Humidity of the room',
    usual: [20, 60],
    unit: '%',
  }),
});

/** Grams (or, for bars, pieces) taken out of a holding. */
export const source = z
  .object({
    holdingId: field(id, { label: 'What is taken' }),
    massG: z.optional(massG),
    pieces: z.optional(pieces.check(z.minimum(1, 'must be at least 1'))),
  })
  .check(
    z.refine((value) => value.massG !== undefined || value.pieces !== undefined, {
      message: 'needs grams or pieces',
      path: ['massG'],
    }),
  );
export type Source = z.infer<typeof source>;
export const sources = field(
  z.array(source).check(z.minLength(1, 'choose what goes in'), z.maxLength(60, 'is too many at once')),
  { label: 'What goes in' },
);
