/* Contents: what others use of this room, file by file. Kept by scripts/contents.mjs. */

export { type Upgrades, upgraded, versionOf } from './upgrades';
