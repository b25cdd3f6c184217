import { z } from 'zod/mini';
import { field } from '../fields/registry';
import { source } from '../fields/sources';
import { LOSS_CAUSES } from '../ledger/types';
import { massG, massOrNoneG, pieces, money, id, note, name, word } from '../fields/fields';

export const buy = z.object({
  kind: z.literal('buy'),
  materialId: field(id, { label: 'What was bought' }),
  supplier: field(name, { label: 'Supplier' }),
  supplierBatch: field(word, { label: 'Their batch number' }),
  /** The day that the supplier says it keeps to. */
  bestBefore: field(z.optional(z.nullable(z.iso.date('is a date like 2027-05-31'))), { label: 'It keeps to' }),
  massG: field(z.optional(massG), { label: 'Weight' }),
  pieces: field(z.optional(pieces.check(z.minimum(1, 'must be at least 1'))), { label: 'Pieces' }),
  price: field(money, { label: 'Price, all of it' }),
  note,
});
export type BuyCommand = z.infer<typeof buy>;

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
      .array(z.safeExtend(source, { takings: z.optional(money) }))
      .check(z.minLength(1, 'choose what goes out'), z.maxLength(60, 'is too many at once')),
    takings: field(money, { label: 'Takings' }),
    to: field(word, { label: 'To whom' }),
    /** What became of it, where it was not simply sold. */
    use: field(z.optional(z.enum([...HUSK_USES, ...FREE_USES])), { label: 'What became of it' }),
    /** By which channel, and for which order. */
    channel: field(
      z.optional(
        z.string().check(z.trim(), z.minLength(1, 'is missing'), z.maxLength(60, 'is longer than 60 letters')),
      ),
      { label: 'Channel' },
    ),
    orderId: z.optional(id),
    note,
  })
  .check(
    z.superRefine(({ sources: lines, takings }, context) => {
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
    }),
  );
export type SellCommand = z.infer<typeof sell>;

/** What becomes of goods that a buyer sent back. */
export const RETURN_FATES = ['back', 'waste'] as const;

export const giveBack = z
  .object({
    kind: z.literal('return'),
    /** The sale that they went out with. */
    saleId: id,
    holdingId: id,
    pieces: field(z.optional(pieces), { label: 'Came back' }),
    massG: field(z.optional(massG), { label: 'Weight that came back' }),
    /** Money that went back to the buyer. */
    refund: field(z._default(money, 0), { label: 'Money given back' }),
    /** Into the store again, or thrown away. */
    fate: field(z.enum(RETURN_FATES), { label: 'What became of it' }),
    why: field(word, { label: 'Why' }),
    note,
  })
  .check(
    z.refine((row) => (row.pieces ?? 0) > 0 || row.massG !== undefined, { message: 'is missing', path: ['pieces'] }),
  );
export type ReturnCommand = z.infer<typeof giveBack>;

export const adjust = z.object({
  kind: z.literal('adjust'),
  holdingId: field(id, { label: 'What was counted' }),
  /** What is really there. */
  countedG: field(z.optional(massOrNoneG), { label: 'Really there' }),
  countedPieces: field(z.optional(pieces), { label: 'Pieces really there' }),
  cause: field(z.enum(LOSS_CAUSES), { label: 'Why it differs' }),
  note,
});
export type AdjustCommand = z.infer<typeof adjust>;
