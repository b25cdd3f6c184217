import { z } from 'zod';
import { id, note } from '../fields/fields';
import { roomAir } from './sources';
import { BLOOMS, SEEN } from './types';

/* What is read, tasted or noted of a batch and moves nothing. */

/** `move`: the batch goes on in another machine, that of the entry, under its own code. */
export const READINGS = [
  'micron',
  'felt',
  'bowl-temperature',
  'sourness',
  'astringency',
  'aroma',
  'rest-taste',
  'tension',
  'texture',
  'pass',
  'note',
  'move',
  'stones-stop',
  'stones-run',
  'stones-up',
  'stones-down',
  'spilled',
  'starved',
  'seen',
] as const;
/** What is only noted: there is no figure to it. */
const WITHOUT_VALUE: readonly string[] = [
  'pass',
  'move',
  'stones-stop',
  'stones-run',
  'stones-up',
  'stones-down',
  'spilled',
  'starved',
  'seen',
];
/** What is said in words. */
const IN_WORDS: readonly string[] = ['note', 'texture'];
/** Scored from none of it to all there can be. */
export const TASTED = ['sourness', 'astringency', 'aroma', 'rest-taste'] as const;

/** Why stones stopped. */
export const STOPS = ['power', 'night', 'stalled', 'other'] as const;

const gaugeChannels = z
  .array(z.number().min(1, 'must be at least 1 µm').max(500, 'is coarser than a gauge shows'))
  .max(8);

export const reading = z
  .object({
    kind: z.literal('reading'),
    batchId: id,
    what: z.enum(READINGS),
    value: z.number().min(-60).max(1000).nullable().default(null),
    /** The gauge's channels, each where its dense band is; `value` is their mean. */
    channels: gaugeChannels.optional(),
    /** Where single streaks begin in each channel, µm: the coarsest grains. */
    streaks: gaugeChannels.optional(),
    /** Why the stones stopped. */
    cause: z.enum(STOPS).optional(),
    /** The shelf's air while it was tasted. */
    air: roomAir.nullable().optional(),
    /** What is seen of its bars, and what the veil turned out to be. */
    seen: z.array(z.enum(SEEN)).min(1, 'choose what is seen').max(SEEN.length).optional(),
    bloom: z.enum(BLOOMS).nullable().optional(),
    note,
  })
  .refine((r) => r.what !== 'seen' || r.seen !== undefined, { message: 'choose what is seen', path: ['seen'] })
  .refine(
    (r) => WITHOUT_VALUE.includes(r.what) || (IN_WORDS.includes(r.what) ? r.note.trim() !== '' : r.value !== null),
    {
      message: 'is missing',
      path: ['value'],
    },
  )
  .refine((r) => r.what !== 'felt' || [0, 1, 2, 3, 4].includes(r.value ?? -1), {
    message: 'is one of the five words, 0 to 4',
    path: ['value'],
  })
  .refine((r) => !(TASTED as readonly string[]).includes(r.what) || ((r.value ?? 0) >= 0 && (r.value ?? 0) <= 10), {
    message: 'is 0 to 10',
    path: ['value'],
  })
  .refine((r) => r.what !== 'micron' || (r.value ?? 0) >= 1, { message: 'must be at least 1 µm', path: ['value'] });
