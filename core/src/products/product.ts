import type { ProductFacts } from './records';

/** One version of a product. */
export interface ProductVersion {
  id: string;
  /** From 1. */
  version: number;
  at: number;
  personId: string;
  why: string;
  facts: ProductFacts;
}

/** Products by their id, every version, the first first. */
export class Products {
  private readonly rows = new Map<string, ProductVersion[]>();

  add(id: string, facts: ProductFacts, by: Pick<ProductVersion, 'at' | 'personId' | 'why'>): ProductVersion {
    const versions = this.rows.get(id) ?? [];
    const next = { id, version: versions.length + 1, facts, ...by };
    this.rows.set(id, [...versions, next]);
    return next;
  }

  versions = (id: string): readonly ProductVersion[] => this.rows.get(id) ?? [];
  newest = (id: string): ProductVersion | undefined => this.rows.get(id)?.at(-1);
  version = (id: string, version: number): ProductVersion | undefined => this.rows.get(id)?.[version - 1];
  /** The newest of each. */
  all = (): ProductVersion[] => [...this.rows.keys()].flatMap((id) => this.newest(id) ?? []);
  /** The newest of each that is still sold. */
  current = (): ProductVersion[] => this.all().filter(({ facts }) => !facts.retired);
}

/** What a piece is made of: its chocolate, and what is in and on it. */
export interface PieceParts {
  chocolateG: number;
  partsG: number;
  /** % of the whole that is not chocolate. */
  partsPct: number;
}

export function pieceParts({ declaredG, parts }: Pick<ProductFacts, 'declaredG' | 'parts'>): PieceParts {
  const partsG = parts.reduce((sum, { grams }) => sum + grams, 0);
  return { chocolateG: declaredG - partsG, partsG, partsPct: (100 * partsG) / declaredG };
}

/** Grams of each ingredient that so many pieces take beside chocolate: one that is in and on them counts once. */
export function partsOf(
  { parts }: Pick<ProductFacts, 'parts'>,
  pieces: number,
): { materialId: string; grams: number }[] {
  const sums = new Map<string, number>();
  for (const { materialId, grams } of parts) sums.set(materialId, (sums.get(materialId) ?? 0) + grams);
  return [...sums].map(([materialId, grams]) => ({ materialId, grams: Math.round(10 * grams * pieces) / 10 }));
}

/** Pieces that a bowl gives. */
export interface Left {
  bars: number;
  /** Grams of each ingredient that so many bars take. */
  parts: { materialId: string; grams: number }[];
  /** Chocolate that is left over. */
  overG: number;
}

/**
 * Pieces that a bowl gives, with what each takes beside chocolate.
 *
 * @param chocolateG in the bowl; @param holdUpG that stays in it
 * @example fillFrom(9000, 200, { declaredG: 70, parts: [{ grams: 7, … }] }) // 139 pieces, 973 g of the part, 43 g over
 */
export function fillFrom(
  chocolateG: number,
  holdUpG: number,
  product: Pick<ProductFacts, 'declaredG' | 'parts'>,
): Left {
  const { chocolateG: each } = pieceParts(product);
  const bars = Math.max(0, Math.floor((chocolateG - holdUpG) / each + 1e-9));
  return {
    bars,
    parts: partsOf(product, bars),
    overG: Math.max(0, chocolateG - holdUpG - bars * each),
  };
}

/** What so many packs use of each component, and what there is of it. */
export function componentsFor(
  { packaging }: Pick<ProductFacts, 'packaging'>,
  pieces: number,
): { materialId: string; pieces: number }[] {
  // Ten thousandths are what adding tenths and thirds leaves.
  return packaging.map(({ materialId, perPiece }) => ({ materialId, pieces: Math.ceil(pieces * perPiece - 1e-4) }));
}
