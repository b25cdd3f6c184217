import { CODE_LETTERS, Planner, type PlanContext, type StepPlan } from '../ledger/planner';
import type { CommandOf } from '../ledger/commands';
import { toMg } from '../units/mass';
import { milliFromMajor } from '../units/money';

/**
 * What a lot costs at the workshop door: net weight × price × rate, plus freight and duty.
 *
 * @param netG grams; @param pricePerKg in the invoice's currency; @param rate workshop currency per invoice unit;
 *   @param freight in the workshop's currency
 * @returns milli of the workshop's currency, for the whole lot
 */
export function landedMilli(netG: number, pricePerKg: number, rate: number, freight: number): number {
  return milliFromMajor((netG / 1000) * pricePerKg * rate + freight);
}

/** A lot comes in: grams from the supplier, with its price. */
export function planReceive(command: CommandOf<'receive'>, context: PlanContext): StepPlan {
  const planner = new Planner(context);
  context.route(command.routeId);
  const mg = toMg(command.netG);
  planner.make(
    'good',
    { kind: 'lot', letter: CODE_LETTERS.lot, name: command.name, place: 'beans', routeId: command.routeId },
    mg,
  );
  planner.door('supplier', -mg);
  const { producer, country, region, variety, harvest, form, sacks, moisturePct, note } = command;
  return planner.plan('beans', null, {
    purchaseMilli: landedMilli(command.netG, command.pricePerKg, command.rate, command.freight),
    lot: { producer, country, region, variety, harvest, form, sacks, moisturePct, note },
  });
}
