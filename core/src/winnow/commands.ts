import { z } from 'zod/mini';
import { field } from '../fields/registry';
import { sources } from '../fields/sources';
import { massG, massOrNoneG, note, word } from '../fields/fields';

export const WINNOW_METHODS = ['hand', 'dryer', 'column', 'machine'] as const;

/** So many grams looked through, so many of them what should not be there. */
const pickedSample = z
  .object({
    sampleG: field(massG.check(z.maximum(20_000, 'is more than anybody picks through')), { label: 'Sample' }),
    foundG: field(massOrNoneG, { label: 'Found in the sample' }),
  })
  .check(z.refine((s) => s.foundG <= s.sampleG, { message: 'is more than the sample weighs', path: ['foundG'] }));

const setting = z.optional(
  z.nullable(z.number().check(z.minimum(0, 'cannot be below 0'), z.maximum(10_000, 'is more than any dial shows'))),
);

export const winnow = z
  .object({
    kind: z.literal('winnow'),
    sources,
    /** All nibs of the session, whatever pass they came from. */
    nibsG: field(massG, { label: 'Nibs' }),
    huskG: field(massOrNoneG, { label: 'Husk' }),
    dustG: field(z._default(massOrNoneG, 0), { label: 'Dust and spill' }),
    setting: field(word, { label: 'Setting' }),
    method: field(z.optional(z.enum(WINNOW_METHODS)), { label: 'Method' }),
    settings: z.optional(z.object({ gapMm: setting, air: setting, feedKgPerHour: setting, passes: setting })),
    /** Where the nibs came from: the first run, husk run again, picked by hand. */
    passes: z.optional(
      z
        .array(
          z.object({
            what: z.enum(['first', 'again', 'picked']),
            nibsG: massOrNoneG,
            minutes: z._default(z.number().check(z.minimum(0), z.maximum(1440)), 0),
          }),
        )
        .check(z.maxLength(12)),
    ),
    /** Shell picked out of samples of nibs; nib picked out of samples of husk. */
    shellSamples: z.optional(z.array(pickedSample).check(z.maxLength(12))),
    nibSamples: z.optional(z.array(pickedSample).check(z.maxLength(12))),
    /** A cracking test: what stays on each sieve. */
    sieve: z.optional(z.object({ coarseG: massOrNoneG, goodG: massOrNoneG, finesG: massOrNoneG, dustG: massOrNoneG })),
    note,
  })
  .check(
    z.refine(
      ({ passes = [], nibsG }) =>
        passes.length === 0 ||
        Math.abs(passes.reduce((sum, pass) => sum + pass.nibsG, 0) - nibsG) <= Math.max(20, 0.01 * nibsG),
      { message: 'is not what the passes add up to', path: ['nibsG'] },
    ),
  );
export type WinnowCommand = z.infer<typeof winnow>;
