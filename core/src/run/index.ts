/* Contents: what others use of this room, file by file. Kept by scripts/contents.mjs. */

export { type Act, type Cause, type Due, type RunState, type Way, duesOf } from './acts';
export {
  type Attended,
  type LocalTime,
  attendedHours,
  hoursAt,
  isAttended,
  lastAttended,
  momentOf,
  nextAttended,
} from './attended';
export { type RunClock, elapsedS, momentOfS } from './clock';
export { type Span, gapsOf, longestStep, usualEvery } from './gaps';
export { type LogRow, type Thinning, addReading, isSilent, takeReading, thinned } from './log';
export {
  type Channel,
  MOST_READINGS,
  type ReadingRow,
  type Readings,
  channelOf,
  crossedAt,
  inCommon,
  readingsFrom,
  readingsOf,
  rowsOf,
  sameChannels,
  withPart,
} from './readings';
export { type Stretch, isRunning, momentReached, runningHours } from './stretches';
