import { DomainError } from '../errors/domain-error';
import { CODE_LETTERS, held, Planner, type PlanContext, type StepPlan } from '../ledger/planner';
import type { DryCommand, ReceiveCommand } from './commands';
import { toMg } from '../units/mass';
import { isCurrency, milliFromMajor } from '../units/money';

export interface Purchase {
  /** Grams that are paid for: the invoice's net weight, or what was weighed. */
  paidG: number;
  /** In the invoice's currency. */
  pricePerKg: number;
  /** Workshop currency for one of the invoice's. */
  rate: number;
  /** In the workshop's currency, for the whole lot. */
  freight: number;
  duty: number;
}

/**
 * What a lot costs at the workshop door: weight paid × price × rate, plus freight and duty. Spread over the
 * grams that really came, a short sack makes every kilogram dearer.
 *
 * @returns milli of the workshop's currency, for the whole lot
 */
export function landedMilli({ paidG, pricePerKg, rate, freight, duty }: Purchase): number {
  return milliFromMajor((paidG / 1000) * pricePerKg * rate + freight + duty);
}

/** A lot comes in: grams from the supplier, with its price. */
export function planReceive(command: ReceiveCommand, context: PlanContext): StepPlan {
  const planner = new Planner(context);
  context.route(command.routeId);
  if (!isCurrency(command.currency))
    throw new DomainError('beans/no-currency', `There is no currency ${command.currency}.`, [
      { path: 'currency', message: 'is no currency' },
    ]);
  const mg = toMg(command.netG);
  planner.make(
    'good',
    { kind: 'lot', letter: CODE_LETTERS.lot, name: command.name, place: 'beans', routeId: command.routeId },
    mg,
  );
  planner.door('supplier', -mg);
  const { producer, country, region, variety, harvest, form, sacks, moisturePct, note } = command;
  const { sample, sampleId, invoiceNetG, invoiceSacks, pricePerKg, currency } = command;
  return planner.plan('beans', null, {
    purchaseMilli: landedMilli({
      paidG: invoiceNetG ?? command.netG,
      pricePerKg,
      rate: command.rate,
      freight: command.freight,
      duty: command.duty ?? 0,
    }),
    lot: {
      producer,
      country,
      region,
      variety,
      harvest,
      form,
      roasted: command.roasted ?? null,
      sacks,
      moisturePct,
      note,
      sample: sample ?? false,
      sampleId: sampleId ?? null,
      invoiceNetG: invoiceNetG ?? null,
      invoiceSacks: invoiceSacks ?? null,
      pricePerKg,
      currency,
    },
  });
}

/** Wet beans of a lot, fermented and dried, are weighed again: what went is water and sweatings. */
export function planDry(command: DryCommand, context: PlanContext): StepPlan {
  const planner = new Planner(context);
  const there = held(context, command.lotId).massMg;
  if (there <= 0) {
    throw new DomainError('beans/nothing-to-dry', 'Nothing of this lot is left to dry.', [
      { path: 'lotId', message: 'is empty at that time' },
    ]);
  }
  planner.take([{ holdingId: command.lotId, massG: there / 1000 }], ['lot'], 'lotId');
  const dryMg = toMg(command.outG);
  if (dryMg >= there) {
    throw new DomainError('beans/not-lighter', 'Dry beans weigh less than wet ones.', [
      { path: 'outG', message: `is not less than the ${context.mass(there)} that were there` },
    ]);
  }
  planner.put(command.lotId, dryMg);
  planner.slots['good'] = command.lotId;
  planner.explainRest('water', 'outG');
  return planner.plan('beans', null);
}
