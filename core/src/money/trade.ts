import { DomainError } from '../errors/domain-error';
import type { Book } from '../ledger/book';
import type { Entry } from '../ledger/entries';
import type { AdjustCommand, BuyCommand, ReturnCommand, SellCommand } from './commands';
import { CODE_LETTERS, held, moreThanNoise, Planner, type PlanContext, type StepPlan } from '../ledger/planner';
import { HOLDING_KINDS, isByProduct, type Holding, type Step } from '../ledger/types';
import { firstVersion, newestVersion } from '../ledger/versions';
import { apportion } from '../units/apportion';
import { formatMass, toMg, type MassSystem } from '../units/mass';
import { milliFromMajor } from '../units/money';

/** Ingredients by weight, packaging by the piece: each purchase is its own holding, so it can be traced. */
export function planBuy(command: BuyCommand, context: PlanContext): StepPlan {
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
export function planSell(command: SellCommand, context: PlanContext): StepPlan {
  const planner = new Planner(context);
  planner.take(command.sources, HOLDING_KINDS);
  planner.door('customer', planner.left);
  const first = context.book.holding(command.sources[0]?.holdingId ?? '');
  const takingsMilli = takingsPerThing(command, context);
  return planner.plan('store', first.batchId, {
    revenueMilli: milliFromMajor(command.takings),
    ...(takingsMilli ? { takingsMilli } : {}),
  });
}

/**
 * What each thing sold fetched, in milli: as entered; for one thing, or several of one by-product, the takings.
 *
 * @throws DomainError `money/whose-takings` where a by-product is sold with other goods and nobody said how much
 *   of the money is its own: that much is taken off the cost of the good grams
 */
function takingsPerThing(command: SellCommand, context: PlanContext): Record<string, number> | undefined {
  const { sources, takings } = command;
  const totals: Record<string, number> = {};
  const add = (id: string, milli: number): void => {
    totals[id] = (totals[id] ?? 0) + milli;
  };
  if (sources.every((line) => line.takings !== undefined)) {
    const all = milliFromMajor(takings);
    const parts = sources.map((line) => milliFromMajor(line.takings ?? 0));
    // The thousandth of a coin that rounding leaves goes with the largest.
    const largest = parts.indexOf(Math.max(...parts));
    parts[largest] = (parts[largest] ?? 0) + all - parts.reduce((sum, part) => sum + part, 0);
    sources.forEach(({ holdingId }, index) => add(holdingId, parts[index] ?? 0));
    return totals;
  }
  const byProducts = sources.map(({ holdingId }) => isByProduct(context.book.holding(holdingId).kind));
  const [only] = new Set(sources.map(({ holdingId }) => holdingId));
  if (only !== undefined && sources.every(({ holdingId }) => holdingId === only)) {
    add(only, milliFromMajor(takings));
    return totals;
  }
  if (byProducts.every(Boolean)) {
    const weights = sources.map(({ massG }) => massG ?? 0);
    if (!weights.some((weight) => weight > 0)) return undefined;
    const parts = apportion(milliFromMajor(takings), weights);
    sources.forEach(({ holdingId }, index) => add(holdingId, parts[index] ?? 0));
    return totals;
  }
  if (takings > 0 && byProducts.some(Boolean)) {
    throw new DomainError(
      'money/whose-takings',
      'Say what each thing fetched: only a by-product’s own money is taken off the cost of what was made with it.',
      sources.map((_, index) => ({ path: `sources.${index}.takings`, message: 'is missing' })),
    );
  }
  return undefined;
}

/** What a buyer sent back of a sale: into the store again at what it had cost, or thrown away. */
export function planReturn(command: ReturnCommand, context: PlanContext): StepPlan {
  const planner = new Planner(context);
  const { saleId, holdingId, fate, refund } = command;
  const { code, place, batchId } = context.book.holding(holdingId);
  const sale = newestVersion(context.book, saleId);
  const out = sale?.postings.filter((posting) => posting.holdingId === holdingId && posting.massMg < 0) ?? [];
  if (sale?.kind !== 'sell' || sale.withdrawn || out.length === 0)
    throw new DomainError('money/not-sold', `${code} did not go out with that sale.`, [
      { path: 'saleId', message: 'is no sale of it' },
    ]);
  const soldPieces = -out.reduce((sum, { pieces }) => sum + pieces, 0);
  const soldMg = -out.reduce((sum, { massMg }) => sum + massMg, 0);
  const counted = soldPieces > 0;
  if (counted ? command.pieces === undefined : command.massG === undefined)
    throw new DomainError('money/amount', counted ? `${code} is counted.` : `${code} is weighed.`, [
      { path: counted ? 'pieces' : 'massG', message: 'is missing' },
    ]);
  const earlier = returnsOf(context.book, saleId, holdingId, context.order);
  const pieces = counted ? (command.pieces ?? 0) : 0;
  const massMg = counted ? Math.round((soldMg * pieces) / soldPieces) : toMg(command.massG ?? 0);
  if (counted ? pieces > soldPieces - earlier.pieces : massMg > soldMg - earlier.massMg)
    throw new DomainError(
      'money/more-than-sold',
      counted
        ? `${soldPieces} of ${code} went out with that sale${earlier.pieces > 0 ? ` and ${earlier.pieces} came back` : ''}: ${pieces} cannot come back.`
        : `${context.mass(soldMg - earlier.massMg, massMg)} of ${code} is still out from that sale: ${context.mass(massMg)} cannot come back.`,
      [{ path: counted ? 'pieces' : 'massG', message: 'is more than is still out' }],
    );
  planner.door('customer', -massMg, -pieces);
  if (fate === 'back') planner.put(holdingId, massMg, pieces);
  else planner.lose('write-off', massMg, command.why === '' ? 'sent back' : command.why);
  return planner.plan(place, batchId, { revenueMilli: -milliFromMajor(refund) });
}

/** What came back of a sale, whichever of its versions it was booked on. @param but the order of a step that is left out */
function returnsOf(
  book: Book,
  saleId: string,
  holdingId: string,
  but?: number,
): { pieces: number; massMg: number; stepIds: string[] } {
  const sum = { pieces: 0, massMg: 0, stepIds: [] as string[] };
  const first = firstVersion(book, saleId);
  for (const step of book.timeline) {
    if (step.kind !== 'return' || step.withdrawn || step.order === but) continue;
    const command = step.command as ReturnCommand;
    if (command.holdingId !== holdingId || firstVersion(book, command.saleId) !== first) continue;
    sum.stepIds.push(step.id);
    for (const { outside, pieces, massMg } of step.postings) {
      if (outside !== 'customer') continue;
      sum.pieces -= pieces;
      sum.massMg -= massMg;
    }
  }
  return sum;
}

/**
 * A sale of which something came back cannot become smaller than that, nor be taken back.
 *
 * @param next what it is corrected to; null: it is taken back
 * @param massSystem what the refusal says a mass in
 * @throws DomainError `money/came-back`, with the steps
 */
export function checkReturns(
  book: Book,
  sale: Step,
  next: SellCommand | null,
  massSystem: MassSystem = 'metric',
): void {
  for (const { holdingId, pieces, massMg } of sale.postings) {
    if (holdingId === null || massMg >= 0) continue;
    const back = returnsOf(book, sale.id, holdingId);
    if (back.stepIds.length === 0) continue;
    const lines = next?.sources.filter((line) => line.holdingId === holdingId) ?? [];
    const isEnough =
      pieces < 0
        ? lines.reduce((sum, line) => sum + (line.pieces ?? 0), 0) >= back.pieces
        : toMg(lines.reduce((sum, line) => sum + (line.massG ?? 0), 0)) >= back.massMg;
    if (isEnough) continue;
    const { code } = book.holding(holdingId);
    throw new DomainError(
      'money/came-back',
      `${pieces < 0 ? `${back.pieces}` : formatMass(back.massMg, massSystem)} of ${code} came back from that sale: take that back first.`,
      [{ path: 'sources', message: 'are fewer than came back' }],
      { stepIds: back.stepIds },
    );
  }
}

/** A count or weighing of what is really there: the difference is booked under a cause. */
export function planAdjust(command: AdjustCommand, context: PlanContext): StepPlan {
  const planner = new Planner(context);
  const holding = context.book.holding(command.holdingId);
  if (context.before(holding.id).length === 0) {
    throw new DomainError('ledger/not-yet', `${holding.code} did not exist yet at that time.`, [
      { path: 'at', message: 'is before it was there' },
    ]);
  }
  const there = held(context, holding.id);
  // Bars are counted, also when the last of them has gone.
  const pieceMg = meanPieceMg(context.before(holding.id));
  const counted = pieceMg !== null || holding.kind === 'packaging';
  const field = counted ? 'countedPieces' : 'countedG';
  const value = command[field];
  if (value === undefined) {
    throw new DomainError('ledger/no-count', `Say what is really there in ${holding.code}.`, [
      { path: field, message: 'is missing' },
    ]);
  }
  const pieces = counted ? value - there.pieces : 0;
  const thereMg = there.pieces > 0 ? there.massMg / there.pieces : (pieceMg ?? 0);
  const massMg = (counted ? Math.round(thereMg * value) : toMg(value)) - there.massMg;
  refuseFromNothing(holding, massMg, field, context);
  // A count that agrees with the book is still a count: it moves nothing, and teaches.
  if (massMg !== 0 || pieces !== 0) planner.put(holding.id, massMg, pieces);
  planner.lose(massMg > 0 ? 'unaccounted' : command.cause, -massMg);
  return planner.plan(holding.place, holding.batchId);
}

/** Mean weight of what was put in by the piece; null where nothing was, 0 where pieces weigh nothing here. */
function meanPieceMg(entries: readonly Entry[]): number | null {
  let [massMg, pieces] = [0, 0];
  for (const entry of entries) {
    if (entry.pieces <= 0) continue;
    massMg += entry.massMg;
    pieces += entry.pieces;
  }
  return pieces > 0 ? massMg / pieces : null;
}

/**
 * A count can find again what an earlier count or a wrong weight lost; it cannot find more than ever went in.
 * From the pantry a recipe may have been entered too high, so there only what was bought is the bound.
 */
function refuseFromNothing(holding: Holding, foundMg: number, field: string, context: PlanContext): void {
  if (foundMg <= 0) return;
  const moved = context.before(holding.id).filter(({ kind }) => kind !== 'adjust');
  let cameMg = 0;
  let wentMg = 0;
  for (const { massMg } of moved) {
    if (massMg > 0) cameMg += massMg;
    else wentMg -= massMg;
  }
  if (holding.kind === 'ingredient' || holding.kind === 'packaging') wentMg = 0;
  const thenMg = held(context, holding.id).massMg + foundMg;
  if (!moreThanNoise(thenMg + wentMg - cameMg, cameMg)) return;
  const most = Math.max(cameMg, wentMg, thenMg);
  const mass = (mg: number): string => context.mass(mg, most);
  const went = wentMg > 0 ? ` and ${mass(wentMg)} went out` : '';
  throw new DomainError(
    'ledger/more-out-than-in',
    `${mass(cameMg)} came into ${holding.code}${went}: ${mass(thenMg)} cannot be there. Correct the step that was weighed wrong, then count again.`,
    [{ path: field, message: 'is more than the book can explain' }],
    { holdingId: holding.id, stepIds: moved.map(({ stepId }) => stepId) },
  );
}
