import type { DueItem } from '@wunsch/core/api/types';
import type { CommandOf } from '@wunsch/core/commands';
import type { Book } from '@wunsch/core/ledger/book';
import { LAST_LOOK_DAY, lookDue } from '@wunsch/core/temper/bloom';
import type { Views } from '../ledger/views';

const DAY_MS = 86_400_000;

/** Bars that are to be looked at again: a day, a week and a month after they were moulded. */
export function looksDue(views: Views): DueItem[] {
  const { book, batches } = views.workshop;
  const now = views.workshop.now();
  const moulded = mouldedSince(book, now - LAST_LOOK_DAY * DAY_MS);
  const batchIds = new Set<string>();
  for (const { kind, batchId } of book.standing) {
    if (batchId !== null && moulded.has(batchId) && (kind === 'bars' || kind === 'packed')) batchIds.add(batchId);
  }
  return [...batchIds].flatMap((batchId): DueItem[] => {
    const mouldedAt = moulded.get(batchId);
    const code = batches.get(batchId)?.code;
    if (mouldedAt === undefined || code === undefined || !lookDue((now - mouldedAt) / DAY_MS, [])) return [];
    const looked = views
      .stepsOfBatch(batchId)
      .flatMap((step) =>
        step.kind === 'reading' && step.at >= mouldedAt && (step.command as CommandOf<'reading'>).what === 'seen'
          ? [(step.at - mouldedAt) / DAY_MS]
          : [],
      );
    const due = lookDue((now - mouldedAt) / DAY_MS, looked);
    if (!due) return [];
    return [
      {
        id: `look-${batchId}`,
        station: 'mould',
        text: `Look at the bars of ${code}, ${due.words} old`,
        link: `/batch/${code}#looks`,
        at: mouldedAt + due.untilDay * DAY_MS,
      },
    ];
  });
}

/** Batches that were moulded since a moment, and when that was last. */
function mouldedSince({ timeline }: Book, since: number): Map<string, number> {
  const found = new Map<string, number>();
  for (const step of timeline.backwards()) {
    if (step.at < since) break;
    if (step.kind === 'mould' && step.batchId !== null && !found.has(step.batchId)) found.set(step.batchId, step.at);
  }
  return found;
}
