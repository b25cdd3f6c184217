import { DomainError } from '../errors/domain-error';
import { contents as contentsSchema, type Contents, type DatedFacts } from '../ledger/contents';
import type { Material } from '../ledger/types';
import { USUAL_CONTENTS, type UsualContents } from './usual-contents';

/** What an ingredient is, as far as percentages, labels and prices ask. */
export interface IngredientFacts {
  /** Null: nobody said what it is made of, and its name says nothing either. */
  contents: Contents | null;
  /** Where the contents are from. */
  source: string;
  /** Whether they were entered for this very ingredient, rather than taken as usual. */
  own: boolean;
  cocoaPct: number;
  withoutButterPct: number;
  /** Bought chocolate of which nobody said how much is cocoa. */
  cocoaKnown: boolean;
  allergens: string[];
  /** As it was said, not as it was bought; null: nobody said. */
  pricePerKg: number | null;
}

/** By words in the name, the first that fits: only where nothing was entered. */
const BY_NAME: readonly (readonly [RegExp, UsualContents])[] = [
  [/skim|non.?fat|buttermilk/i, USUAL_CONTENTS.skimmedMilk],
  [/butter oil|milk fat|ghee/i, USUAL_CONTENTS.butterOil],
  [/coconut.*(milk|cream)|(milk|cream).*coconut/i, USUAL_CONTENTS.coconutMilk],
  [/milk powder|whole milk|full.?cream/i, USUAL_CONTENTS.wholeMilk],
  [/oat/i, USUAL_CONTENTS.oat],
  [/hazelnut/i, USUAL_CONTENTS.hazelnut],
  [/almond/i, USUAL_CONTENTS.almond],
  [/sesame|tahini/i, USUAL_CONTENTS.sesame],
  [/lecithin/i, USUAL_CONTENTS.lecithin],
  [/vanilla/i, USUAL_CONTENTS.vanilla],
  [/\bsalt/i, USUAL_CONTENTS.salt],
  [/erythritol|xylitol|maltitol|isomalt|sorbitol/i, USUAL_CONTENTS.polyol],
  [/inulin/i, USUAL_CONTENTS.inulin],
  [/coffee/i, USUAL_CONTENTS.coffee],
  [/cinnamon|chilli|chili|pepper|cardamom|ginger|anise|spice|clove|nutmeg/i, USUAL_CONTENTS.spice],
  [/freeze.?dried/i, USUAL_CONTENTS.driedFruit],
];

const usualOf = (material: Pick<Material, 'name' | 'cocoa' | 'sugar'>): UsualContents | null => {
  switch (material.cocoa) {
    case 'butter':
      return USUAL_CONTENTS.butter;
    case 'liquor':
      return USUAL_CONTENTS.liquor;
    case 'powder':
      return USUAL_CONTENTS.powder;
    default:
  }
  if (material.sugar) {
    if (/coconut|palm/i.test(material.name)) return USUAL_CONTENTS.coconutSugar;
    if (/muscovado|panela|whole/i.test(material.name)) return USUAL_CONTENTS.muscovado;
    return /cane|raw/i.test(material.name) ? USUAL_CONTENTS.caneSugar : USUAL_CONTENTS.sugar;
  }
  return material.cocoa === 'couverture' ? null : (BY_NAME.find(([words]) => words.test(material.name))?.[1] ?? null);
};

/** Bought chocolate by its label: sugar as said, cocoa as nibs and the butter that was added to them. */
function fromLabel({ cocoaPct, addedButterPct, sugarPct }: Material): UsualContents | null {
  if (cocoaPct == null) return null;
  const butter = addedButterPct ?? 0;
  const nibs = Math.max(0, cocoaPct - butter) / 100;
  const of = USUAL_CONTENTS.nibs.contents;
  const read = contentsSchema.safeParse({
    fatPct: butter + nibs * of.fatPct,
    cocoaButterPct: butter + nibs * of.fatPct,
    dryCocoaPct: nibs * of.dryCocoaPct,
    waterPct: nibs * of.waterPct,
    sugarPct: sugarPct ?? 100 - cocoaPct,
    sugarsPct: sugarPct ?? 100 - cocoaPct,
  });
  return read.success ? { contents: read.data, source: 'reckoned from its label, as a dark chocolate' } : null;
}

/** The last word of dated facts about something, up to a day. */
function lastSaid<K extends 'contents' | 'allergens' | 'pricePerKg'>(
  rows: readonly DatedFacts[],
  of: K,
  day: string,
): DatedFacts | null {
  return rows.reduce<DatedFacts | null>(
    (last, row) => (row[of] != null && (row.from ?? '') <= day && (row.from ?? '') >= (last?.from ?? '') ? row : last),
    null,
  );
}

/** What was said of an ingredient itself and holds on a day: its allergens, its price, its own contents. */
export function ownFacts(
  { allergens, pricePerKg, contents: rows = [] }: Pick<Material, 'allergens' | 'pricePerKg' | 'contents'>,
  day: string,
): {
  allergens: readonly string[];
  pricePerKg: number | null;
  contents: { contents: Contents; source: string } | null;
} {
  const said = lastSaid(rows, 'contents', day);
  return {
    allergens: lastSaid(rows, 'allergens', day)?.allergens ?? allergens,
    pricePerKg: lastSaid(rows, 'pricePerKg', day)?.pricePerKg ?? pricePerKg ?? null,
    contents: said?.contents ? { contents: said.contents, source: said.source } : null,
  };
}

