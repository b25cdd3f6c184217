import { CODE_LETTERS, Planner, type PlanContext, type StepPlan } from '../ledger/planner';
import type { WinnowCommand } from './commands';
import { toMg } from '../units/mass';

/** Beans in, nibs and husk out (the husk is a by-product that is kept), weighed dust, the rest unaccounted. */
export function planWinnow(command: WinnowCommand, context: PlanContext): StepPlan {
  const planner = new Planner(context);
  planner.take(command.sources, ['roasted', 'beans', 'lot']);
  const origin = planner.origin(command.sources);
  planner.make(
    'good',
    {
      kind: 'nibs',
      letter: CODE_LETTERS.tub,
      name: origin.name,
      place: planner.after('winnow', origin.routeId, 'grind'),
      routeId: origin.routeId,
    },
    toMg(command.nibsG),
  );
  if (command.huskG > 0) {
    planner.make(
      'husk',
      { kind: 'husk', letter: CODE_LETTERS.husk, name: `Husk, ${origin.name}`, place: 'store' },
      toMg(command.huskG),
    );
  }
  planner.lose('dust', toMg(command.dustG));
  planner.explainRest('unaccounted', 'nibsG');
  return planner.plan('winnow', null);
}
