import { Follower } from '@wunsch/core/ledger/follower';
import type { Holding, Step } from '@wunsch/core/ledger/types';
import { majorFromMilli } from '@wunsch/core/units/money';
import type { Router } from '../http/router';

interface Price {
  perPiece: number | null;
  perKg: number | null;
}

/** What a sale fetched for one of its things. */
function priceIn(step: Step, holdingId: string): Price | null {
  const milli = step.money.takingsMilli?.[holdingId];
  if (milli === undefined || milli <= 0) return null;
  let pieces = 0;
  let massMg = 0;
  for (const p of step.postings) {
    if (p.holdingId !== holdingId) continue;
    pieces -= p.pieces;
    massMg -= p.massMg;
  }
  return {
    perPiece: pieces > 0 ? majorFromMilli(milli) / pieces : null,
    perKg: pieces === 0 && massMg > 0 ? (majorFromMilli(milli) / massMg) * 1e6 : null,
  };
}

/** Money that is no station's: what things last fetched. */
export function moneyRoutes(router: Router): void {
  const { workshop } = router;
  const like = (holding: Holding): string =>
    holding.kind === 'husk' ? 'husk' : `${holding.kind} ${holding.name.toLowerCase()}`;
  /** What goods like these fetched last. */
  const last = new Map<string, Price>();
  const sales = new Follower({
    book: () => workshop.book,
    begin: () => last.clear(),
    take: (step, book) => {
      if (step.kind !== 'sell') return;
      for (const holdingId of Object.keys(step.money.takingsMilli ?? {})) {
        const price = priceIn(step, holdingId);
        if (price) last.set(like(book.holding(holdingId)), price);
      }
    },
  });
  router.read('/api/money/prices', 'What goods like these last fetched, a piece or a kilogram', () => {
    const { book } = workshop;
    sales.catchUp();
    return {
      prices: [...book.live].flatMap((holdingId) => {
        const price = last.get(like(book.holding(holdingId)));
        return price ? [{ holdingId, ...price }] : [];
      }),
    };
  });
}
