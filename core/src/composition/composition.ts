import type { Contents } from '../ledger/contents';
import type { Material } from '../ledger/types';
import { figuresOf, type FigurePart, type Figures } from './figures';
import type { IngredientFacts } from './ingredient-facts';
import { USUAL_CONTENTS } from './usual-contents';

/** What is known of goods that were there before the book began. */
export interface KnownGoods {
  name: string;
  /** All of it is cacao: beans, roasted beans, nibs. */
  cacao: boolean;
  cocoaPct: number | null;
  withoutButterPct: number | null;
  sugarPct: number | null;
  allergens: readonly string[];
}

/** What a root of a make-up is: cacao from a lot, an ingredient as bought, or goods from before the book. */
export type Root =
  | { kind: 'cacao'; lotId: string; contents?: Contents }
  | { kind: 'ingredient'; material: Material; facts?: IngredientFacts }
  | { kind: 'opening'; id: string; goods: KnownGoods };

/** One thing that goods are made of. */
export interface Part {
  rootId: string;
  /** Cacao by its lot's id; everything else by its name. */
  name: string;
  kind: Root['kind'];
  share: number;
}

/** What some goods really are, at this moment, from the ledger. */
export interface Composition {
  /** (nibs + liquor + cocoa butter + cocoa powder) / total, in percent: what most laws call cocoa. */
  cocoaPct: number;
  /** The same without cocoa butter that was added as such. */
  withoutButterPct: number;
  sugarPct: number;
  /** Share of the mass of which nobody said how much of it is cocoa: the percentages are of the rest of the facts. */
  unknownShare: number;
  /** Whether all added butter is known: bought couverture seldom says how much of its butter was added. */
  butterKnown: boolean;
  /** Lots of cacao by share of all cacao, largest first. */
  lots: { lotId: string; share: number }[];
  allergens: string[];
  /** Where each allergen comes from. */
  allergensFrom: { allergen: string; from: string[]; share: number }[];
  /** Everything in it, in falling order. */
  parts: Part[];
  /** Fat, sugar, milk and all the rest, from what its parts are made of: of chocolate, not of beans in their shell. */
  figures: Figures;
}

/** A trace of rounding, no part of anything. */
const NOTHING = 1e-9;

interface Counts {
  cocoa: number;
  withoutButter: number;
  sugar: number;
  unknown: number;
  butterKnown: boolean;
}

function countMaterial(counts: Counts, { cocoa, sugar, cocoaPct, addedButterPct, sugarPct }: Material, share: number) {
  if (cocoa === 'couverture') {
    if (cocoaPct == null) counts.unknown += share;
    else {
      counts.cocoa += (share * cocoaPct) / 100;
      counts.withoutButter += (share * (cocoaPct - (addedButterPct ?? 0))) / 100;
    }
    if (addedButterPct == null) counts.butterKnown = false;
    counts.sugar += (share * (sugarPct ?? 0)) / 100;
    return;
  }
  if (cocoa !== 'none') counts.cocoa += share;
  if (cocoa === 'liquor' || cocoa === 'powder') counts.withoutButter += share;
  if (sugar) counts.sugar += share;
}

/** An ingredient that is made of others counts by what they are. */
function countFacts(counts: Counts, facts: IngredientFacts, share: number): void {
  counts.cocoa += (share * facts.cocoaPct) / 100;
  counts.withoutButter += (share * facts.withoutButterPct) / 100;
  counts.sugar += (share * (facts.contents?.sugarPct ?? 0)) / 100;
}

function countGoods(counts: Counts, goods: KnownGoods, share: number): void {
  if (goods.cacao) {
    counts.cocoa += share;
    counts.withoutButter += share;
    return;
  }
  if (goods.cocoaPct === null) counts.unknown += share;
  else {
    counts.cocoa += (share * goods.cocoaPct) / 100;
    counts.withoutButter += (share * (goods.withoutButterPct ?? goods.cocoaPct)) / 100;
  }
  if (goods.withoutButterPct === null) counts.butterKnown = false;
  counts.sugar += (share * (goods.sugarPct ?? 0)) / 100;
}

/**
 * What goods really are: cocoa percent with and without added butter, sugar, allergens and where they come from,
 * and everything in falling order; whatever joined, and wherever it did.
 *
 * @param makeUp share by mass of each root, adding up to 1
 * @param rootOf what a root is; unknown roots count as neither cocoa nor sugar
 */
