import type { RestBenefit } from '@wunsch/core/api/grind';
import type { CommandOf } from '@wunsch/core/ledger/commands';
import { judgeRest, type RestedScore } from '@wunsch/core/rest/benefit';
import { studentQuantile } from '@wunsch/core/stats/distributions';
import type { Views } from '../ledger/views';

const DAY_MS = 86_400_000;

/** Scores of batches by how long their blocks had rested, each bar of the shelf judged by itself. */
export function restBenefit(views: Views): RestBenefit {
  const byName = new Map<string, (RestedScore & { code: string })[]>();
  for (const batch of views.workshop.batches.values()) {
    const steps = views.stepsOfBatch(batch.id);
    const poured = steps.find(({ kind }) => kind === 'discharge');
    const on = steps.find(({ kind }) => kind === 'rest' || kind === 'temper');
    const scores = steps.flatMap((step) => (step.kind === 'taste' ? [(step.command as CommandOf<'taste'>).score] : []));
    if (!poured || !on || on.at < poured.at || scores.length === 0) continue;
    const row = {
      code: batch.code,
      restedDays: (on.at - poured.at) / DAY_MS,
      score: scores.reduce((sum, score) => sum + score, 0) / scores.length,
    };
    const rows = byName.get(batch.name);
    if (rows) rows.push(row);
    else byName.set(batch.name, [row]);
  }
  return {
    bars: [...byName]
      .map(([name, rows]) => ({ name, rows, verdict: judgeRest(rows, studentQuantile) }))
      .sort((a, b) => b.rows.length - a.rows.length),
  };
}
