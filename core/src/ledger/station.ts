import type { HoldingKind, StepKind } from './types';

/** What the others have to know of a station. */
export interface StationFacts {
  /** Kinds of holdings that can be taken to its bench. */
  accepts: readonly HoldingKind[];
  /** The step that work here becomes when it is weighed out; absent: an entry is made at once. */
  ends?: StepKind;
}
