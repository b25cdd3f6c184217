import type { HoldingKind, StepKind } from '../ledger/types';
import type { StartWork } from '../work/start';
import type { Work } from './work';

/** What the others have to know of a station. */
export interface StationFacts {
  /** Kinds of holdings that can be taken to its bench. */
  accepts: readonly HoldingKind[];
  /** Of goods, what waits here wherever it stands. */
  waits?: readonly HoldingKind[];
  /** What stands in its machines: it can be taken to no bench until it is poured out. */
  machines?: readonly HoldingKind[];
  /** The step that work here becomes when it is weighed out; absent: an entry is made at once. */
  ends?: StepKind;
  /** What new work carries beside what all work does. @param has how fast its clock runs, and where its log will be kept */
  begins?: (entry: StartWork, has: { speed: number; curveId: string }) => Partial<Work>;
  /** The command that ends work, with what the work itself knows. @param has the moment, and the log if there is one */
  finishes?: (work: Work, command: object, has: { now: number; curveId: string | null }) => object;
}