export function compositionOf(
  makeUp: ReadonlyMap<string, number>,
  rootOf: (rootId: string) => Root | undefined,
): Composition {
  const counts: Counts = { cocoa: 0, withoutButter: 0, sugar: 0, unknown: 0, butterKnown: true };
  const lots = new Map<string, number>();
  const allergens = new Map<string, { from: Set<string>; share: number }>();
  const parts: Part[] = [];
  const made: FigurePart[] = [];
  let cacao = 0;
  const contain = (list: readonly string[], name: string, share: number): void => {
    for (const allergen of list) {
      const row = allergens.get(allergen) ?? { from: new Set(), share: 0 };
      row.from.add(name);
      row.share += share;
      allergens.set(allergen, row);
    }
  };
  const addCacao = (lotId: string, share: number): void => {
    cacao += share;
    lots.set(lotId, (lots.get(lotId) ?? 0) + share);
  };
  for (const [rootId, share] of makeUp) {
    const root = rootOf(rootId);
    if (!root || share <= NOTHING) continue;
    if (root.kind === 'cacao') {
      addCacao(root.lotId, share);
      counts.cocoa += share;
      counts.withoutButter += share;
      parts.push({ rootId, name: root.lotId, kind: 'cacao', share });
      made.push({
        share,
        contents: root.contents ?? USUAL_CONTENTS.nibs.contents,
        cocoaPct: 100,
        withoutButterPct: 100,
      });
    } else if (root.kind === 'ingredient') {
      const before = { cocoa: counts.cocoa, withoutButter: counts.withoutButter };
      if (root.facts && (root.material.madeOf?.length ?? 0) > 0) countFacts(counts, root.facts, share);
      else countMaterial(counts, root.material, share);
      contain(broughtBy(root), root.material.name, share);
      made.push({
        share,
        contents: root.facts?.contents ?? null,
        cocoaPct: (100 * (counts.cocoa - before.cocoa)) / share,
        withoutButterPct: (100 * (counts.withoutButter - before.withoutButter)) / share,
      });
      parts.push({ rootId, name: root.material.name, kind: 'ingredient', share });
    } else {
      countGoods(counts, root.goods, share);
      made.push({
        share,
        contents: root.goods.cacao ? USUAL_CONTENTS.nibs.contents : null,
        cocoaPct: root.goods.cacao ? 100 : (root.goods.cocoaPct ?? 0),
        withoutButterPct: root.goods.cacao ? 100 : (root.goods.withoutButterPct ?? root.goods.cocoaPct ?? 0),
      });
      if (root.goods.cacao) addCacao(root.id, share);
      contain(broughtBy(root), root.goods.name, share);
      parts.push({ rootId, name: root.goods.name, kind: 'opening', share });
    }
  }
  return {
    cocoaPct: 100 * counts.cocoa,
    withoutButterPct: 100 * counts.withoutButter,
    sugarPct: 100 * counts.sugar,
    unknownShare: counts.unknown,
    butterKnown: counts.butterKnown,
    lots: [...lots]
      .map(([lotId, share]) => ({ lotId, share: cacao > 0 ? share / cacao : 0 }))
      .filter(({ share }) => share > NOTHING)
      .sort((a, b) => b.share - a.share),
    allergens: [...allergens.keys()].sort(),
    allergensFrom: [...allergens]
      .map(([allergen, { from, share }]) => ({ allergen, from: [...from].sort(), share }))
      .sort((a, b) => b.share - a.share),
    parts: parts.sort((a, b) => b.share - a.share),
    figures: figuresOf(made),
  };
}

/** Allergens that a root brings, and who it is. */
const broughtBy = (root: Root): readonly string[] =>
  root.kind === 'cacao'
    ? []
    : root.kind === 'ingredient'
      ? (root.facts?.allergens ?? root.material.allergens)
      : root.goods.allergens;

/** Only the allergens of goods, which many are asked for at once. @returns by name */
export function allergensIn(
  makeUp: ReadonlyMap<string, number>,
  rootOf: (rootId: string) => Root | undefined,
): string[] {
  const found = new Set<string>();
  for (const [rootId, share] of makeUp) {
    const root = share <= NOTHING ? undefined : rootOf(rootId);
    if (root) for (const allergen of broughtBy(root)) found.add(allergen);
  }
  return [...found].sort();
}

export interface OriginVerdict {
  kind: 'none' | 'single-lot' | 'single-origin' | 'blend';
  sentence: string;
}

/** Whether a batch may still call itself single-origin: one lot; several of one producer; or a blend. */
export function originVerdict(
  lots: readonly { code: string; producer: string; country: string; region: string; share: number }[],
): OriginVerdict {
  const [first, ...rest] = lots;
  if (!first) return { kind: 'none', sentence: 'No cacao of a known lot in it.' };
  const percent = (share: number): string => `${(100 * share).toFixed(share > 0.1 ? 0 : 1)} %`;
  if (rest.length === 0) {
    return {
      kind: 'single-lot',
      sentence: `Single-origin: all cacao from lot ${first.code}${first.producer === '' ? '' : `, ${first.producer}`}.`,
    };
  }
  const parts = lots.map((lot) => `${percent(lot.share)} ${lot.code}`).join(', ');
  const same = rest.every(
    (lot) => lot.country === first.country && lot.producer === first.producer && lot.region === first.region,
  );
  return same
    ? { kind: 'single-origin', sentence: `One origin, ${lots.length} lots of ${first.producer}: ${parts}.` }
    : { kind: 'blend', sentence: `No longer single-origin: ${parts}.` };
}
