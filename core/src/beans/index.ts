/* Contents: what others use of this room, file by file. Kept by scripts/contents.mjs. */

export { BeanBook } from './book';
export { type ClaimSheet, claimSheet } from './claim';
export { dry, receive } from './commands';
export {
  CUT_CLASSES,
  CUT_NAMES,
  CUT_PLANS,
  type CutClass,
  type CutVerdict,
  GRADE_LIMITS,
  NO_BEANS,
  type Share,
  TRAY,
  type Tally,
  beansIn,
  cutShares,
  hitsOf,
  judgeCut,
} from './cut-test';
export { type Advice, type DryingForecast, dryingForecast, fermentAdvice, healthyBand } from './harvest';
export { HOLD_METHODS, type HoldClock, type HoldMethod, type HoldPlan, USUAL_HOLD } from './hold';
export { type ImportRow, guessMapping, readLotRow } from './import';
export { IMPORT_LABELS, type ImportField } from './import-fields';
export { papersOf } from './papers';
export { judgeCounts, judgeMoisture } from './readings';
export { landedMilli, planDry, planReceive } from './receive';
export {
  type BeanRecord,
  type BeanRecordValue,
  type ContractLimits,
  type Decision,
  type Drying,
  type Ferment,
  type Harvest,
  type Hold,
  type Inspection,
  type InspectionSeen,
  type Papers,
  type RecordWith,
  type SackRow,
  beanRecord,
  contractLimits,
  decision,
  dryingEntry,
  fermentEntry,
  harvest,
  inspectionSeen,
  newestOf,
  ofKind,
  papers,
  trap,
} from './records';
export { type RoomVerdict, judgeRoom } from './room';
export { type CountCheck, type SackStock, checkCount, netOf, sackStock } from './sacks';
export { type HoldState, type LotStanding, type Standing, canBeWorked, checkHoldRecord, mayBeWorked } from './state';
export { station } from './station';
export { type TrapAlarm, type TrapCount, type TrapWeek, trapAlarm, trapWeeks } from './traps';
export { beanUpgrades } from './upgrades';
export { type ArrivalVerdict, judgeArrival } from './verdict';
export { ACTIONS, ACTION_NAMES, type Action } from './words';
