import type { BenchView } from '@wunsch/core/api/types';
import type { Step, StepKind } from '@wunsch/core/ledger/types';
import { judgeYield, stepYield } from '@wunsch/core/ledger/yields';
import { YIELDS, yieldOf } from '@wunsch/core/stations';
import type { Station } from '@wunsch/core/work/stations';
import type { Views } from './views';
import type { IndexedYield } from './yield-index';

/** Whose yield speaks at a station, if any. */
export const yieldStep = (station: Station): StepKind | undefined =>
  YIELDS.find((row) => row.station === station)?.step;

const HISTORY = 120;

/** Yields of one kind of step, oldest first; the newest `HISTORY` of one family, or of all. */
export function yieldHistory(views: Views, kind: StepKind, family?: string, before?: Step): readonly IndexedYield[] {
  const all = family === undefined ? views.yields.of(kind) : views.yields.ofFamily(kind, family);
  if (!before) return all.slice(-HISTORY);
  const end = all.findLastIndex(({ stepId }) => stepId === before.id);
  return all.slice(0, end < 0 ? all.length : end).slice(-HISTORY);
}

/** The newest yield of a station against earlier ones of its family. */
export function judgeNewest(views: Views, station: Station): BenchView['judgement'] {
  const kind = yieldStep(station);
  const newest = kind === undefined ? undefined : yieldHistory(views, kind).at(-1);
  return newest ? judgeStep(views, newest.stepId) : null;
}

/** One step's yield against the earlier ones of its family. */
export function judgeStep(views: Views, stepId: string): BenchView['judgement'] {
  const step = views.workshop.book.steps.get(stepId);
  const made = step?.slots['good'];
  const point = step ? stepYield(views.workshop.book, step) : null;
  if (!step || made === undefined || !point) return null;
  const family = views.family(made);
  const past = yieldHistory(views, step.kind, family, step).map(({ value }) => value);
  return {
    ...judgeYield(yieldOf(step.kind), point.value, past, family || 'this workshop'),
    code:
      step.batchId === null
        ? views.workshop.book.holding(made).code
        : (views.workshop.batches.get(step.batchId)?.code ?? ''),
    stepId,
  };
}