/** What is newly said of an ingredient; what is left out stays. */
export interface NewFacts {
  /** Null: it has none of its own any more. */
  contents?: { contents: Contents; source: string } | null;
  allergens?: readonly string[];
  pricePerKg?: number | null;
}

/**
 * An ingredient of which something new is said, from a day on or as it has always been.
 *
 * @param from `2027-05-31`: goods made before it stay what they were; null: it was always so, whatever was said before
 */
export function withFacts<T extends Pick<Material, 'allergens' | 'pricePerKg' | 'contents'>>(
  material: T,
  said: NewFacts,
  from: string | null,
): T {
  const before = material.contents ?? [];
  const always = from === null;
  // What holds always takes the place of every earlier word about it; what holds from a day, of that day's.
  const kept = before.map((row) => ({
    ...row,
    ...(said.contents !== undefined && (always || said.contents === null || row.from === from)
      ? { contents: null, source: '' }
      : {}),
    ...(said.allergens !== undefined && (always || row.from === from) ? { allergens: null } : {}),
    ...(said.pricePerKg !== undefined && (always || row.from === from) ? { pricePerKg: null } : {}),
  }));
  const fresh: DatedFacts = {
    ...(kept.find((row) => row.from === from) ?? { source: '', contents: null, allergens: null, pricePerKg: null }),
    from,
    ...(said.contents ? said.contents : {}),
    ...(!always && said.allergens ? { allergens: [...said.allergens] } : {}),
    ...(!always && said.pricePerKg != null ? { pricePerKg: said.pricePerKg } : {}),
  };
  return {
    ...material,
    ...(always && said.allergens ? { allergens: [...said.allergens] } : {}),
    ...(always && said.pricePerKg !== undefined ? { pricePerKg: said.pricePerKg } : {}),
    contents: [...kept.filter((row) => row.from !== from), fresh]
      .filter((row) => row.contents != null || row.allergens != null || row.pricePerKg != null)
      .sort((a, b) => (a.from ?? '').localeCompare(b.from ?? '')),
  };
}

/** As many layers of ingredients within ingredients as anybody has. */
const DEEPEST = 8;

/**
 * What an ingredient is on a day.
 *
 * @param day `2027-05-31`; @param find other ingredients, for one that is made of them
 * @throws DomainError `recipe/contains-itself` for one that is in itself
 */
export function ingredientFacts(
  material: Material,
  day: string,
  find: (id: string) => Material | undefined,
  within: readonly string[] = [],
): IngredientFacts {
  if (within.includes(material.id) || within.length > DEEPEST)
    throw new DomainError('recipe/contains-itself', `“${material.name}” would be made of itself.`, [
      { path: 'madeOf', message: 'names what is made of it' },
    ]);
  const parts = (material.madeOf ?? []).flatMap(({ materialId, pct }) => {
    const part = find(materialId);
    return part ? [{ pct, facts: ingredientFacts(part, day, find, [...within, material.id]) }] : [];
  });
  const own = ownFacts(material, day);
  const allergens = [...new Set([...own.allergens, ...parts.flatMap(({ facts }) => facts.allergens)])].sort();
  const held = own.contents;
  const mixed = parts.length > 0 ? mix(parts) : null;
  const known =
    held ??
    (mixed ? { contents: mixed, source: 'from what it is made of' } : (fromLabel(material) ?? usualOf(material)));
  const contents = known?.contents ?? null;
  const counted = ((): { cocoaPct: number; withoutButterPct: number; cocoaKnown: boolean } => {
    if (material.cocoa === 'butter') return { cocoaPct: 100, withoutButterPct: 0, cocoaKnown: true };
    if (material.cocoa === 'liquor' || material.cocoa === 'powder')
      return { cocoaPct: 100, withoutButterPct: 100, cocoaKnown: true };
    if (material.cocoa === 'couverture') {
      const cocoaPct = material.cocoaPct ?? 0;
      return {
        cocoaPct,
        withoutButterPct: cocoaPct - (material.addedButterPct ?? 0),
        cocoaKnown: material.cocoaPct != null,
      };
    }
    const sum = (of: 'cocoaPct' | 'withoutButterPct'): number =>
      parts.reduce((total, { pct, facts }) => total + (pct / 100) * facts[of], 0);
    return { cocoaPct: sum('cocoaPct'), withoutButterPct: sum('withoutButterPct'), cocoaKnown: true };
  })();
  return {
    contents,
    source: known?.source ?? '',
    own: held !== null,
    allergens,
    pricePerKg: own.pricePerKg,
    ...counted,
  };
}

function mix(parts: readonly { pct: number; facts: IngredientFacts }[]): Contents | null {
  if (parts.some(({ facts }) => facts.contents === null)) return null;
  const keys = (Object.keys(contentsSchema.parse({})) as (keyof Contents)[]).filter((key) => key !== 'densityGPerMl');
  const sum = Object.fromEntries(
    keys.map((key) => [
      key,
      Math.min(
        100,
        parts.reduce((t, { pct, facts }) => t + (pct / 100) * (facts.contents?.[key] ?? 0), 0),
      ),
    ]),
  );
  return { ...(sum as unknown as Contents), densityGPerMl: null };
}
