import { CODE_LETTERS, Planner, withoutWeight, type PlanContext, type StepPlan } from '../ledger/planner';
import type { RemeltCommand, TemperCommand } from './commands';
import type { HoldingKind } from '../ledger/types';
import { toMg } from '../units/mass';

const INTO_THE_POUR: readonly HoldingKind[] = ['mass', 'block', 'remelt', 'tempered', 'bars', 'seconds', 'ingredient'];

/** A pour is melted, cooled and brought to working temperature; seed and silk are ingredients of it. */
export function planTemper(command: TemperCommand, context: PlanContext): StepPlan {
  const planner = new Planner(context);
  const mg = planner.take(command.sources, INTO_THE_POUR);
  const origin = planner.origin(command.sources);
  planner.make(
    'good',
    {
      kind: 'tempered',
      letter: CODE_LETTERS.tub,
      name: origin.name,
      // What failed its test is not moulded: it waits to be tempered again.
      place: command.test === 'failed' ? 'temper' : planner.after('temper', origin.routeId, 'mould'),
      routeId: origin.routeId,
      batchId: origin.batchId,
    },
    command.outG === undefined ? mg : toMg(command.outG),
  );
  planner.explainRest('hold-up', 'outG');
  return planner.plan('temper', origin.batchId);
}

/** Goods go back to be melted again: bars that bloomed, seconds, trimmings. */
export function planRemelt(command: RemeltCommand, context: PlanContext): StepPlan {
  const planner = new Planner(context);
  const mg = planner.take(command.sources, ['bars', 'seconds', 'packed', 'tempered', 'remelt', 'block']);
  const origin = planner.origin(command.sources);
  planner.make(
    'good',
    {
      kind: 'remelt',
      letter: CODE_LETTERS.tub,
      name: withoutWeight(origin.name),
      place: 'temper',
      routeId: origin.routeId,
      batchId: origin.batchId,
    },
    command.outG === undefined ? mg : toMg(command.outG),
  );
  planner.explainRest('trimming', 'outG');
  return planner.plan('temper', origin.batchId);
}
