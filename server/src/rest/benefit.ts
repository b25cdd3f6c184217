import type { RestBenefit, RestShelf } from '@wunsch/core/api/grind';
import type { CommandOf } from '@wunsch/core/commands';
import type { Step } from '@wunsch/core/ledger/types';
import { judgeRest, type RestedScore } from '@wunsch/core/rest/benefit';
import { studentQuantile } from '@wunsch/core/stats/distributions';
import type { Views } from '../ledger/views';

const DAY_MS = 86_400_000;

/** What was tasted of a batch's blocks along their rest. */
const tastedAlong = (steps: readonly Step[], pouredAt: number) =>
  steps.flatMap((step) => {
    if (step.kind !== 'reading' || step.at < pouredAt) return [];
    const command = step.command as CommandOf<'reading'>;
    return command.what === 'rest-taste' && command.value !== null
      ? [{ step, command, score: command.value, restedDays: (step.at - pouredAt) / DAY_MS }]
      : [];
  });

/** Blocks on the shelf: how long they are meant to rest, and how they tasted on their way. */
export function restShelf(views: Views): RestShelf {
  const { book, batches } = views.workshop;
  const ids = new Set(book.standing.flatMap(({ place, batchId }) => (place === 'rest' ? [batchId] : [])));
  return {
    batches: [...ids].flatMap((id) => {
      const batch = id === null ? undefined : batches.get(id);
      const steps = batch ? views.stepsOfBatch(batch.id) : [];
      const poured = steps.find(({ kind }) => kind === 'discharge');
      if (!batch || !poured) return [];
      return [
        {
          batchId: batch.id,
          code: batch.code,
          restUntil: batch.restUntil ?? null,
          tastings: tastedAlong(steps, poured.at).map(({ step, command, score, restedDays }) => ({
            stepId: step.id,
            at: step.at,
            restedDays,
            score,
            air: command.air ?? null,
            note: command.note,
            person: views.person(step.personId),
          })),
        },
      ];
    }),
  };
}

/** Scores by days of rest, of finished bars and of blocks tasted on their way, each bar judged by itself. */
export function restBenefit(views: Views): RestBenefit {
  const byName = new Map<string, (RestedScore & { code: string })[]>();
  for (const batch of views.workshop.batches.values()) {
    const steps = views.stepsOfBatch(batch.id);
    const poured = steps.find(({ kind }) => kind === 'discharge');
    if (!poured) continue;
    const on = steps.find(({ kind, at }) => (kind === 'rest' || kind === 'temper') && at >= poured.at);
    const scores = steps.flatMap((step) => (step.kind === 'taste' ? [(step.command as CommandOf<'taste'>).score] : []));
    const rows: RestedScore[] = tastedAlong(steps, poured.at).map(({ score, restedDays }) => ({
      score,
      restedDays,
      of: 'shelf',
    }));
    if (on && scores.length > 0)
      rows.push({
        restedDays: (on.at - poured.at) / DAY_MS,
        score: scores.reduce((sum, score) => sum + score, 0) / scores.length,
      });
    if (rows.length === 0) continue;
    byName.set(batch.name, [
      ...(byName.get(batch.name) ?? []),
      ...rows.map((row) => ({ ...row, batch: batch.id, code: batch.code })),
    ]);
  }
  return {
    bars: [...byName]
      .map(([name, rows]) => ({ name, rows, verdict: judgeRest(rows, studentQuantile) }))
      .sort((a, b) => b.rows.length - a.rows.length),
  };
}
