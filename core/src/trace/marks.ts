import type { Step, StepKind } from '../ledger/types';
import { mark, type Mark, type StepMarks } from '../workshop/mark';

/** How steps mark goods, by their kinds; and what a stop marks them with that somebody went past. */
export interface Marking {
  steps: ReadonlyMap<StepKind, StepMarks>;
  stops: ReadonlyMap<string, { id: Mark['id']; label: string }>;
}

const overrideMarks = ({ overrides = [], id: stepId }: Step, stops: Marking['stops']): Mark[] =>
  overrides.map(({ gate, sentence, word }) => {
    const { id, label } = stops.get(gate) ?? { id: 'override', label: 'stop gone past' };
    return mark(id, label, `${sentence} Gone past: “${word}”.`, stepId);
  });

/**
 * What one has to know of goods, from the steps behind them and what was said about them.
 *
 * A later reading takes an earlier one back: sourness that conched away marks nothing, nor does a pour that was
 * tempered again.
 *
 * @param steps in the order of the work; @param targetMicron of the batch, where there is one
 * @param marking as the stations say it
 */
export function marksOf(steps: readonly Step[], targetMicron: number | null, marking: Marking): Mark[] {
  const subjectOf = (step: Step): string | undefined => marking.steps.get(step.kind)?.speaksOf?.(step);
  const newest = new Map(steps.map((step) => [subjectOf(step), step]));
  const found: Mark[] = [];
  for (const step of steps) {
    const subject = subjectOf(step);
    const stale = subject !== undefined && newest.get(subject) !== step;
    const rows = [
      ...overrideMarks(step, marking.stops),
      ...(marking.steps.get(step.kind)?.of(step, targetMicron) ?? []),
    ];
    for (const row of rows) {
      if (row.id !== 'override' && (stale || found.some(({ id }) => id === row.id))) continue;
      found.push(row);
    }
  }
  for (const [kind, { together }] of marking.steps)
    found.push(...(together?.(steps.filter((step) => step.kind === kind)) ?? []));
  return found;
}
