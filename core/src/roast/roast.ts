import { CODE_LETTERS, Planner, type PlanContext, type StepPlan } from '../ledger/planner';
import type { RoastCommand } from './commands';
import { toMg } from '../units/mass';

/**
 * One roast load: beans (or nibs) in and out. What is lost is water and volatiles; a small gain can only
 * be the scale, and is booked as unaccounted.
 */
export function planRoast(command: RoastCommand, context: PlanContext): StepPlan {
  const planner = new Planner(context);
  planner.take(command.sources, ['lot', 'beans', 'nibs']);
  const origin = planner.origin(command.sources);
  const nibs = command.sources.some(({ holdingId }) => context.book.holding(holdingId).kind === 'nibs');
  planner.make(
    'good',
    {
      kind: nibs ? 'nibs' : 'roasted',
      letter: CODE_LETTERS.tub,
      name: origin.name,
      place: planner.after('roast', origin.routeId, nibs ? 'grind' : 'winnow'),
      routeId: origin.routeId,
    },
    toMg(command.outG),
  );
  planner.explainRest('water', 'outG');
  return planner.plan('roast', null);
}
