/* Contents: what others use of this room, file by file. Kept by scripts/contents.mjs. */

export { sort } from './commands';
export {
  type RestOfLot,
  type SortAdvice,
  type SortSession,
  type SortSummary,
  adviseSort,
  costOfOnePercent,
  projectRest,
  rejectedG,
  summarise,
} from './judge';
export { checkPiles } from './piles';
export { planSort } from './sort';
export { station } from './station';
