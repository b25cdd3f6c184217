import { apportion } from '../units/apportion';
import type { Book } from './book';
import { comesBefore, type Entry, type Position } from './entries';
import { isByProduct, isOut, type Step } from './types';

export type PerHolding = ReadonlyMap<string, number>;

/** What one sale fetched for one by-product, and the steps that had filled it before. */
export interface ByProductSale {
  sale: Step;
  holdingId: string;
  milli: number;
  fillings: readonly Entry[];
}

/** Sales of by-products in force, in the order of the work. @param from how many steps of that order are left out */
export function byProductSales(book: Book, from: number): ByProductSale[] {
  const rows: ByProductSale[] = [];
  for (let i = from; i < book.timeline.length; i += 1) {
    const sale = book.timeline.at(i);
    if (!sale || sale.kind !== 'sell' || sale.money.revenueMilli <= 0) continue;
    for (const [holdingId, milli] of byProductTakings(book, sale)) {
      const fillings = book.entriesOf(holdingId).filter((entry) => entry.massMg > 0 && comesBefore(entry, sale));
      if (fillings.length > 0) rows.push({ sale, holdingId, milli, fillings });
    }
  }
  return rows;
}

/**
 * What by-products fetched: each sale's takings per holding, and the same money shared back, by mass, over
 * the steps that had filled that holding before the sale.
 *
 * @returns by step, by by-product holding, milli
 */
export function sharedBack(sales: readonly ByProductSale[]): {
  credits: Map<string, PerHolding>;
  takings: Map<string, PerHolding>;
} {
  const credits = new Map<string, Map<string, number>>();
  const takings = new Map<string, Map<string, number>>();
  const add = (to: Map<string, Map<string, number>>, stepId: string, holdingId: string, milli: number): void => {
    const row = to.get(stepId) ?? new Map<string, number>();
    row.set(holdingId, (row.get(holdingId) ?? 0) + milli);
    to.set(stepId, row);
  };
  for (const { sale, holdingId, milli, fillings } of sales) {
    add(takings, sale.id, holdingId, milli);
    const parts = apportion(
      milli,
      fillings.map((e) => e.massMg),
    );
    fillings.forEach((entry, at) => add(credits, entry.stepId, holdingId, parts[at] ?? 0));
  }
  return { credits, takings };
}

/** Sales of by-products after a place that are credited to steps up to it. */
export const reachingBack = (sales: readonly ByProductSale[], upTo: Position): string[] => [
  ...new Set(
    sales
      .filter(({ sale, fillings }) => comesBefore(upTo, sale) && fillings.some((entry) => !comesBefore(upTo, entry)))
      .map(({ sale }) => sale.id),
  ),
];

/**
 * What a sale brought for each by-product in it. Sales from before takings were entered per thing credit a
 * by-product only where nothing else was sold with it: how much of a mixed sale was its own is not known.
 */
function byProductTakings(book: Book, sale: Step): [holdingId: string, milli: number][] {
  const isOwn = (holdingId: string | null): holdingId is string =>
    holdingId !== null && isByProduct(book.holding(holdingId).kind);
  const { takingsMilli, revenueMilli } = sale.money;
  if (takingsMilli) return Object.entries(takingsMilli).filter(([id, milli]) => milli > 0 && isOwn(id));
  const lines = sale.postings.filter((p) => p.holdingId !== null && isOut(p));
  if (!lines.every((p) => isOwn(p.holdingId) && p.massMg < 0)) return [];
  const shares = apportion(
    revenueMilli,
    lines.map((p) => -p.massMg),
  );
  return lines.map((p, index) => [p.holdingId ?? '', shares[index] ?? 0]);
}
