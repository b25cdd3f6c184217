import { z } from 'zod/mini';
import { field } from '../fields/registry';
import { sources } from '../fields/sources';
import { meterFacts, pourMark, SCHOOLS, SCHOOL_WORDS } from '../work/tempering';
import { massG, tempC, note, word } from '../fields/fields';

export const temper = z.object({
  kind: z.literal('temper'),
  sources,
  method: field(z.enum(SCHOOLS), { label: 'Method', words: SCHOOL_WORDS }),
  meltC: field(tempC, { label: 'Melted out at' }),
  coolC: field(tempC, { label: 'Cooled to' }),
  workC: field(tempC, { label: 'Worked at', usual: [28, 33] }),
  test: field(z._default(z.enum(['set', 'slow', 'failed', 'none']), 'none'), {
    label: 'Temper test',
    words: { set: 'Set in 5 min', slow: 'Slow', failed: 'Failed', none: 'Not tested' },
  }),
  /** What a cooling-curve meter said; left out, none was asked. */
  meter: z.optional(z.nullable(meterFacts)),
  /** What was marked while it was worked. */
  marks: z.optional(z.array(pourMark).check(z.maxLength(400, 'are too many'))),
  outG: field(z.optional(massG), { label: 'In temper (empty: all of it)' }),
  note,
});
export type TemperCommand = z.infer<typeof temper>;

/** Cocoa butter held warm until it is a paste of stable crystal: seed for pours to come. */
export const silk = z.object({
  kind: z.literal('silk'),
  sources,
  /** °C and hours that it was held. */
  heldC: field(tempC, { label: 'Held at' }),
  hours: field(
    z.number().check(z.minimum(0.5, 'is too short for any silk'), z.maximum(1000, 'is more than six weeks')),
    { label: 'For', unit: 'h' },
  ),
  outG: field(z.optional(massG), { label: 'Silk (empty: all of it)' }),
  bestBefore: field(z.optional(z.nullable(z.iso.date('is a date like 2027-05-31'))), { label: 'It keeps to' }),
  note,
});
export type SilkCommand = z.infer<typeof silk>;

export const remelt = z.object({
  kind: z.literal('remelt'),
  sources,
  outG: field(z.optional(massG), { label: 'Back as (empty: all of it)' }),
  why: field(word, { label: 'Why' }),
  note,
});
export type RemeltCommand = z.infer<typeof remelt>;
