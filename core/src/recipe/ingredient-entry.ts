import { z } from 'zod/mini';
import { ownFacts, withFacts, type NewFacts } from '../composition/ingredient-facts';
import { field } from '../fields/registry';
import { contents, datedFacts, madeOf } from '../ledger/contents';
import type { Material } from '../ledger/types';
import { newMaterial } from '../workshop/schemas';

/* An ingredient as one form says it: what it counts as, what it is made of and since when, what it costs. */

const fields = newMaterial.shape;

/** What was said of an ingredient before: an entry is read beside it. */
export type Known = Pick<Material, 'id' | 'allergens' | 'pricePerKg' | 'contents'>;

export const ingredientEntry = z.object({
  name: fields.name,
  cocoa: field(fields.cocoa, {
    label: 'Counts as',
    words: {
      none: 'no cocoa',
      butter: 'cocoa butter',
      liquor: 'cocoa liquor',
      powder: 'cocoa powder',
      couverture: 'bought chocolate',
    },
  }),
  sugar: field(fields.sugar, { label: 'It is a sugar' }),
  allergens: field(fields.allergens, { label: 'Allergens, apart by commas', example: 'milk, hazelnut' }),
  origin: fields.origin,
  pricePerKg: field(fields.pricePerKg, {
    label: 'Price',
    unit: 'a kg',
    priced: true,
    example: 'from what was bought',
  }),
  keepsMonths: field(fields.keepsMonths, { label: 'Goods with it keep, months', example: 'as usual' }),
  cocoaPct: fields.cocoaPct,
  addedButterPct: field(fields.addedButterPct, { label: 'Of it, added butter', unit: '%', example: 'not known' }),
  sugarPct: fields.sugarPct,
  retired: field(z._default(z.boolean(), false), { label: 'No longer bought' }),
  own: field(z._default(z.boolean(), false), { label: 'I have its own figures, from its label or an analysis' }),
  source: datedFacts.shape.source,
  made: contents,
  madeOf,
  from: field(datedFacts.shape.from, { label: 'What is changed holds from (empty: it was always so)' }),
});
export type IngredientEntry = z.infer<typeof ingredientEntry>;

/** The form's schema beside what is known: a price cannot be taken away from a day on. */
export const entryBeside = (material: Known, today: string) =>
  ingredientEntry.check(
    z.superRefine(({ from, pricePerKg }, context) => {
      if (from === null || pricePerKg != null || ownFacts(material, today).pricePerKg === null) return;
      context.addIssue({
        code: 'custom',
        path: ['pricePerKg'],
        message: 'can be taken away only as if there had never been one: leave the day empty, or enter the new price',
      });
    }),
  );

/** How an ingredient stands in its form. @param usual what is taken of it where it has no figures of its own */
export function entryOf(
  material: Material,
  today: string,
  usual: IngredientEntry['made'] | null,
): Partial<IngredientEntry> {
  const now = ownFacts(material, today);
  return {
    ...material,
    allergens: [...now.allergens],
    pricePerKg: now.pricePerKg,
    retired: material.retired ?? false,
    own: now.contents !== null,
    source: now.contents?.source ?? '',
    made: now.contents?.contents ?? usual ?? contents.parse({}),
    madeOf: material.madeOf ?? [],
    from: null,
  };
}

/**
 * An ingredient as it is sent, from its form: what stands as it stood is not said again.
 *
 * @param material as it was before; @param today `2027-05-31`
 */
export function materialFrom(
  { own, source, made, from, allergens, pricePerKg = null, ...entry }: IngredientEntry,
  material: Known,
  today: string,
): z.infer<typeof newMaterial> {
  const now = ownFacts(material, today);
  const said: NewFacts = {
    ...(own && JSON.stringify({ contents: made, source }) !== JSON.stringify(now.contents)
      ? { contents: { contents: made, source } }
      : {}),
    ...(!own && now.contents !== null ? { contents: null } : {}),
    ...(allergens.join() !== now.allergens.join() ? { allergens } : {}),
    ...(pricePerKg !== now.pricePerKg ? { pricePerKg } : {}),
  };
  const facts = withFacts(material, said, from);
  return {
    ...entry,
    kind: 'ingredient',
    sugar: entry.cocoa === 'none' && entry.sugar,
    allergens: [...facts.allergens],
    pricePerKg: facts.pricePerKg ?? null,
    contents: facts.contents,
  };
}
