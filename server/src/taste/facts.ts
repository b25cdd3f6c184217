import type { CommandOf } from '@wunsch/core/commands';
import type { Step } from '@wunsch/core/ledger/types';
import { runningHours } from '@wunsch/core/run/stretches';
import { FACTORS, type Factor } from '@wunsch/core/trials/records';
import { sampleShare } from '@wunsch/core/winnow/samples';
import { grindRuns } from '../grind/study';
import { byBatch } from '../ledger/by-batch';
import type { Views } from '../ledger/views';
import { loadRow } from '../roast/loads';

const DAY_MS = 86_400_000;

export type BatchFacts = Partial<Record<Factor, number | null>>;

/** Facts that are figures, with their names. */
export const FACT_NAMES: Record<string, string> = Object.fromEntries(
  Object.entries(FACTORS).flatMap(([key, { name, unit }]) => (unit === '' ? [] : [[key, name]])),
);
export const FACT_UNITS: Record<string, string> = Object.fromEntries(
  Object.entries(FACTORS).map(([key, { unit }]) => [key, unit]),
);

const mean = (values: readonly number[]): number | null =>
  values.length === 0 ? null : values.reduce((sum, value) => sum + value, 0) / values.length;

/** Steps of some kind that stand behind goods, each once. */
function behind(views: Views, holdingIds: readonly string[]): Step[] {
  const { book } = views.workshop;
  const seen = new Set<string>();
  const found = new Map<string, Step>();
  const open = [...holdingIds];
  for (let holdingId = open.pop(); holdingId !== undefined; holdingId = open.pop()) {
    if (seen.has(holdingId)) continue;
    seen.add(holdingId);
    const step = book.steps.get(book.firstEntry(holdingId)?.stepId ?? '');
    if (!step || found.has(step.id)) continue;
    found.set(step.id, step);
    if (step.kind === 'receive' || step.kind === 'buy') continue;
    for (const { holdingId: source, massMg } of step.postings) if (source !== null && massMg < 0) open.push(source);
  }
  return [...found.values()];
}

/** What was logged of the making of a batch, as figures; null: it was not. */
export const batchFacts = byBatch((views, batchId): BatchFacts => {
  const { book, batches } = views.workshop;
  const steps = views.stepsOfBatch(batchId);
  const charged = steps.filter(({ kind }) => kind === 'charge');
  const sources = charged.flatMap(({ postings }) =>
    postings.flatMap(({ holdingId, massMg }) =>
      holdingId !== null && massMg < 0 && book.holding(holdingId).kind !== 'ingredient' ? [holdingId] : [],
    ),
  );
  const before = behind(views, sources);
  const loads = before.flatMap((step) => {
    const loadId = step.kind === 'roast' ? step.slots['good'] : undefined;
    const row = loadId === undefined ? null : loadRow(views, loadId);
    return row ? [row] : [];
  });
  const shells = before.flatMap((step) => {
    if (step.kind !== 'winnow') return [];
    const share = sampleShare((step.command as CommandOf<'winnow'>).shellSamples ?? []);
    return share ? [100 * share.mean] : [];
  });
  const batch = batches.get(batchId);
  const run = batch ? grindRuns(views).run(batch) : null;
  const emptied = steps.findLast(({ kind }) => kind === 'discharge');
  const gauge = run?.readings.findLast((reading) => reading.kind === 'gauge');
  const on = steps.find(({ kind, at }) => (kind === 'rest' || kind === 'temper') && at >= (emptied?.at ?? Infinity));
  const works = steps.flatMap((step) => {
    const workC = step.kind === 'temper' ? (step.command as CommandOf<'temper'>).workC : null;
    return workC == null ? [] : [workC];
  });
  // What it is made of is that of what left the bowl, or of the bowl itself.
  const out = Object.values(emptied?.slots ?? {})[0] ?? (book.holdings.has(batchId) ? batchId : undefined);
  const made = out === undefined ? null : views.cocoa(out);
  return {
    peakC: mean(loads.flatMap(({ endC }) => (endC === null ? [] : [endC]))),
    roastMin: mean(loads.flatMap(({ minutes }) => (minutes === null ? [] : [minutes]))),
    shellPct: mean(shells),
    micron: gauge?.kind === 'gauge' ? gauge.micron : null,
    grindH: run?.endedAt != null ? runningHours(run.stretches, run.endedAt) : null,
    concheH:
      run?.endedAt != null
        ? Math.max(0, runningHours(run.moved, run.endedAt) - runningHours(run.stretches, run.endedAt))
        : null,
    cocoaPct: made?.cocoaPct ?? null,
    sugarPct: made?.sugarPct ?? null,
    butterPct: made ? made.cocoaPct - made.withoutButterPct : null,
    restDays: emptied && on ? (on.at - emptied.at) / DAY_MS : null,
    workC: mean(works),
  };
});
