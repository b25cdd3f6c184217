/* Contents: what others use of this room, file by file. Kept by scripts/contents.mjs. */

export { type Judged, type JudgementWord, judgementRecord, wordsInForce } from './records';
