/* Contents: what others use of this room, file by file. Kept by scripts/contents.mjs. */

export { type Doubt, type Nearby, doubt, doubts, usual } from './doubt';
export { nearbyOf } from './nearby';
