import { Planner, type PlanContext, type StepPlan } from '../ledger/planner';
import type { TasteCommand } from './commands';

/** A tasting: a score for the batch, and the bars that were eaten for it. */
export function planTaste(command: TasteCommand, context: PlanContext): StepPlan {
  const planner = new Planner(context);
  const of = command.holdingId === null ? null : context.book.holding(command.holdingId).batchId;
  const batchId = command.batchId === null ? of : context.batch(command.batchId).id;
  if (command.holdingId !== null && command.pieces > 0) {
    const mg = planner.take(
      [{ holdingId: command.holdingId, pieces: command.pieces }],
      ['bars', 'packed', 'seconds'],
      'holdingId',
    );
    planner.lose('sample', mg);
  }
  return planner.plan('taste', batchId);
}
