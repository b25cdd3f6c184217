/* Contents: what others use of this room, file by file. Kept by scripts/contents.mjs. */

export { type Cause, LAST_LOOK_DAY, SEEN_WORDS, type Sight, bloomBy, isFault, lookDue, looksOf, whyIt } from './bloom';
export { BOWL, POUR_CHANNELS } from './channels';
export { remelt, silk, temper } from './commands';
export { type Bar, type SeedKind, thickness } from './crystal';
export { type BenchFaults, type CountedPour, FAULT_WORDS, faultsByBench } from './faults';
export { temperGates } from './gates';
export { type MeterVerdict, readMeter } from './inflection';
export { type PourFacts, type TemperReading, type TemperVerdict, featuresOf, judgePour } from './judge';
export { type LearnedSetting, type PastPour, learnedSetting } from './learned';
export { BAR_WORDS, LESSONS, type Lesson } from './lessons';
export { type ActState, actNow, planPour, walkActs } from './plan';
export { isStuck, pourNow } from './pour';
export {
  type Hands,
  MARBLE_C,
  OWN_BOWL_LIMITS,
  type OwnBowl,
  type Practice,
  type PracticeEnd,
  SEED_SHARES,
  USUAL_BOWL_KG,
  beginPractice,
  carryOn,
  lessonWith,
  pourPractice,
  withSeed,
} from './practice';
export { subjectOf, temperRecord } from './records';
export { type Replay, type Replayed, WHAT_IFS, type WhatIf, replay, shifted } from './replay';
export { SILK, planSilk, silkNow, simulatedSilkC } from './silk';
export { simulatedMeter } from './simulated-meter';
export { simulatedPourC } from './simulated-pour';
export { station } from './station';
export { type Silk, type Slab, seed, slab, steelBowl } from './sums';
export { planRemelt, planTemper } from './temper';
export {
  CHOCOLATES,
  CHOCOLATE_WORDS,
  type Chocolate,
  type OwnWindows,
  type Span,
  USUAL_WINDOWS,
  type Windows,
  fatPartsOf,
  holdOf,
  ownWindows,
  softLowersC,
  softShareOf,
  windows,
  windowsOf,
} from './windows';
