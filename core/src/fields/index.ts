/* Contents: what others use of this room, file by file. Kept by scripts/contents.mjs. */

export { type Asked, askedAt, askedOf, elementOf, shapeOf, variantsOf } from './asked';
export { id, massG, massOrNoneG, minutes, money, name, note, pieces, tempC, text, word } from './fields';
export { type Sent, labelOf } from './labels';
export { FIELDS, field } from './registry';
export { type Source, roomAir, source, sources } from './sources';
