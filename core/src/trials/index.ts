/* Contents: what others use of this room, file by file. Kept by scripts/contents.mjs. */

export { fewestArms, fullDesign, inChanceOrder, ladderDesign, smallDesign } from './design';
export { type TastedMade, type TrialVerdict, type TrialWords, judgeArms, nearestArm } from './judge';
export {
  DESIGNS,
  DESIGN_WORDS,
  FACTORS,
  FACTOR_KEYS,
  type Factor,
  type Level,
  type TrialPlan,
  isKind,
  trialPlan,
  trialRecord,
} from './records';
