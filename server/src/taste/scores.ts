import type { CommandOf } from '@wunsch/core/commands';
import { byBatch } from '../ledger/by-batch';
import type { Views } from '../ledger/views';
import { scoresOf, sessionsOf } from './sessions';

export interface BatchScore {
  /** 0 to 10. */
  score: number;
  at: number;
  palate: string;
}

const scored = byBatch((views, batchId) =>
  views
    .stepsOfBatch(batchId)
    .flatMap((step) =>
      step.kind === 'taste'
        ? [{ score: (step.command as CommandOf<'taste'>).score, at: step.at, personId: step.personId }]
        : [],
    ),
);

/** What was scored of a batch at the bench. */
export const benchScores = (views: Views, batchId: string): BatchScore[] =>
  scored(views, batchId).map(({ score, at, personId }) => ({ score, at, palate: views.person(personId) }));

/** What was scored of batches in blind sessions that were opened, by batch. */
function blindScores(views: Views): Map<string, BatchScore[]> {
  const found = new Map<string, BatchScore[]>();
  for (const kept of sessionsOf(views).values()) {
    if (kept.state !== 'opened') continue;
    const batchOf = new Map(
      kept.session.bars.map(({ name, subject }) => [
        name,
        views.workshop.book.holdings.get(subject.id)?.batchId ?? null,
      ]),
    );
    for (const { bar, taster, score } of scoresOf(views, kept)) {
      const batchId = batchOf.get(bar) ?? null;
      if (batchId === null) continue;
      const list = found.get(batchId);
      const row = { score, at: kept.at, palate: taster };
      if (list) list.push(row);
      else found.set(batchId, [row]);
    }
  }
  return found;
}

/** What was scored of batches, at the bench and blind; sessions are read once for all that are asked. */
export function scoresByBatch(views: Views): (batchId: string) => BatchScore[] {
  const blind = blindScores(views);
  return (batchId) => [...benchScores(views, batchId), ...(blind.get(batchId) ?? [])];
}
