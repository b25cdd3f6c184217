import { DomainError } from '../errors/domain-error';
import {
  CODE_LETTERS,
  Planner,
  withoutWeight,
  type NewHolding,
  type PlanContext,
  type StepPlan,
} from '../ledger/planner';
import type { MouldCommand } from './commands';
import type { HoldingKind } from '../ledger/types';
import { toMg } from '../units/mass';

/**
 * How many bars a pour gives.
 *
 * @param chocolateG grams in the pour; @param holdUpG grams that stay in machine and bowl; @param barG grams a bar;
 *   @param cavities bars that the moulds hold in one fill
 */
export function barsFrom(
  chocolateG: number,
  holdUpG: number,
  barG: number,
  cavities: number,
): { bars: number; fills: number; overG: number } {
  // A hair of tolerance so that 5 × 62 g really gives five bars of 62 g in binary arithmetic.
  const bars = Math.max(0, Math.floor((chocolateG - holdUpG) / barG + 1e-9));
  return {
    bars,
    fills: cavities > 0 ? Math.ceil(bars / cavities) : 0,
    overG: Math.max(0, chocolateG - holdUpG - bars * barG),
  };
}

/** A pour becomes bars: good ones, seconds, what goes back to be remelted, trimmings and what stays behind. */
export function planMould(command: MouldCommand, context: PlanContext): StepPlan {
  const planner = new Planner(context);
  planner.take(command.sources, ['tempered', 'mass', 'block', 'ingredient']);
  const origin = planner.origin(command.sources);
  const { goodPieces, secondsPieces, barG } = command;
  if (goodPieces + secondsPieces === 0 && command.remeltG === 0) {
    throw new DomainError('mould/nothing', 'Say how many bars came out, or what goes back to be remelted.', [
      { path: 'goodPieces', message: 'is 0 and so is everything else' },
    ]);
  }
  const base = (kind: HoldingKind, place: NewHolding['place'], name: string): NewHolding => ({
    kind,
    letter: CODE_LETTERS.tub,
    name,
    place,
    routeId: origin.routeId,
    batchId: origin.batchId,
  });
  if (goodPieces > 0) {
    const place = planner.after('mould', origin.routeId, 'pack');
    const goodMg = toMg(command.goodG ?? goodPieces * barG);
    if (goodMg === 0) {
      throw new DomainError('mould/weightless', 'Good bars weigh something: weigh them or leave the weight out.', [
        { path: 'goodG', message: 'is 0 g' },
      ]);
    }
    planner.make('good', base('bars', place, `${withoutWeight(origin.name)}, ${barG} g`), goodMg, goodPieces);
  }
  if (secondsPieces > 0) {
    planner.make(
      'seconds',
      base('seconds', 'store', `Seconds, ${origin.name}`),
      toMg(secondsPieces * barG),
      secondsPieces,
    );
  }
  if (command.remeltG > 0) planner.make('remelt', base('remelt', 'temper', origin.name), toMg(command.remeltG));
  if ((command.blockG ?? 0) > 0)
    planner.make(
      'block',
      { ...base('block', 'temper', withoutWeight(origin.name)), letter: CODE_LETTERS.block },
      toMg(command.blockG ?? 0),
    );
  planner.lose('sample', toMg(command.sampleG ?? 0));
  planner.lose('trimming', toMg(command.trimmingsG));
  planner.lose('hold-up', toMg(command.holdUpG));
  planner.explainRest('unaccounted', 'goodPieces');
  return planner.plan('mould', origin.batchId);
}
