/* Contents: what others use of this room, file by file. Kept by scripts/contents.mjs. */

export { winnow } from './commands';
export { DIALS, DIAL_NAMES, type Dial, type Dials, type Response, fitResponse } from './response';
export { type PickedSample, SHELL_CEILING, type SecondPass, airAdvice, sampleShare, secondPass } from './samples';
export { type Sieve, judgeSieve } from './sieve';
export { station } from './station';
export { planWinnow } from './winnow';
