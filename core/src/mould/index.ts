/* Contents: what others use of this room, file by file. Kept by scripts/contents.mjs. */

export { mould } from './commands';
export { mouldGates } from './gates';
export { barsFrom, planMould } from './mould';
export { type MouldPlan, planMoulds, setWarnings } from './plan';
export { type MouldFacts, cabinet, mouldFacts, mouldRecord } from './records';
export { station } from './station';
export {
  WEIGHT_SYSTEMS,
  WEIGHT_WORDS,
  type WeightStudy,
  type WeightSystem,
  giveawayMilli,
  studyWeights,
} from './weights';
