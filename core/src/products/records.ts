import { z } from 'zod/mini';
import { field } from '../fields/registry';
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

const grams = z.number().check(z.positive('must be more than 0'), z.maximum(20_000, 'is more than 20 kg'));
export const productPart = z.object({
  materialId: field(id, { label: 'Ingredient' }),
  role: field(z.enum(ROLES), { label: 'How', words: ROLE_WORDS }),
  grams: field(grams, { label: 'A piece', unit: 'g', weighed: 'piece' }),
});
export type ProductPart = z.infer<typeof productPart>;
/** One component of the packaging; several pieces may share one: a box for ten is a tenth of a box. */
export const component = z.object({
  materialId: field(id, { label: 'Component' }),
  perPiece: field(z.number().check(z.minimum(0.001, 'must be at least 0.001'), z.maximum(100, 'are too many')), {
    label: 'A piece takes',
  }),
});
export const channelName = z
  .string()
  .check(z.trim(), z.minLength(1, 'is missing'), z.maxLength(60, 'is longer than 60 letters'));

export const productFacts = z
  .object({
    name: field(name, { label: 'Name' }),
    /** Recipes that its chocolate may be of; none: any. */
    recipeIds: field(z._default(z.array(id).check(z.maxLength(20, 'are too many')), []), {
      label: 'Made from (none: any)',
    }),
    mouldId: field(z._default(z.nullable(id), null), { label: 'Mould' }),
    /** What a piece is sold as weighing. */
    declaredG: field(grams, { label: 'A piece weighs', unit: 'g', weighed: 'piece' }),
    form: field(z.enum(FORMS), { label: 'What it is', words: FORM_WORDS }),
    pack: field(z._default(z.enum(['retail', 'bulk']), 'retail'), {
      label: 'Sold',
      words: { retail: 'by the piece', bulk: 'in bulk, to kitchens' },
    }),
    parts: field(z._default(z.array(productPart).check(z.maxLength(12, 'are too many')), []), {
      label: 'In or on a piece, beside its chocolate',
    }),
    /** Shells stand so long before they are turned out. */
    shellSec: field(
      z._default(
        z.nullable(z.number().check(z.minimum(5, 'is too short'), z.maximum(1800, 'is more than half an hour'))),
        null,
      ),
      { label: 'A shell stands for', unit: 's' },
    ),
    packaging: field(z._default(z.array(component).check(z.maxLength(12, 'are too many')), []), { label: 'Around it' }),
    /** Months that it keeps; null: what is usual for what is in it. */
    keepsMonths: field(
      z._default(
        z.nullable(z.number().check(z.minimum(0.25, 'is under a week'), z.maximum(60, 'is more than five years'))),
        null,
      ),
      { label: 'Keeps', unit: 'months', example: 'as usual' },
    ),
    /** The number in its bar code. */
    gtin: field(
      z._default(
        z.nullable(
          z.string().check(z.trim(), z.refine(isGtin, 'is no such number: its last digit does not fit the others')),
        ),
        null,
      ),
      { label: 'Number in its bar code' },
    ),
    prices: z._default(
      z
        .array(z.object({ channel: field(channelName, { label: 'Channel' }), price: field(money, { label: 'Price' }) }))
        .check(z.maxLength(20, 'are too many')),
      [],
    ),
    retired: field(z._default(z.boolean(), false), { label: 'Not sold any more' }),
  })
  .check(
    z.refine(({ form, parts }) => form !== 'filled' || parts.some(({ role }) => role === 'filling'), {
      message: 'names no filling',
      path: ['parts'],
    }),
    z.refine(({ declaredG, parts }) => parts.reduce((sum, part) => sum + part.grams, 0) < declaredG, {
      message: 'weigh as much as the whole piece',
      path: ['parts'],
    }),
    z.refine(({ prices }) => new Set(prices.map(({ channel }) => channel.toLowerCase())).size === prices.length, {
      message: 'name a channel twice',
      path: ['prices'],
    }),
  );
export type ProductFacts = z.infer<typeof productFacts>;

export const productRecord = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('product'), productId: id, facts: productFacts, why: text(300) }),
]);
export type ProductRecordValue = z.infer<typeof productRecord>;
