import { z } from 'zod/mini';
import { field } from '../fields/registry';
import { sources } from '../fields/sources';
import { startRoast } from './roasting';
import { STATIONS } from './stations';
import { id, note } from '../fields/fields';

/** Stops that are gone past by name, each with a word that is kept. */
const overrides = z.optional(
  z
    .array(
      z.object({
        gate: z.string().check(z.minLength(1), z.maxLength(60)),
        word: field(
          z
            .string()
            .check(
              z.trim(),
              z.minLength(3, 'says why, in a word or two'),
              z.maxLength(500, 'is longer than 500 letters'),
            ),
          { label: 'The word for it' },
        ),
      }),
    )
    .check(z.maxLength(20)),
);

/** What every entry carries besides its command. */
export const entryHead = z.object({
  /** When it was done; left out, now, and of what is corrected when it was. */
  at: field(z.optional(z.iso.datetime({ offset: true, message: 'is a time like 2027-05-31T06:10:00Z' })), {
    label: 'The time',
  }),
  personId: field(id, { label: 'Who is at the bench' }),
  machineId: field(z._default(z.nullable(id), null), { label: 'The machine' }),
  /** Hands-on minutes. */
  minutes: field(
    z._default(z.number().check(z.minimum(0, 'cannot be below 0'), z.maximum(10_080, 'is more than a week')), 0),
    { label: 'Hands-on minutes', unit: 'min' },
  ),
  energyKwh: field(
    z._default(z.number().check(z.minimum(0, 'cannot be below 0'), z.maximum(10_000, 'is too much')), 0),
    { label: 'Energy', unit: 'kWh' },
  ),
  overrides,
});

export type EntryHead = z.infer<typeof entryHead>;

/** Work begun and not yet finished: what is in the roaster, the winnower, the moulds now. */
export const startWork = z.object({
  station: field(z.enum(STATIONS), { label: 'The station' }),
  sources,
  machineId: field(z._default(z.nullable(id), null), { label: 'The machine' }),
  personId: field(id, { label: 'Who is at the bench' }),
  at: entryHead.shape.at,
  /** When a person is needed next, if known. */
  dueAt: field(z._default(z.nullable(z.iso.datetime({ offset: true })), null), { label: 'When somebody is needed' }),
  /** Sacks opened for it, by number. */
  sacks: field(
    z.optional(z.array(z.number().check(z.int('must be whole'), z.minimum(1), z.maximum(5000))).check(z.maxLength(60))),
    { label: 'Sacks' },
  ),
  /** For a roast that is followed live. */
  roast: z.optional(startRoast),
  /** Cocoa butter that is held warm until it is silk. */
  silk: z.optional(z.boolean()),
  overrides,
  note,
});

export type StartWork = z.infer<typeof startWork>;
