import { CODE_LETTERS, Planner, type PlanContext, type StepPlan } from '../ledger/planner';
import type { CommandOf } from '../ledger/commands';
import { toMg } from '../units/mass';

/** Blocks come off the shelf, on to the next station; what was cut away is trimmings. */
export function planRest(command: CommandOf<'rest'>, context: PlanContext): StepPlan {
  const planner = new Planner(context);
  const mg = planner.take(command.sources, ['block', 'mass']);
  const origin = planner.origin(command.sources);
  planner.make(
    'good',
    {
      kind: 'block',
      letter: CODE_LETTERS.block,
      name: origin.name,
      place: planner.after('rest', origin.routeId, 'temper'),
      routeId: origin.routeId,
      batchId: origin.batchId,
    },
    command.outG === undefined ? mg : toMg(command.outG),
  );
  planner.explainRest('trimming', 'outG');
  return planner.plan('rest', origin.batchId);
}
