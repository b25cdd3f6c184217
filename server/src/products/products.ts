import type { ProductView } from '@wunsch/core/api/products';
import { DomainError } from '@wunsch/core/errors/domain-error';
import type { CommandOf } from '@wunsch/core/commands';
import { pieceParts, type ProductVersion } from '@wunsch/core/products/product';
import type { ProductFacts } from '@wunsch/core/products/records';
import type { Views } from '../ledger/views';
import { mouldsView } from '../mould/plugin';
import { productsOf } from '@wunsch/core/products/book';

/** How far a mean piece may be from the declared weight to be of a product that nobody named. */
const NEAR = 0.08;

/**
 * The product that packed goods or bars are of: as their packing says; where it says nothing, the one whose recipe and
 * weight they have, where there is but one.
 */
export function productOf(views: Views, holdingId: string): ProductVersion | undefined {
  const { book, batches, records } = views.workshop;
  const products = productsOf(records);
  const holding = book.holdings.get(holdingId);
  if (!holding) return undefined;
  const packing = book.steps.get(book.firstEntry(holdingId)?.stepId ?? holding.madeBy);
  const said = packing?.kind === 'pack' ? (packing.command as CommandOf<'pack'>).product : undefined;
  if (said) return products.version(said.id, said.version) ?? products.newest(said.id);
  const recipeId = batches.get(holding.batchId ?? '')?.recipe?.id ?? null;
  const first = book.entriesOf(holdingId).find(({ pieces }) => pieces > 0);
  const meanG = first ? first.massMg / first.pieces / 1000 : null;
  const like = products
    .current()
    .filter(
      ({ facts }) =>
        facts.name === holding.name ||
        (meanG !== null &&
          Math.abs(meanG / facts.declaredG - 1) <= NEAR &&
          recipeId !== null &&
          facts.recipeIds.includes(recipeId)),
    );
  return like.length === 1 ? like[0] : undefined;
}

/** The day that goods keep to, as their packing says; null: it does not. */
export function bestBeforeOf({ workshop: { book } }: Views, holdingId: string): string | null {
  const packing = book.steps.get(book.firstEntry(holdingId)?.stepId ?? '');
  return (packing?.command as Partial<CommandOf<'pack'>> | undefined)?.bestBefore ?? null;
}

/** @throws DomainError `http/not-found` */
export function productAt(views: Views, id: string): ProductVersion {
  const found = productsOf(views.workshop.records).newest(id);
  if (!found) throw new DomainError('http/not-found', 'There is no such product.');
  return found;
}

/** Names of everything that a product speaks of. */
function namesIn(views: Views, facts: ProductFacts): Record<string, string> {
  const { materials, recipes } = views.workshop;
  const names: Record<string, string> = {};
  for (const { materialId } of [...facts.parts, ...facts.packaging])
    names[materialId] = materials.get(materialId)?.name ?? 'gone';
  for (const recipeId of facts.recipeIds) names[recipeId] = recipes.newest(recipeId)?.recipe.name ?? 'gone';
  if (facts.mouldId !== null)
    names[facts.mouldId] = mouldsView(views).moulds.find(({ id }) => id === facts.mouldId)?.name ?? 'gone';
  return names;
}

export function versionView(
  views: Views,
  { id, version, at, personId, why, facts }: ProductVersion,
): Omit<ProductView, 'packed' | 'unpacked' | 'costMilli'> {
  return {
    id,
    version,
    at,
    person: views.person(personId),
    why,
    facts,
    piece: pieceParts(facts),
    names: namesIn(views, facts),
  };
}

/** What there is of each product, in one look at what stands here. */
export function stockByProduct(views: Views): Map<string, { packed: number; unpacked: number; costMilli: number }> {
  const { book, valuation } = views.workshop;
  const rows = new Map<string, { packed: number; unpacked: number; costMilli: number }>();
  for (const { id: holdingId, kind } of book.standing) {
    if (kind !== 'packed' && kind !== 'bars') continue;
    const product = productOf(views, holdingId);
    if (!product) continue;
    const row = rows.get(product.id) ?? { packed: 0, unpacked: 0, costMilli: 0 };
    const { pieces } = book.balance(holdingId);
    if (kind === 'packed') {
      row.packed += pieces;
      row.costMilli = valuation.perPieceMilli(holdingId);
    } else row.unpacked += pieces;
    rows.set(product.id, row);
  }
  return rows;
}

/** What may not be in a product: nothing known by that id, a wrapper as a filling, a bar code of another. */
export function checkProduct(views: Views, facts: ProductFacts, own: string | null): void {
  const { materials, recipes, records } = views.workshop;
  const problems: { path: string; message: string }[] = [];
  facts.parts.forEach(({ materialId }, index) => {
    if (materials.get(materialId)?.kind !== 'ingredient')
      problems.push({ path: `parts.${index}.materialId`, message: 'is no ingredient here' });
  });
  facts.packaging.forEach(({ materialId }, index) => {
    if (materials.get(materialId)?.kind !== 'packaging')
      problems.push({ path: `packaging.${index}.materialId`, message: 'is no packaging here' });
  });
  facts.recipeIds.forEach((recipeId, index) => {
    if (!recipes.newest(recipeId)) problems.push({ path: `recipeIds.${index}`, message: 'is no recipe here' });
  });
  if (facts.mouldId !== null && !mouldsView(views).moulds.some(({ id }) => id === facts.mouldId))
    problems.push({ path: 'mouldId', message: 'is no mould here' });
  const others = productsOf(records)
    .current()
    .filter(({ id }) => id !== own);
  const twin = others.find((row) => row.facts.name.toLowerCase() === facts.name.toLowerCase());
  if (twin) problems.push({ path: 'name', message: 'is the name of another product' });
  const coded = others.find((row) => facts.gtin !== null && row.facts.gtin === facts.gtin);
  if (coded) problems.push({ path: 'gtin', message: `is on ${coded.facts.name} already` });
  if (problems.length > 0) throw new DomainError('products/refused', 'The product cannot be kept like this.', problems);
}
