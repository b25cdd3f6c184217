import { z } from 'zod/mini';
import { field } from '../fields/registry';

/** Rounding of tables: parts of a hundred grams may add up to a little more. */
const SLACK = 0.05;
/** Grams in 100 g: fourteen fields side by side, under words that say so once. */
const part = (label: string) =>
  field(z._default(z.number().check(z.minimum(0, 'cannot be below 0'), z.maximum(100, 'is more than all of it')), 0), {
    label,
  });

/** What 100 g of an ingredient are made of; what is not named is other dry matter. */
const fields = z.object({
  /** All fat, cocoa butter and milk fat among it. */
  fatPct: part('Fat'),
  cocoaButterPct: part('of it cocoa butter'),
  milkFatPct: part('of it milk fat'),
  /** Cocoa without its fat, dry. */
  dryCocoaPct: part('Fat-free cocoa'),
  /** Sugar that was added as such, also what a sweet ingredient brings of it. */
  sugarPct: part('Sugar'),
  /** Sweeteners without sugar. */
  polyolsPct: part('Sweetener without sugar'),
  /** Milk without its fat, dry. */
  dryMilkPct: part('Fat-free milk solids'),
  saltPct: part('Salt'),
  waterPct: part('Water'),
  /** Of the fat, emulsifying: lecithin. */
  lecithinPct: part('Lecithin, in the fat'),
  /** For the label's estimate: all sugars, lactose and those of fruit among them. */
  sugarsPct: part('All sugars, for the label'),
  proteinPct: part('Protein'),
  fibrePct: part('Fibre'),
  /** Grams a millilitre, where it was measured; else from what it is made of. */
  densityGPerMl: field(
    z._default(
      z.nullable(
        z.number().check(z.minimum(0.3, 'is lighter than any powder'), z.maximum(4, 'is heavier than any food')),
      ),
      null,
    ),
    { label: 'Density, if measured', unit: 'g/ml' },
  ),
});

const sumOf = (c: z.infer<typeof fields>): number =>
  c.fatPct + c.dryCocoaPct + c.sugarPct + c.polyolsPct + c.dryMilkPct + c.saltPct + c.waterPct;

export const contents = fields.check(
  z.superRefine((c, context) => {
    const wrong = (path: string, message: string): void => context.addIssue({ code: 'custom', path: [path], message });
    if (c.cocoaButterPct + c.milkFatPct > c.fatPct + SLACK)
      wrong('fatPct', 'is less than the cocoa butter and milk fat in it');
    if (c.lecithinPct > c.fatPct + SLACK) wrong('lecithinPct', 'is more than the fat it is counted with');
    if (sumOf(c) > 100 + SLACK) wrong('fatPct', `and the rest add up to ${sumOf(c).toFixed(1)} %, more than all of it`);
  }),
);
export type Contents = z.infer<typeof contents>;

/** Allergens in the trade's plain words. */
export const allergens = z
  .array(z.string().check(z.trim(), z.minLength(1), z.maxLength(40)))
  .check(z.maxLength(14, 'are too many'));

/** Facts of an ingredient with the day from which they hold; what is null is not said, and stays what it was before. */
export const datedFacts = z.object({
  /** The first day that they hold; null: since ever. */
  from: z._default(z.nullable(z.iso.date('is a date like 2027-05-31')), null),
  /** Where the contents are from. */
  source: field(z._default(z.string().check(z.trim(), z.maxLength(200, 'is longer than 200 letters')), ''), {
    label: 'Where the figures are from',
    example: 'label of the bag, laboratory',
  }),
  contents: z._default(z.nullable(contents), null),
  allergens: z._default(z.nullable(allergens), null),
  pricePerKg: z._default(
    z.nullable(z.number().check(z.minimum(0, 'cannot be below 0'), z.maximum(100_000_000, 'is too large'))),
    null,
  ),
});
export type DatedFacts = z.infer<typeof datedFacts>;

/** An ingredient that is made of others, as a praline paste is. */
export const madeOf = z
  .array(
    z.object({
      materialId: z.string().check(z.minLength(1), z.maxLength(64)),
      pct: field(z.number().check(z.positive('must be more than 0'), z.maximum(100, 'is more than all of it')), {
        label: 'Share',
        unit: '%',
      }),
    }),
  )
  .check(
    z.maxLength(20, 'is too many'),
    z.refine(
      (rows) => rows.length === 0 || Math.abs(rows.reduce((sum, { pct }) => sum + pct, 0) - 100) <= 0.1,
      'does not add up to 100 %',
    ),
  );

/** Dry matter that none of the other parts is, so that all parts add up to 100. */
export const otherDryPct = (c: Contents): number => Math.max(0, 100 - sumOf(c));
