import { z } from 'zod/mini';
import { id, name, text } from '../fields/fields';
import { field } from '../fields/registry';

/* What is written down about tastings beside scores. Only ever added to. */

/** What can be scored on a sheet beside the whole: each from none of it to all there can be. */
export const SCALES = ['sweet', 'bitter', 'sour', 'astringent', 'creamy', 'melt', 'length', 'clarity'] as const;
export type Scale = (typeof SCALES)[number];
export const SCALE_ENDS: Readonly<Record<Scale, readonly [low: string, high: string]>> = {
  sweet: ['not sweet', 'very sweet'],
  bitter: ['not bitter', 'very bitter'],
  sour: ['not sour', 'very sour'],
  astringent: ['smooth', 'dries the mouth'],
  creamy: ['thin', 'creamy'],
  melt: ['waxy, slow', 'melts away'],
  length: ['gone at once', 'stays long'],
  clarity: ['muddled', 'clear'],
};

/** The course of a melt. */
export const PHASES = ['opening', 'middle', 'finish'] as const;
export type Phase = (typeof PHASES)[number];

/** Words that a sheet keeps of one smell. */
export const MOST_SMELLS = 12;

/** Steps of the colour strip, from light to dark. */
export const COLOUR_STEPS = 7;

const tenth = z.number().check(z.minimum(0, 'is 0 to 10'), z.maximum(10, 'is 0 to 10'));
const whole = z.number().check(z.int('must be whole'));
/** A word as somebody says it. */
export const tasteWord = z
  .string()
  .check(z.trim(), z.toLowerCase(), z.minLength(1, 'is missing'), z.maxLength(40, 'is longer than 40 letters'));

/** What is tasted: something of the book (bars, a block, nibs, a bowl, a sample lot), or a bar of another maker. */
export const tasteSubject = z.object({ of: z.enum(['holding', 'outside']), id });
export type TasteSubject = z.infer<typeof tasteSubject>;

/** One impression of one thing. Going back to it is another impression of the same tasting. */
export const sheet = z.object({
  kind: z.literal('sheet'),
  tastingId: id,
  subject: tasteSubject,
  /** Whose palate it is, where it is nobody of the workshop. */
  taster: text(60),
  sessionId: z._default(z.nullable(id), null),
  /** Place in the order, and which impression of it, each from 1. */
  place: z._default(whole.check(z.minimum(1), z.maximum(40)), 1),
  visit: z._default(whole.check(z.minimum(1), z.maximum(20)), 1),
  seconds: z._default(z.number().check(z.minimum(0), z.maximum(86_400, 'is more than a day')), 0),
  colour: z._default(z.nullable(whole.check(z.minimum(0), z.maximum(COLOUR_STEPS - 1))), null),
  shine: z._default(z.nullable(tenth), null),
  snap: z._default(z.nullable(tenth), null),
  cleanBreak: z._default(z.nullable(z.boolean()), null),
  /** Broken at a seam the sound says nothing. */
  atSeam: z._default(z.boolean(), false),
  smell: z._default(z.array(tasteWord).check(z.maxLength(MOST_SMELLS, 'are too many')), []),
  notes: z._default(
    z
      .array(
        z.object({
          second: z.number().check(z.minimum(0), z.maximum(3600, 'is more than an hour')),
          phase: z.enum(PHASES),
          word: tasteWord,
        }),
      )
      .check(z.maxLength(60, 'are too many')),
    [],
  ),
  scales: z._default(z.partialRecord(z.enum(SCALES), tenth), {}),
  overall: z._default(z.nullable(tenth), null),
  eatWhen: text(160),
  /** Seconds of each pause with warm water. */
  pauses: z._default(z.array(z.number().check(z.minimum(0), z.maximum(3600))).check(z.maxLength(20)), []),
  mood: text(60),
  food: z._default(z.nullable(z.enum(['before', 'after'])), null),
  note: text(1000),
});
export type TasteSheet = z.infer<typeof sheet>;

