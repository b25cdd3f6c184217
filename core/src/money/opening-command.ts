import { z } from 'zod/mini';
import { field } from '../fields/registry';
import { massG, pieces, money, id, note, name, word } from '../fields/fields';

/** What can be there before the book begins: everything but lots (received) and the pantry (bought). */
export const OPENING_KINDS = [
  'beans',
  'roasted',
  'nibs',
  'husk',
  'mass',
  'block',
  'remelt',
  'bars',
  'seconds',
  'packed',
] as const;

export type OpeningKind = (typeof OPENING_KINDS)[number];

const share = z._default(
  z.nullable(z.number().check(z.minimum(0, 'cannot be below 0'), z.maximum(100, 'is more than all of it'))),
  null,
);

export const open = z.object({
  kind: z.literal('open'),
  what: field(z.enum(OPENING_KINDS), { label: 'What it is' }),
  name: field(name, { label: 'Name' }),
  /** The code on it already; left out, a new one. */
  code: field(
    z.optional(
      z.string().check(z.trim(), z.regex(/^[A-Za-z0-9][A-Za-z0-9-]{1,23}$/, 'is 2 to 24 letters, digits and hyphens')),
    ),
    { label: 'Code on it already' },
  ),
  routeId: field(z._default(z.nullable(id), null), { label: 'Route' }),
  massG: field(z.optional(massG), { label: 'Weight' }),
  pieces: field(z.optional(pieces.check(z.minimum(1, 'must be at least 1'))), { label: 'Pieces' }),
  /** What it is worth, all of it. */
  value: field(z._default(money, 0), { label: 'Worth, all of it' }),
  /** What is known of its past. */
  producer: field(word, { label: 'Producer' }),
  country: field(word, { label: 'Country' }),
  roasted: z._default(z.nullable(z.boolean()), null),
  cocoaPct: field(share, { label: 'Cocoa', unit: '%' }),
  withoutButterPct: field(share, { label: 'Cocoa without added butter', unit: '%' }),
  sugarPct: field(share, { label: 'Sugar', unit: '%' }),
  allergens: z._default(
    z.array(z.string().check(z.trim(), z.minLength(1), z.maxLength(40))).check(z.maxLength(14)),
    [],
  ),
  targetMicron: field(z._default(z.number().check(z.minimum(5), z.maximum(200)), 20), {
    label: 'Target fineness',
    unit: 'µm',
  }),
  note,
});
export type OpenCommand = z.infer<typeof open>;
