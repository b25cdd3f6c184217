import { DomainError } from '../errors/domain-error';
import { CODE_LETTERS, Planner, type PlanContext, type StepPlan } from '../ledger/planner';
import type { PackCommand } from './commands';
import type { HoldingKind } from '../ledger/types';

/** What is weighed into packs. */
const WEIGHED: readonly HoldingKind[] = ['block', 'mass', 'remelt'];

/**
 * Bars get wrapper and label; from here on they go by the code that is printed on them. Blocks and tubs are
 * weighed into packs: couverture for a kitchen, drops, broken pieces.
 */
export function planPack(command: PackCommand, context: PlanContext): StepPlan {
  const planner = new Planner(context);
  const taken = context.book.byCode(command.labelCode);
  if (taken && taken.id !== context.oldSlots['good']) {
    throw new DomainError('pack/code-taken', `The code ${command.labelCode} is on other goods already.`, [
      { path: 'labelCode', message: 'is used already' },
    ]);
  }
  const source = context.book.holding(command.holdingId);
  if (WEIGHED.includes(source.kind) && command.massG === undefined)
    throw new DomainError('money/amount', `${source.code} is weighed: say how much goes into the packs.`, [
      { path: 'massG', message: 'is missing' },
    ]);
  const mg = planner.take(
    [
      {
        holdingId: command.holdingId,
        ...(command.massG === undefined ? { pieces: command.pieces } : { massG: command.massG }),
      },
    ],
    ['bars', ...WEIGHED],
    'holdingId',
  );
  planner.make(
    'good',
    {
      kind: 'packed',
      letter: CODE_LETTERS.tub,
      code: command.labelCode,
      name: source.name,
      place: 'store',
      routeId: source.routeId,
      batchId: source.batchId,
    },
    mg,
    command.pieces,
  );
  planner.take(
    command.packaging.map(({ holdingId, pieces, damaged = 0 }) => ({ holdingId, pieces: pieces + damaged })),
    ['packaging'],
    'packaging',
  );
  return planner.plan('pack', source.batchId);
}
