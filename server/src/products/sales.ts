import { FREE_USES } from '@wunsch/core/money/commands';
import type { CommandOf } from '@wunsch/core/commands';
import type { Step } from '@wunsch/core/ledger/types';
import { newestVersion } from '@wunsch/core/ledger/versions';
import type { SoldLine } from '@wunsch/core/products/margin';
import { apportion } from '@wunsch/core/units/apportion';
import type { Views } from '../ledger/views';
import { productOf } from './products';

/** What of a step went to a buyer, or came back, by holding. */
export interface GoneOut extends SoldLine {
  stepId: string;
  at: number;
  holdingId: string;
  to: string;
  massMg: number;
  /** Sample, gift, class; null: sold. */
  use: string | null;
}

const isFree = (use: string | undefined): boolean => (FREE_USES as readonly string[]).includes(use ?? '');

/** Everything that was sold, given or sent back since then, with what it had cost; the oldest first. */
export function soldLines(views: Views, since: number): GoneOut[] {
  const { book } = views.workshop;
  const rows: GoneOut[] = [];
  for (const step of book.timeline.backwards()) {
    if (step.at < since) break;
    if (step.kind === 'sell') rows.push(...linesOf(views, step));
    else if (step.kind === 'return') rows.push(...returned(views, step));
  }
  return rows.reverse();
}

/** What of a sale is what, in goods and money. */
export function linesOf(views: Views, step: Step): GoneOut[] {
  const { book, valuation } = views.workshop;
  const { channel, to, use } = step.command as CommandOf<'sell'>;
  const out = step.postings.filter(({ holdingId, massMg }) => holdingId !== null && massMg < 0);
  const { takingsMilli, revenueMilli } = step.money;
  const shared = apportion(
    revenueMilli,
    out.map(({ massMg }) => -massMg),
  );
  const cost = valuation.costOf(step.id)?.soldMilli ?? 0;
  const costs = apportion(
    cost,
    out.map(({ massMg, holdingId }) => -massMg * Math.max(1e-9, valuation.perKgMilli(holdingId ?? ''))),
  );
  return out.map(({ holdingId, pieces, massMg }, index): GoneOut => {
    const id = holdingId ?? '';
    const holding = book.holding(id);
    const product = holding.kind === 'packed' || holding.kind === 'bars' ? productOf(views, id) : undefined;
    return {
      stepId: step.id,
      at: step.at,
      holdingId: id,
      productId: product?.id ?? '',
      product: product?.facts.name ?? holding.name,
      channel: isFree(use) ? (use ?? '') : (channel ?? (to === '' ? 'somebody' : to)),
      to,
      use: use !== undefined && use !== 'sold' ? use : null,
      pieces: -pieces,
      massMg: -massMg,
      revenueMilli: takingsMilli?.[id] ?? shared[index] ?? 0,
      costMilli: costs[index] ?? 0,
    };
  });
}

function returned(views: Views, step: Step): GoneOut[] {
  const { saleId, holdingId, fate } = step.command as CommandOf<'return'>;
  const { book, valuation } = views.workshop;
  const sale = newestVersion(book, saleId);
  const line = sale ? linesOf(views, sale).find((row) => row.holdingId === holdingId) : undefined;
  if (!line) return [];
  const [pieces, massMg] = step.postings.reduce(
    ([p, mg], posting) => (posting.outside === 'customer' ? [p + posting.pieces, mg + posting.massMg] : [p, mg]),
    [0, 0],
  );
  return [
    {
      ...line,
      stepId: step.id,
      at: step.at,
      pieces,
      massMg,
      revenueMilli: step.money.revenueMilli,
      // What was thrown away stays paid for.
      costMilli: fate === 'back' ? (valuation.costOf(step.id)?.soldMilli ?? 0) : 0,
    },
  ];
}
