/* Contents: what others use of this room, file by file. Kept by scripts/contents.mjs. */

export {
  ACTS,
  type Charged,
  type WentIn,
  actDues,
  actsOfFeed,
  changeAct,
  planAct,
  usualActs,
  waitsWords,
  wentIn,
} from './acts';
export { charge, discharge } from './commands';
export {
  type ConcheForecast,
  type ConchePast,
  type ConcheTaste,
  concheHistory,
  conchePriorFrom,
  forecastConche,
  judgeAroma,
} from './conche';
export { type FillFact, type RealFill, realFill } from './fill';
export { FELT, type Population, type Solid } from './fineness';
export {
  type GrindPrior,
  type GrindQuestion,
  type GrindReading,
  TRADE_PRIOR,
  bestReading,
  forecastGrind,
} from './forecast';
export { chargeGates, readingGates } from './gates';
export { planCharge, planDischarge, planReading } from './grind';
export { countHeld, held } from './hits';
export { judgeHoldUp } from './hold-up';
export { type MoveEffect, type NightChoice, effectOfMoving, nightChoice } from './moved';
export { type GrindEvidence, evidenceOf, priorFrom } from './prior';
export { type ReadingCommand, reading } from './reading-command';
export { type Life, type RunEvent, grinding, lifeOf, moving, runningIn } from './running';
export { simulatedBowlC } from './simulated-bowl';
export { type SimulatedGrind, type SimulatedStones, grindSizes, readGauge, someStones } from './simulated-stones';
export { station } from './station';
export { type ConcheStudy, type GrindStudy, type GrindTonight, tonight } from './tonight';
export { upkeepDue } from './upkeep';
export { BOWL_CHANNELS, type BowlTemp, hottestFor, judgeWarming } from './warming';
