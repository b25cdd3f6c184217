import { z } from 'zod/mini';
import { id, massG, minutes, tempC, text } from '../fields/fields';
import { program } from '../work/roasting';

/*
 * What is written down about roasting beside the grams: programs in their versions, trials, panel scores, words
 * against a judgement. Only ever added to.
 */

export * from '../work/roasting';

export const trialCell = z.object({
  /** How warm and how long, in the maker's words and figures. */
  peakC: tempC,
  minutes: minutes.check(z.gt(0, 'must be more than 0')),
});

export const trial = z.object({
  name: z.string().check(z.trim(), z.minLength(1, 'is missing'), z.maxLength(80, 'is longer than 80 letters')),
  lotId: id,
  roasterId: z._default(z.nullable(id), null),
  loadG: massG,
  cells: z
    .array(trialCell)
    .check(z.minLength(2, 'needs two roasts to compare'), z.maxLength(16, 'has too many roasts')),
  note: text(600),
});
export type Trial = z.infer<typeof trial>;

const programId = id;
export const roastRecord = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('program'), programId, version: z.number().check(z.int(), z.minimum(1)), program }),
  z.object({ kind: z.literal('shelved'), programId, shelved: z.boolean() }),
  z.object({ kind: z.literal('trial'), trialId: id, trial }),
  /** A roast load (the tub it made) belongs to a place of the plan. */
  z.object({
    kind: z.literal('trial-load'),
    trialId: id,
    cell: z.number().check(z.int(), z.minimum(0), z.maximum(15)),
    loadId: id,
  }),
  z.object({
    kind: z.literal('score'),
    loadId: id,
    score: z.number().check(z.minimum(0, 'is 0 to 10'), z.maximum(10, 'is 0 to 10')),
    note: text(300),
  }),
  z.object({
    kind: z.literal('word'),
    loadId: id,
    word: z.string().check(z.trim(), z.minLength(2, 'is missing'), z.maxLength(500)),
  }),
]);
export type RoastRecordValue = z.infer<typeof roastRecord>;

export interface RoastRecord {
  id: string;
  at: number;
  recordedAt: number;
  personId: string;
  value: RoastRecordValue;
}
