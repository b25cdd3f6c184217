import { z } from 'zod/mini';
import { id, pieces, text } from '../fields/fields';

/* What is written down about goods that went wrong: complaints, blocks, recalls. Only ever added to. */

/** What a buyer says is wrong. */
export const COMPLAINTS = [
  'taste',
  'bloom',
  'foreign',
  'allergen',
  'broken',
  'weight',
  'moth',
  'label',
  'other',
] as const;
export type ComplaintKind = (typeof COMPLAINTS)[number];
export const COMPLAINT_WORDS: Readonly<Record<ComplaintKind, string>> = {
  taste: 'tastes wrong',
  bloom: 'grey or streaked',
  foreign: 'something in it that should not be',
  allergen: 'somebody reacted to it',
  broken: 'broken',
  weight: 'too light',
  moth: 'moth or larvae',
  label: 'wrong label',
  other: 'something else',
};

const why = z
  .string()
  .check(z.trim(), z.minLength(3, 'says why, in a word or two'), z.maxLength(500, 'is longer than 500 letters'));

export const traceRecord = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('complaint'),
    complaintId: id,
    holdingId: id,
    what: z.enum(COMPLAINTS),
    from: text(120),
    pieces: z._default(z.nullable(pieces), null),
    note: text(1000),
  }),
  z.object({ kind: z.literal('complaint-answered'), complaintId: id, word: why }),
  /** Goods and everything that has something of them; a mock one blocks nothing. */
  z.object({
    kind: z.literal('recall'),
    recallId: id,
    subjects: z.array(id).check(z.minLength(1, 'names nothing'), z.maxLength(500, 'are too many')),
    why,
    mock: z.boolean(),
  }),
  z.object({ kind: z.literal('recall-ended'), recallId: id, word: why }),
  /** Nothing of it may be packed, sold or melted until it is released by name. */
  z.object({ kind: z.literal('blocked'), recallId: id, holdingIds: z.array(id).check(z.maxLength(5000)), why }),
  z.object({
    kind: z.literal('released'),
    holdingIds: z.array(id).check(z.minLength(1), z.maxLength(5000)),
    word: why,
  }),
]);
export type TraceRecordValue = z.infer<typeof traceRecord>;
