import type { HoldingKind, StepKind } from '../ledger/types';
import type { UsualYield } from '../ledger/yields';
import type { StartWork } from '../work/start';
import type { Mark, StepMarks } from './mark';
import type { StepThings } from './things';
import type { Work } from './work';

/** A yield that is watched: good grams out over grams in of one kind of step. */
export interface StationYield extends UsualYield {
  step: StepKind;
  /** What comes of it, where that is worth a figure of its own on the way to the bar. */
  gives?: HoldingKind;
  /** What has a level of its own; left out: what comes from one country and region. */
  levelOf?: 'lot';
  /** What to do when it has left its level for the worse; and when grams are missing that nobody can explain. */
  whenWorse?: string;
  whenMissing?: string;
}

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
  /** Whose yield speaks here; absent: nothing is lost that would be watched. */
  yields?: StationYield;
  /** How its steps mark goods, by their kinds; and what its stops mark them with, by their ids, that somebody went past. */
  marks?: Partial<Record<StepKind, StepMarks>>;
  stopMarks?: Readonly<Record<string, { id: Mark['id']; label: string }>>;
  /** What goods have in common that got something of its steps, by their kinds. */
  things?: Partial<Record<StepKind, StepThings>>;
  /** What new work carries beside what all work does. @param has how fast its clock runs, and where its log will be kept */
  begins?: (entry: StartWork, has: { speed: number; curveId: string }) => Partial<Work>;
  /** The command that ends work, with what the work itself knows. @param has the moment, and the log if there is one */
  finishes?: (work: Work, command: object, has: { now: number; curveId: string | null }) => object;
}
