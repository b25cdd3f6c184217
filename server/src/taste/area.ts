import type { BenchView, HoldingView } from '@wunsch/core/api/types';
import type { Area } from '../ledger/area';
import type { Views } from '../ledger/views';

export const area: Area = { bench: (views, here) => ({ untasted: untasted(views, here) }) };

/** Batches with bars that nobody has scored yet. */
function untasted(views: Views, bars: readonly HoldingView[]): BenchView['untasted'] {
  const byBatch = new Map<string, HoldingView[]>();
  for (const row of bars) {
    if (row.batchId === null) continue;
    byBatch.set(row.batchId, [...(byBatch.get(row.batchId) ?? []), row]);
  }
  return [...byBatch]
    .filter(([batchId]) => !views.stepsOfBatch(batchId).some(({ kind }) => kind === 'taste'))
    .flatMap(([batchId, rows]) => {
      const batch = views.workshop.batches.get(batchId);
      return batch ? [{ batch, bars: rows }] : [];
    });
}
