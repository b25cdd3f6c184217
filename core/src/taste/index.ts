/* Contents: what others use of this room, file by file. Kept by scripts/contents.mjs. */

export { taste } from './commands';
export { type HistoryVerdict, judgeHistory } from './history';
export { type FactEffect, type MattersVerdict, judgeMatters } from './matters';
export { type PanelScore, type TasterStanding } from './palates';
export { type PanelVerdict, judgePanel } from './panel';
export {
  type BlindSession,
  COLOUR_STEPS,
  MOST_AT_ONCE,
  MOST_SMELLS,
  type OutsideBar,
  PHASES,
  type Phase,
  SCALES,
  SCALE_ENDS,
  type Scale,
  type TasteSheet,
  type TasteSubject,
  blindSession,
  outsideBar,
  sheet,
  tasteRecord,
  tasteWord,
} from './records';
export { SAME_TESTS, type SameResult, type SameTest, isItTheSame, power, triesFor } from './same';
export { type SameRound, type Serving, blindCodes, fairTasters, readRounds, sameRounds, servings } from './serving';
export { station } from './station';
export { planTaste } from './taste';
export { type ComesUp, type Impression, Vocabulary, type VocabularyWord, type WordAct, comesUp } from './vocabulary';
