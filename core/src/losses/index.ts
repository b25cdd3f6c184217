/* Contents: what others use of this room, file by file. Kept by scripts/contents.mjs. */

export { lossHeadline, ofHeavy } from './headline';
export { type LossRow, type WhatIf, lossWay, onePointBetter } from './losses';