/** A bar of another maker: outside the ledger. */
export const outsideBar = z.object({
  maker: field(name, { label: 'Maker' }),
  bar: field(name, { label: 'Bar' }),
  origin: field(text(120), { label: 'Origin' }),
  cocoaPct: field(
    z._default(z.nullable(z.number().check(z.minimum(0, 'is 0 to 100'), z.maximum(100, 'is 0 to 100'))), null),
    { label: 'Cocoa', unit: '%' },
  ),
  batch: field(text(60), { label: 'Its batch' }),
  bestBefore: field(z._default(z.nullable(z.iso.date('is a date like 2027-05-31')), null), { label: 'Best before' }),
  massG: field(
    z._default(
      z.nullable(z.number().check(z.positive('must be more than 0'), z.maximum(20_000, 'is more than 20 kg'))),
      null,
    ),
    { label: 'Weight', unit: 'g', weighed: 'piece' },
  ),
  price: field(
    z._default(
      z.nullable(z.number().check(z.minimum(0, 'cannot be below 0'), z.maximum(1_000_000, 'is too much'))),
      null,
    ),
    { label: 'Price' },
  ),
  note: field(text(1000), { label: 'Note' }),
});
export type OutsideBar = z.infer<typeof outsideBar>;

export const MOST_AT_ONCE = 8;
export const blindSession = z.object({
  name,
  question: text(200),
  bars: z
    .array(z.object({ subject: tasteSubject, name }))
    .check(
      z.minLength(2, 'needs two to compare'),
      z.maxLength(MOST_AT_ONCE, `are more than ${MOST_AT_ONCE}: nobody tastes so many well`),
    ),
  tasters: whole.check(z.minimum(1, 'must be at least 1'), z.maximum(60, 'are too many')),
  /** Of the orders and codes. */
  seed: whole.check(z.minimum(0), z.maximum(2_147_483_647)),
  /** Whether tasters score the scales as well, or the whole only. */
  scales: z._default(z.boolean(), true),
  /** The trial that it is the panel of. */
  trialId: z._default(z.nullable(id), null),
});
export type BlindSession = z.infer<typeof blindSession>;

export const tasteRecord = z.discriminatedUnion('kind', [
  /** A test of whether two are the same, read. */
  z
    .object({
      kind: z.literal('same'),
      test: z.enum(['triangle', 'tetrad', 'paired']),
      a: name,
      b: name,
      tasters: z
        .number()
        .check(z.int('must be whole'), z.minimum(1, 'must be at least 1'), z.maximum(500, 'are too many')),
      tries: z
        .number()
        .check(z.int('must be whole'), z.minimum(1, 'must be at least 1'), z.maximum(2000, 'are too many')),
      right: z
        .number()
        .check(z.int('must be whole'), z.minimum(0, 'cannot be below 0'), z.maximum(2000, 'are too many')),
      note: text(500),
    })
    .check(
      z.refine(({ tries, right }) => right <= tries, { message: 'are more than answers', path: ['right'] }),
      z.refine(({ tries, tasters }) => tasters <= tries, { message: 'are more than answers', path: ['tasters'] }),
    ),
  sheet,
  z.object({ kind: z.literal('outside'), bar: outsideBar }),
  z.object({ kind: z.literal('session'), session: blindSession }),
  /** Somebody sat down at a session. */
  z.object({
    kind: z.literal('seat'),
    sessionId: id,
    seat: whole.check(z.minimum(0), z.maximum(59)),
    taster: text(60),
  }),
  z.object({ kind: z.literal('session-state'), sessionId: id, state: z.enum(['closed', 'opened']) }),
  /** The vocabulary: a word of one's own; a near word that means another; apart again. */
  z.object({ kind: z.literal('word'), word: tasteWord }),
  z.object({ kind: z.literal('join'), word: tasteWord, into: tasteWord }),
  z.object({ kind: z.literal('part'), word: tasteWord }),
]);
export type TasteRecordValue = z.infer<typeof tasteRecord>;
