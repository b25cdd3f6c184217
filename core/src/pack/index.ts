/* Contents: what others use of this room, file by file. Kept by scripts/contents.mjs. */

export { keepsUntil, usualKeeping } from './best-before';
export { pack } from './commands';
export { countByWeight } from './count';
export { packGates } from './gates';
export { CHECK_LIST, type Label, type LabelWish, PHRASES, labelOf } from './label';
export { planPack } from './pack';
export { type LabelWords, type Market, labelWords, packRecord } from './records';
export { station } from './station';
