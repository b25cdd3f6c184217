import type { DueItem } from '@wunsch/core/api/types';
import type { CommandOf } from '@wunsch/core/commands';
import { lookDue } from '@wunsch/core/temper/bloom';
import type { Views } from '../ledger/views';

const DAY_MS = 86_400_000;

/** Bars that are to be looked at again: a day, a week and a month after they were moulded. */
export function looksDue(views: Views): DueItem[] {
  const { book, batches } = views.workshop;
  const now = views.workshop.now();
  const batchIds = new Set<string>();
  for (const holdingId of book.live) {
    const { kind, batchId } = book.holding(holdingId);
    if (batchId !== null && (kind === 'bars' || kind === 'packed')) batchIds.add(batchId);
  }
  return [...batchIds].flatMap((batchId): DueItem[] => {
    const steps = views.stepsOfBatch(batchId);
    const mouldedAt = steps.findLast(({ kind }) => kind === 'mould')?.at;
    const code = batches.get(batchId)?.code;
    if (mouldedAt === undefined || code === undefined || !lookDue((now - mouldedAt) / DAY_MS, [])) return [];
    const looked = steps.flatMap((step) =>
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
