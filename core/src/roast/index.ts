/* Contents: what others use of this room, file by file. Kept by scripts/contents.mjs. */

export { type PlanBand, type Range, simulateBand } from './band';
export { RoastBook } from './book';
export { roast } from './commands';
export { type AlignBy, type FillVerdict, type LoadMeasures, MEASURES, judgeFill, zeroOf } from './compare';
export { type Curve, ROAST_CHANNELS, clean, curveData, curveOf, roastCurve, roastReadings, smooth } from './curve';
export {
  type BadRow,
  COLUMN_ROLES,
  type ColumnRole,
  type CurveMapping,
  type CurvePreview,
  type CurveWish,
  TIME_FORMS,
  type TimeForm,
  curveRows,
  readCurveTable,
} from './curve-file';
export { type Jump, type Stall, jumpsIn, stallsIn } from './events';
export { type RoastFigures, killFigure, roastFigures } from './figures';
export { type HeldOut, type LoadFit, type RoasterFit, expectLoad, fitRoaster, fitWords } from './fit';
export {
  type Ahead,
  type NextAct,
  climbAgainst,
  isDue,
  lookAhead,
  nextAct,
  nextSetting,
  nextStirS,
  plannedClimb,
  roastClock,
  whereIn,
} from './live';
export { USUAL_MOISTURE } from './logged';
export { type BeanStart, follower } from './model';
export {
  checkProgram,
  layerOf,
  layerWords,
  plannedSettings,
  programMinutes,
  withEnd,
  withSetting,
  withSplit,
  without,
} from './program';
export { readProgram, writeProgram } from './program-text';
export { READY_MADE } from './ready-made';
export { type RoastRecord, type RoastRecordValue, type Trial, roastRecord, trial } from './records';
export { planRoast } from './roast';
export { type AirParameters, simulateProgram } from './simulate';
export {
  type OvenLoad,
  type OvenSecond,
  type OvenState,
  type SimulatedOven,
  loadedOven,
  ovenWeightLeft,
  secondLater,
  seededLoad,
  someLoad,
  someOven,
} from './simulated-oven';
export { PREHEAT_OVER, steadySetting } from './solve';
export { station } from './station';
export { type Study, type StudyInput, studyRoast } from './study';
export { thin } from './thin';
export { ROAST_WORDS, type RoastTrialVerdict, judgeTrial, roastFactors } from './trial';
export { type UsualSign, usualSigns } from './usual-signs';
export { SIGNS, clock } from './words';
