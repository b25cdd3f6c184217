import { DomainError } from '../errors/domain-error';
import type { CommandOf } from '../ledger/commands';
import { CODE_LETTERS, Planner, type PlanContext, type StepPlan } from '../ledger/planner';
import { HOLDING_KINDS } from '../ledger/types';
import { toMg } from '../units/mass';
import { milliFromMajor } from '../units/money';

/** Ingredients by weight, packaging by the piece: each purchase is its own holding, so it can be traced. */
export function planBuy(command: CommandOf<'buy'>, context: PlanContext): StepPlan {
  const planner = new Planner(context);
  const material = context.material(command.materialId);
  const counted = material.kind === 'packaging';
  if (counted ? command.pieces === undefined : command.massG === undefined) {
    throw new DomainError('money/amount', counted ? 'Packaging is counted.' : 'Ingredients are weighed.', [
      { path: counted ? 'pieces' : 'massG', message: 'is missing' },
    ]);
  }
  const mg = counted ? 0 : toMg(command.massG ?? 0);
  planner.make(
    'good',
    {
      kind: counted ? 'packaging' : 'ingredient',
      letter: CODE_LETTERS.pantry,
      name: material.name,
      place: 'pantry',
      materialId: material.id,
    },
    mg,
    counted ? (command.pieces ?? 0) : 0,
  );
  planner.door('supplier', -mg);
  return planner.plan('pantry', null, { purchaseMilli: milliFromMajor(command.price) });
}

/** Goods (bars, husk, blocks, ingredients) leave the workshop for money, or as a gift for none. */
export function planSell(command: CommandOf<'sell'>, context: PlanContext): StepPlan {
  const planner = new Planner(context);
  planner.take(command.sources, HOLDING_KINDS);
  planner.door('customer', planner.left);
  const first = context.book.holding(command.sources[0]?.holdingId ?? '');
  return planner.plan('store', first.batchId, { revenueMilli: milliFromMajor(command.takings) });
}

/** A count or weighing of what is really there: the difference is booked under a cause. */
export function planAdjust(command: CommandOf<'adjust'>, context: PlanContext): StepPlan {
  const planner = new Planner(context);
  const holding = context.book.holding(command.holdingId);
  const there = context.book.balanceAt(holding.id, context.at, context.order);
  const counted = there.pieces > 0 || holding.kind === 'packaging';
  const field = counted ? 'countedPieces' : 'countedG';
  const value = command[field];
  if (value === undefined) {
    throw new DomainError('ledger/no-count', `Say what is really there in ${holding.code}.`, [
      { path: field, message: 'is missing' },
    ]);
  }
  const pieces = counted ? value - there.pieces : 0;
  const massMg = counted
    ? there.pieces > 0
      ? Math.round((there.massMg * value) / there.pieces) - there.massMg
      : 0
    : toMg(value) - there.massMg;
  // A count that agrees with the book is still a count: it moves nothing, and teaches.
  if (massMg !== 0 || pieces !== 0) planner.put(holding.id, massMg, pieces);
  planner.lose(massMg > 0 ? 'unaccounted' : command.cause, -massMg);
  return planner.plan(holding.place, holding.batchId);
}
