import { z } from 'zod';
import { BAR_FAULTS, FILLED_BY, RELEASES, weights } from '../work/moulding';
import { id, massG, massOrNoneG, money, note, pieces, tempC, word } from '../fields/fields';
import { roomAir, source, sources } from './sources';
import { LOSS_CAUSES } from './types';

/* Entries of bars and what becomes of them: moulded, packed, tasted, melted, sold, sent back, counted. */

export const mould = z
  .object({
    kind: z.literal('mould'),
    sources,
    barG: z.number().positive('must be more than 0 g').max(20_000, 'is more than 20 kg'),
    cavities: z.number().int('must be whole').min(1).max(10_000),
    goodPieces: pieces,
    /** All good bars on the scale; left out, they count at their declared weight. */
    goodG: massOrNoneG.optional(),
    secondsPieces: pieces.default(0),
    remeltG: massOrNoneG.default(0),
    /** What was left over: poured as blocks, or eaten as samples. */
    blockG: massOrNoneG.optional(),
    sampleG: massOrNoneG.optional(),
    trimmingsG: massOrNoneG.default(0),
    holdUpG: massOrNoneG.default(0),
    /** Of the moulds as they were filled, °C. */
    mouldC: tempC.nullable().optional(),
    /** Where it set, °C, and that room's air: a bar colder than its dew point sweats. */
    setC: tempC.nullable().optional(),
    air: roomAir.nullable().optional(),
    /** What single pieces weighed, in the order in which they were weighed. */
    weightsG: weights.optional(),
    /** Of the seconds, why. */
    faults: z
      .array(z.object({ fault: z.enum(BAR_FAULTS), pieces }))
      .max(20)
      .optional(),
    release: z.enum(RELEASES).nullable().optional(),
    /** By hand or by a depositor, and whether the air was vibrated out. */
    filledBy: z.enum(FILLED_BY).optional(),
    vibrated: z.boolean().optional(),
    /** Minutes until bars had drawn back from their moulds. */
    contractMin: z.number().min(0, 'cannot be below 0').max(1440, 'is more than a day').nullable().optional(),
    note,
  })
  .refine(({ faults = [], secondsPieces }) => faults.reduce((sum, row) => sum + row.pieces, 0) <= secondsPieces, {
    message: 'are fewer than what is wrong with them adds up to',
    path: ['secondsPieces'],
  });

export const pack = z.object({
  kind: z.literal('pack'),
  holdingId: id,
  /** Bars, or packs of what is weighed. */
  pieces: pieces.min(1, 'must be at least 1'),
  /** Of blocks and tubs: what goes into the packs, all together. */
  massG: massG.optional(),
  labelCode: z
    .string()
    .trim()
    .regex(/^[A-Za-z0-9][A-Za-z0-9-]{1,23}$/, 'is 2 to 24 letters, digits and hyphens'),
  bestBefore: z.iso.date('is a date like 2027-05-31'),
  /** What is used up, and what of it was spoilt while packing. */
  packaging: z
    .array(z.object({ holdingId: id, pieces: pieces.min(1), damaged: pieces.optional() }))
    .max(10)
    .default([]),
  /** What it is sold as, in which version. */
  product: z.object({ id, version: z.number().int().min(1) }).optional(),
  note,
});

export const taste = z
  .object({
    kind: z.literal('taste'),
    /** Left out for goods of no batch: what began with bought chocolate. */
    batchId: id.nullable().default(null),
    holdingId: id.nullable().default(null),
    pieces: pieces.default(0),
    score: z.number().min(0, 'is 0 to 10').max(10, 'is 0 to 10'),
    note,
  })
  .refine((t) => t.batchId !== null || t.holdingId !== null, { message: 'is missing', path: ['holdingId'] });

export const remelt = z.object({ kind: z.literal('remelt'), sources, outG: massG.optional(), why: word, note });

/** What becomes of what goes out: husk and other by-products; goods that are not sold. */
export const HUSK_USES = ['sold', 'given', 'composted', 'used'] as const;
export const FREE_USES = ['sample', 'gift', 'class'] as const;
export const FREE_USE_WORDS: Readonly<Record<(typeof FREE_USES)[number], string>> = {
  sample: 'sample',
  gift: 'gift',
  class: 'class visitors',
};

export const sell = z
  .object({
    kind: z.literal('sell'),
    /** What was sold, and what each thing fetched. */
    sources: z
      .array(source.safeExtend({ takings: money.optional() }))
      .min(1, 'choose what goes out')
      .max(60, 'is too many at once'),
    takings: money,
    to: word,
    /** What became of it, where it was not simply sold. */
    use: z.enum([...HUSK_USES, ...FREE_USES]).optional(),
    /** By which channel, and for which order. */
    channel: z.string().trim().min(1, 'is missing').max(60, 'is longer than 60 letters').optional(),
    orderId: id.optional(),
    note,
  })
  .superRefine(({ sources: lines, takings }, context) => {
    const said = lines.filter((line) => line.takings !== undefined);
    if (said.length === 0) return;
    lines.forEach((line, index) => {
      if (line.takings === undefined)
        context.addIssue({ code: 'custom', path: ['sources', index, 'takings'], message: 'is missing' });
    });
    const sum = said.reduce((total, line) => total + (line.takings ?? 0), 0);
    // Half of the smallest coin of a currency with three decimals.
    if (said.length === lines.length && Math.abs(sum - takings) > 0.0005)
      context.addIssue({ code: 'custom', path: ['takings'], message: 'is not what the things sold add up to' });
  });

/** What becomes of goods that a buyer sent back. */
export const RETURN_FATES = ['back', 'waste'] as const;

export const giveBack = z
  .object({
    kind: z.literal('return'),
    /** The sale that they went out with. */
    saleId: id,
    holdingId: id,
    pieces: pieces.optional(),
    massG: massG.optional(),
    /** Money that went back to the buyer. */
    refund: money.default(0),
    /** Into the store again, or thrown away. */
    fate: z.enum(RETURN_FATES),
    why: word,
    note,
  })
  .refine((row) => (row.pieces ?? 0) > 0 || row.massG !== undefined, { message: 'is missing', path: ['pieces'] });

export const adjust = z.object({
  kind: z.literal('adjust'),
  holdingId: id,
  /** What is really there. */
  countedG: massOrNoneG.optional(),
  countedPieces: pieces.optional(),
  cause: z.enum(LOSS_CAUSES),
  note,
});
