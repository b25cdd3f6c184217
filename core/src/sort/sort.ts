import { CODE_LETTERS, Planner, type PlanContext, type StepPlan } from '../ledger/planner';
import type { SortCommand } from './commands';
import { toMg } from '../units/mass';

/** Beans in, rejects by reason, good beans out; the rest is unaccounted. */
export function planSort(command: SortCommand, context: PlanContext): StepPlan {
  const planner = new Planner(context);
  planner.take(command.sources, ['lot', 'beans']);
  const origin = planner.origin(command.sources);
  planner.make(
    'good',
    {
      kind: 'beans',
      letter: CODE_LETTERS.tub,
      name: origin.name,
      place: planner.after('sort', origin.routeId, 'roast'),
      routeId: origin.routeId,
    },
    toMg(command.goodG),
  );
  for (const { reason, massG } of command.rejects) planner.lose('reject', toMg(massG), reason);
  planner.explainRest('unaccounted', 'goodG');
  return planner.plan('sort', null);
}
