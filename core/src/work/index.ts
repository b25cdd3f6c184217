/* Contents: what others use of this room, file by file. Kept by scripts/contents.mjs. */

export { FINENESS, type Waits, waits } from './grinding';
export {
  BAR_FAULTS,
  BAR_FAULT_WORDS,
  type BarFault,
  FILLED_BY,
  type FilledBy,
  type LiveMould,
  type MouldFill,
  NEXT_WORDS,
  NO_MOULD,
  RELEASES,
  liveMould,
  nextOfFill,
  weights,
} from './moulding';
export { type LiveRoast, type SignMark, liveRoast, loadFacts, program, roasterFacts } from './roasting';
export { PROBES, type Probe, ROASTER_KINDS, type RoasterKind, SCHOOLS, type School } from './roasting-words';
export { type EntryHead, type StartWork, entryHead, startWork } from './start';
export {
  PLACES,
  type Place,
  type Route,
  STATIONS,
  STATION_NAMES,
  type Station,
  USUAL_CEILING_C,
  ceilingOf,
  isStation,
  isUnroasted,
  nextPlace,
} from './stations';
export {
  type LivePour,
  MARKS,
  MARK_WORDS,
  type MarkKind,
  type MeterFacts,
  NO_POUR,
  type PourAct,
  type PourMark,
  SCHOOL_WORDS,
  livePour,
  meterFacts,
  pourAct,
  pourMark,
} from './tempering';
