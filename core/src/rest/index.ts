/* Contents: what others use of this room, file by file. Kept by scripts/contents.mjs. */

export { type RestVerdict, type RestedScore, judgeRest } from './benefit';
export { rest } from './commands';
export { restGates } from './gates';
export { planRest } from './rest';
export { station } from './station';
