import { planDry, planReceive } from '../beans/receive';
import { planCharge, planDischarge, planReading } from '../grind/grind';
import { planAdjust, planBuy, planSell } from '../money/trade';
import { planMould } from '../mould/mould';
import { planPack } from '../pack/pack';
import { planRest } from '../rest/rest';
import { planRoast } from '../roast/roast';
import { planSort } from '../sort/sort';
import { planTaste } from '../taste/taste';
import { planRemelt, planTemper } from '../temper/temper';
import { planWinnow } from '../winnow/winnow';
import type { Command, CommandOf } from './commands';
import type { PlanContext, StepPlan } from './planner';

type Planners = { [K in Command['kind']]: (command: CommandOf<K>, context: PlanContext) => StepPlan };

const PLANNERS: Planners = {
  receive: planReceive,
  dry: planDry,
  buy: planBuy,
  sort: planSort,
  roast: planRoast,
  winnow: planWinnow,
  charge: planCharge,
  discharge: planDischarge,
  reading: planReading,
  rest: planRest,
  temper: planTemper,
  remelt: planRemelt,
  mould: planMould,
  pack: planPack,
  taste: planTaste,
  sell: planSell,
  adjust: planAdjust,
};

/** Turns what was entered at a bench into the postings of one step. @throws DomainError with the field at fault */
export function planStep(command: Command, context: PlanContext): StepPlan {
  return (PLANNERS[command.kind] as (c: Command, x: PlanContext) => StepPlan)(command, context);
}
