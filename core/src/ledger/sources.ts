import { z } from 'zod';
import { id, massG, pieces } from '../fields/fields';

/* What several kinds of entries are made of, beside single fields. */

/** A room's air, °C and % relative humidity. */
export const roomAir = z.object({
  tempC: z.number().min(-20, 'is colder than any room').max(60, 'is hotter than any room'),
  humidityPct: z.number().min(1, 'is 1 to 100').max(100, 'is 1 to 100').nullable(),
});

/** Grams (or, for bars, pieces) taken out of a holding. */
export const source = z
  .object({ holdingId: id, massG: massG.optional(), pieces: pieces.min(1, 'must be at least 1').optional() })
  .refine((value) => value.massG !== undefined || value.pieces !== undefined, {
    message: 'needs grams or pieces',
    path: ['massG'],
  });
export type Source = z.infer<typeof source>;
export const sources = z.array(source).min(1, 'choose what goes in').max(60, 'is too many at once');
