import type { StockTakeRow } from '@wunsch/core/api/losses';
import { usualDifference, type PastCount, type UsualDifference } from '@wunsch/core/ledger/stock-take';
import type { CommandOf } from '@wunsch/core/commands';
import type { HoldingKind } from '@wunsch/core/ledger/types';
import { newestFirst, type Views } from '../ledger/views';

/** Counts that say something about shrinking; samples and write-offs were taken on purpose. */
const SHRINKS = new Set(['unaccounted', 'dust', 'water', 'hold-up']);
/** The newest of what there is; ten years leave thousands of crumbs. */
const MOST = 300;

/** What is there by the book, to be counted, with what counts of its kind have usually found. */
export function stockTakeView(views: Views): { rows: StockTakeRow[] } {
  const { workshop } = views;
  const usual = usualByKind(views);
  const reserved = workshop.reserved();
  const rows = newestFirst(
    workshop.book,
    // A bowl that runs cannot be weighed.
    [...workshop.book.live].filter((id) => !workshop.batches.has(id)),
  )
    .slice(0, MOST)
    .map((id) => {
      const holding = views.holding(id, reserved);
      return { holding, usual: usual.get(holding.kind) ?? null };
    });
  return { rows };
}

function usualByKind(views: Views): Map<HoldingKind, UsualDifference | null> {
  const { book } = views.workshop;
  const past = new Map<HoldingKind, PastCount[]>();
  for (const step of book.timeline) {
    if (step.kind !== 'adjust') continue;
    const command = step.command as CommandOf<'adjust'>;
    if (!SHRINKS.has(command.cause)) continue;
    const change = step.postings.find(({ holdingId }) => holdingId === command.holdingId);
    const pieces = command.countedPieces !== undefined;
    const counted = pieces ? (command.countedPieces ?? 0) : (command.countedG ?? 0);
    const booked = counted - (pieces ? (change?.pieces ?? 0) : (change?.massMg ?? 0) / 1000);
    const { kind } = book.holding(command.holdingId);
    past.set(kind, [...(past.get(kind) ?? []), { booked, counted }]);
  }
  return new Map([...past].map(([kind, counts]) => [kind, usualDifference(counts)]));
}
