import { z } from 'zod';
import { id, money, name, text } from '../fields/fields';
import { isGtin } from './gtin';

/* What is sold. Only ever added to: each saving is the next version. */

export const FORMS = ['plain', 'stirred', 'topped', 'filled', 'tablet', 'couverture'] as const;
export type Form = (typeof FORMS)[number];
export const FORM_WORDS: Readonly<Record<Form, string>> = {
  plain: 'Plain bar',
  stirred: 'Inclusions stirred in',
  topped: 'Topping',
  filled: 'Shell, fill, close',
  tablet: 'Drinking tablet',
  couverture: 'Couverture, blocks or drops',
};

/** What is in or on a piece beside its chocolate. */
export const ROLES = ['inclusion', 'topping', 'filling', 'decoration'] as const;
export type Role = (typeof ROLES)[number];
export const ROLE_WORDS: Readonly<Record<Role, string>> = {
  inclusion: 'stirred in',
  topping: 'on top',
  filling: 'filling',
  decoration: 'decoration',
};

const grams = z.number().positive('must be more than 0').max(20_000, 'is more than 20 kg');
export const productPart = z.object({ materialId: id, role: z.enum(ROLES), grams });
export type ProductPart = z.infer<typeof productPart>;
/** One component of the packaging; several pieces may share one: a box for ten is a tenth of a box. */
export const component = z.object({
  materialId: id,
  perPiece: z.number().min(0.001, 'must be at least 0.001').max(100, 'are too many'),
});
export const channelName = z.string().trim().min(1, 'is missing').max(60, 'is longer than 60 letters');

export const productFacts = z
  .object({
    name,
    /** Recipes that its chocolate may be of; none: any. */
    recipeIds: z.array(id).max(20, 'are too many').default([]),
    mouldId: id.nullable().default(null),
    /** What a piece is sold as weighing. */
    declaredG: grams,
    form: z.enum(FORMS),
    pack: z.enum(['retail', 'bulk']).default('retail'),
    parts: z.array(productPart).max(12, 'are too many').default([]),
    /** Shells stand so long before they are turned out. */
    shellSec: z.number().min(5, 'is too short').max(1800, 'is more than half an hour').nullable().default(null),
    packaging: z.array(component).max(12, 'are too many').default([]),
    /** Months that it keeps; null: what is usual for what is in it. */
    keepsMonths: z.number().min(0.25, 'is under a week').max(60, 'is more than five years').nullable().default(null),
    /** The number in its bar code. */
    gtin: z
      .string()
      .trim()
      .refine(isGtin, 'is no such number: its last digit does not fit the others')
      .nullable()
      .default(null),
    prices: z
      .array(z.object({ channel: channelName, price: money }))
      .max(20, 'are too many')
      .default([]),
    retired: z.boolean().default(false),
  })
  .refine(({ form, parts }) => form !== 'filled' || parts.some(({ role }) => role === 'filling'), {
    message: 'names no filling',
    path: ['parts'],
  })
  .refine(({ declaredG, parts }) => parts.reduce((sum, part) => sum + part.grams, 0) < declaredG, {
    message: 'weigh as much as the whole piece',
    path: ['parts'],
  })
  .refine(({ prices }) => new Set(prices.map(({ channel }) => channel.toLowerCase())).size === prices.length, {
    message: 'name a channel twice',
    path: ['prices'],
  });
export type ProductFacts = z.infer<typeof productFacts>;

export const productRecord = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('product'), productId: id, facts: productFacts, why: text(300) }),
]);
export type ProductRecordValue = z.infer<typeof productRecord>;
