import { DomainError } from '../errors/domain-error';
import type { KnownGoods } from '../composition/composition';
import type { OpenCommand } from './opening-command';
import type { OpeningKind } from './opening-command';
import { CODE_LETTERS, Planner, type CodeLetter, type PlanContext, type StepPlan } from '../ledger/planner';
import type { Batch } from '../ledger/types';
import { toMg } from '../units/mass';
import { milliFromMajor } from '../units/money';
import type { Place, Station } from '../work/stations';

/** Where each kind of goods comes from, so that it waits for what follows on its route. */
const AFTER: Record<OpeningKind, Station | Place> = {
  beans: 'sort',
  roasted: 'roast',
  nibs: 'winnow',
  husk: 'store',
  mass: 'grind',
  block: 'grind',
  remelt: 'temper',
  bars: 'mould',
  seconds: 'store',
  packed: 'store',
};
const OTHERWISE: Partial<Record<OpeningKind, Place>> = {
  beans: 'roast',
  roasted: 'winnow',
  nibs: 'grind',
  block: 'rest',
  bars: 'pack',
};
const FIXED: readonly OpeningKind[] = ['husk', 'mass', 'remelt', 'seconds', 'packed'];
const LETTERS: Partial<Record<OpeningKind, CodeLetter>> = {
  husk: CODE_LETTERS.husk,
  block: CODE_LETTERS.block,
  mass: CODE_LETTERS.batch,
};
const COUNTED: readonly OpeningKind[] = ['bars', 'seconds', 'packed'];

/** Whether goods of a kind are counted as well as weighed. */
export const isCounted = (what: OpeningKind): boolean => COUNTED.includes(what);

/** What is known of goods from before the book, as their composition reads it. */
export function knownGoods(command: OpenCommand): KnownGoods {
  const { name, what, cocoaPct, withoutButterPct, sugarPct, allergens } = command;
  const cacao = what === 'beans' || what === 'roasted' || what === 'nibs' || what === 'husk';
  return { name, cacao, cocoaPct, withoutButterPct, sugarPct, allergens };
}

/**
 * Goods that are in the house when the book begins: they come in by the door, at what they are worth, with what is
 * known of their past. A mass is a batch that runs in its bowl.
 */
export function planOpen(command: OpenCommand, context: PlanContext): StepPlan {
  const planner = new Planner(context);
  const { what, routeId } = command;
  const counted = isCounted(what);
  if (command.massG === undefined)
    throw new DomainError('money/amount', 'Say how much there is.', [{ path: 'massG', message: 'is missing' }]);
  if (counted && command.pieces === undefined)
    throw new DomainError('money/amount', 'Bars are counted as well as weighed.', [
      { path: 'pieces', message: 'is missing' },
    ]);
  if (routeId !== null) context.route(routeId);
  const { code } = command;
  const taken = code === undefined ? undefined : context.book.byCode(code);
  if (code !== undefined && taken && taken.id !== context.oldSlots['good'])
    throw new DomainError('pack/code-taken', `The code ${code} is on other goods already.`, [
      { path: 'code', message: 'is used already' },
    ]);
  if (what === 'mass' && routeId === null)
    throw new DomainError('grind/no-batch', 'A batch on the stones follows a route.', [
      { path: 'routeId', message: 'is missing' },
    ]);
  const place = FIXED.includes(what)
    ? AFTER[what]
    : planner.after(AFTER[what] as Station, routeId, OTHERWISE[what] ?? 'store');
  const mg = toMg(command.massG);
  const id = planner.make(
    'good',
    {
      kind: what,
      letter: LETTERS[what] ?? CODE_LETTERS.tub,
      name: command.name,
      place,
      routeId,
      ...(code === undefined ? {} : { code }),
    },
    mg,
    counted ? (command.pieces ?? 0) : 0,
  );
  planner.door('supplier', -mg);
  const made = planner.holdings[0];
  const purchaseMilli = milliFromMajor(command.value);
  if (what !== 'mass' || routeId === null) return planner.plan(place, null, { purchaseMilli });
  if (made) made.batchId = id;
  const batch: Batch = {
    id,
    code: made?.code ?? context.batch(id).code,
    name: command.name,
    routeId,
    machineId: context.machineId,
    targetMicron: command.targetMicron,
    cocoaTargetPct: null,
  };
  return planner.plan('grind', id, { purchaseMilli, batch });
}
