import { DomainError } from '../errors/domain-error';
import { CODE_LETTERS, held, Planner, type PlanContext, type StepPlan } from '../ledger/planner';
import type { ChargeCommand, DischargeCommand } from './commands';
import type { ReadingCommand } from './reading-command';
import type { Batch, HoldingKind } from '../ledger/types';
import { toMg } from '../units/mass';

const INTO_THE_BOWL: readonly HoldingKind[] = ['nibs', 'lot', 'ingredient', 'mass', 'block', 'remelt', 'seconds'];

/** Nibs, sugar, butter go into the bowl: the first charge begins the batch, later ones add to it. */
export function planCharge(command: ChargeCommand, context: PlanContext): StepPlan {
  const planner = new Planner(context);
  planner.take(command.sources, INTO_THE_BOWL);
  const inBowl = planner.left;
  if (command.batchId !== undefined) {
    const batch = context.batch(command.batchId);
    if (command.sources.some(({ holdingId }) => holdingId === batch.id)) {
      throw new DomainError('grind/into-itself', 'A batch cannot be added to itself.', [
        { path: 'sources', message: 'names the bowl it goes into' },
      ]);
    }
    const began = context.before(batch.id).length > 0;
    const isFirst = context.first !== null && context.book.holding(batch.id).madeBy === context.first;
    if (!isFirst && !began) {
      throw new DomainError('grind/before-start', `${batch.code} had not been started at that time.`, [
        { path: 'at', message: 'is before the batch was started' },
      ]);
    }
    planner.slots['good'] = batch.id;
    planner.put(batch.id, inBowl);
    return planner.plan('grind', batch.id);
  }
  if (!command.batch) {
    throw new DomainError('grind/no-batch', 'Name the batch that begins, or choose the one to add to.', [
      { path: 'batch.name', message: 'is missing' },
    ]);
  }
  context.route(command.batch.routeId);
  const batchId = planner.make(
    'good',
    {
      kind: 'mass',
      letter: CODE_LETTERS.batch,
      name: command.batch.name,
      place: 'grind',
      routeId: command.batch.routeId,
    },
    inBowl,
  );
  const made = planner.holdings[0];
  if (made) made.batchId = batchId;
  const batch: Batch = {
    id: batchId,
    code: made?.code ?? context.batch(batchId).code,
    machineId: context.machineId,
    ...command.batch,
  };
  return planner.plan('grind', batchId, { batch });
}

/** The bowl is emptied, or a part of it, into blocks or tubs; what was scraped off late is hold-up, the rest unaccounted. */
export function planDischarge(command: DischargeCommand, context: PlanContext): StepPlan {
  const planner = new Planner(context);
  const batch = context.batch(command.batchId);
  const { massMg } = held(context, batch.id);
  if (massMg <= 0) {
    throw new DomainError('grind/empty', `${batch.code} has nothing in the bowl at that time.`, [
      { path: 'batchId', message: 'is empty' },
    ]);
  }
  const leftMg = toMg(command.leftG ?? 0);
  if (leftMg >= massMg) {
    throw new DomainError(
      'grind/nothing-poured',
      `${batch.code} held ${context.mass(massMg)}: that much cannot stay in the bowl.`,
      [{ path: 'leftG', message: 'is not less than what was in the bowl' }],
    );
  }
  planner.take([{ holdingId: batch.id, massG: (massMg - leftMg) / 1000 }], ['mass'], 'batchId');
  const place = planner.after('grind', batch.routeId, 'temper');
  command.outsG.forEach((grams, index) => {
    planner.make(
      index === 0 ? 'good' : `good${index + 1}`,
      {
        kind: place === 'rest' ? 'block' : 'mass',
        letter: place === 'rest' ? CODE_LETTERS.block : CODE_LETTERS.tub,
        name: batch.name,
        place,
        routeId: batch.routeId,
        batchId: batch.id,
      },
      toMg(grams),
    );
  });
  planner.lose('hold-up', toMg(command.holdUpG));
  planner.lose('trimming', toMg(command.sievedG ?? 0), 'kept by the sieve');
  planner.explainRest('unaccounted', 'outsG.0');
  return planner.plan('grind', batch.id);
}

/** Over it chocolate is long burnt: what reads so hangs somewhere else. */
const HOTTEST_BOWL_C = 120;

/** A reading at the grinder: it moves nothing. */
export function planReading(command: ReadingCommand, context: PlanContext): StepPlan {
  const batch = context.batch(command.batchId);
  const planner = new Planner(context);
  if (context.before(batch.id).length === 0)
    throw new DomainError('grind/before-start', `${batch.code} had not been started at that time.`, [
      { path: 'at', message: 'is before the batch was started' },
    ]);
  if (command.what === 'bowl-temperature' && (command.value ?? 0) > HOTTEST_BOWL_C)
    throw new DomainError(
      'grind/not-a-bowl',
      'No bowl of chocolate is as hot as that: look whether the probe hangs in it, and whether it is °C or °F.',
      [{ path: 'value', message: 'is hotter than any bowl' }],
    );
  if (command.what === 'move') {
    if (context.machineId === null)
      throw new DomainError('grind/no-machine', 'Choose the machine that it goes on in.', [
        { path: 'machineId', message: 'is missing' },
      ]);
    planner.slots['good'] = batch.id;
  }
  return planner.plan('grind', batch.id);
}
