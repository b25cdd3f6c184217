/* Contents: what others use of this room, file by file. Kept by scripts/contents.mjs. */

export { type Asked, type Gate, type GateContext, begins, passGates } from './gate';
