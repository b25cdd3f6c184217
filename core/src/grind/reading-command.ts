import { z } from 'zod/mini';
import { field } from '../fields/registry';
import { roomAir } from '../fields/sources';
import { BLOOMS, SEEN } from '../ledger/types';
import { id, note } from '../fields/fields';

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
  .array(z.number().check(z.minimum(1, 'must be at least 1 µm'), z.maximum(500, 'is coarser than a gauge shows')))
  .check(z.maxLength(8));

export const reading = z
  .object({
    kind: z.literal('reading'),
    batchId: field(id, { label: 'The batch' }),
    what: field(z.enum(READINGS), { label: 'What is read' }),
    value: field(z._default(z.nullable(z.number().check(z.minimum(-60), z.maximum(1000))), null), { label: 'Reading' }),
    /** The gauge's channels, each where its dense band is; `value` is their mean. */
    channels: field(z.optional(gaugeChannels), { label: 'Channels', unit: 'µm' }),
    /** Where single streaks begin in each channel, µm: the coarsest grains. */
    streaks: field(z.optional(gaugeChannels), { label: 'Single streaks begin', unit: 'µm' }),
    /** Why the stones stopped. */
    cause: field(z.optional(z.enum(STOPS)), { label: 'Why the stones stopped' }),
    /** The shelf's air while it was tasted. */
    air: z.optional(z.nullable(roomAir)),
    /** What is seen of its bars, and what the veil turned out to be. */
    seen: field(
      z.optional(z.array(z.enum(SEEN)).check(z.minLength(1, 'choose what is seen'), z.maxLength(SEEN.length))),
      { label: 'What is seen' },
    ),
    bloom: field(z.optional(z.nullable(z.enum(BLOOMS))), { label: 'What it turned out to be' }),
    note,
  })
  .check(
    z.refine((r) => r.what !== 'seen' || r.seen !== undefined, { message: 'choose what is seen', path: ['seen'] }),
    z.refine(
      (r) => WITHOUT_VALUE.includes(r.what) || (IN_WORDS.includes(r.what) ? r.note.trim() !== '' : r.value !== null),
      {
        message: 'is missing',
        path: ['value'],
      },
    ),
    z.refine((r) => r.what !== 'felt' || [0, 1, 2, 3, 4].includes(r.value ?? -1), {
      message: 'is one of the five words, 0 to 4',
      path: ['value'],
    }),
    z.refine((r) => !(TASTED as readonly string[]).includes(r.what) || ((r.value ?? 0) >= 0 && (r.value ?? 0) <= 10), {
      message: 'is 0 to 10',
      path: ['value'],
    }),
    z.refine((r) => r.what !== 'micron' || (r.value ?? 0) >= 1, { message: 'must be at least 1 µm', path: ['value'] }),
  );
export type ReadingCommand = z.infer<typeof reading>;
