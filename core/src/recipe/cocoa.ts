import type { Material } from '../ledger/types';

/** What a root of a make-up is: cacao from a lot, or an ingredient. */
export type Root = { kind: 'cacao'; lotId: string } | { kind: 'ingredient'; material: Material };

export interface CocoaFigures {
  /** (nibs + liquor + cocoa butter + cocoa powder) / total, in percent: what most laws call cocoa. */
  cocoaPct: number;
  /** The same without cocoa butter that was added as such. */
  withoutButterPct: number;
  sugarPct: number;
  /** Lots of cacao by share of all cacao, largest first. */
  lots: { lotId: string; share: number }[];
  allergens: string[];
}

/**
 * Cocoa percent, with and without added butter, from what is really in the bowl.
 *
 * @param makeUp share by mass of each root, adding up to 1
 * @param rootOf what a root is; unknown roots count as neither cocoa nor sugar
 */
export function cocoaFigures(
  makeUp: ReadonlyMap<string, number>,
  rootOf: (rootId: string) => Root | undefined,
): CocoaFigures {
  let cacao = 0;
  let butter = 0;
  let other = 0;
  let sugar = 0;
  const lots = new Map<string, number>();
  const allergens = new Set<string>();
  for (const [rootId, share] of makeUp) {
    const root = rootOf(rootId);
    if (root?.kind === 'cacao') {
      cacao += share;
      lots.set(root.lotId, (lots.get(root.lotId) ?? 0) + share);
    } else if (root) {
      if (root.material.cocoa === 'butter') butter += share;
      else if (root.material.cocoa !== 'none') other += share;
      if (root.material.sugar) sugar += share;
      root.material.allergens.forEach((allergen) => allergens.add(allergen));
    }
  }
  return {
    cocoaPct: 100 * (cacao + butter + other),
    withoutButterPct: 100 * (cacao + other),
    sugarPct: 100 * sugar,
    lots: [...lots]
      .map(([lotId, share]) => ({ lotId, share: cacao > 0 ? share / cacao : 0 }))
      .filter(({ share }) => share > 1e-9)
      .sort((a, b) => b.share - a.share),
    allergens: [...allergens].sort(),
  };
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
  if (!first) return { kind: 'none', sentence: 'No cacao in it yet.' };
  const percent = (share: number): string => `${(100 * share).toFixed(share > 0.1 ? 0 : 1)} %`;
  if (rest.length === 0) {
    return { kind: 'single-lot', sentence: `Single-origin: all cacao from lot ${first.code}, ${first.producer}.` };
  }
  const parts = lots.map((lot) => `${percent(lot.share)} ${lot.code}`).join(', ');
  const same = rest.every(
    (lot) => lot.country === first.country && lot.producer === first.producer && lot.region === first.region,
  );
  return same
    ? { kind: 'single-origin', sentence: `One origin, ${lots.length} lots of ${first.producer}: ${parts}.` }
    : { kind: 'blend', sentence: `No longer single-origin: ${parts}.` };
}
