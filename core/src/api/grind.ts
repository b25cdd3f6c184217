import type { RestedScore, RestVerdict } from '../rest/benefit';
import type { GrindStudy } from '../grind/tonight';
import type { CarriedOver } from '../composition/carry-over';
import type { RealFill } from '../grind/fill';
import type { NightChoice } from '../grind/moved';
import type { BowlTemp } from '../grind/warming';
import type { PlannedAct } from '../ledger/types';

/** Finished grinds with what was known at each of their readings. */
export interface GrindHits {
  machine: string;
  grinds: {
    code: string;
    name: string;
    endedAt: number;
    /** Running hours, and the moment, of the first reading at target. */
    outcomeH: number;
    outcomeAt: number;
    notBeforeH: number;
    studies: GrindStudy[];
  }[];
}

/** A planned act with what is known of it now. */
export interface ActView extends PlannedAct {
  /** When it is due, UTC ms; null: nobody can say yet. */
  dueAt: number | null;
  /** What it waits for, in words; null: for the clock. */
  waitsWords: string | null;
  /** It falls due while nobody is there: when it could be done instead. */
  night: NightChoice | null;
}

/** What a grind is doing, beside what was read of it. */
export interface GrindRunView {
  code: string;
  state: GrindStudy['state'];
  /** Hours that it was ground, and moved at all. */
  groundH: number;
  movedH: number;
  acts: ActView[];
  /** What the probe in the mass logged in the last day, and how long it has been silent, minutes; null: it is not. */
  probe: {
    kind: 'simulated' | 'sent';
    rows: BowlTemp[];
    silentMin: number | null;
    /** What goes wrong with its readings behind the scenes, in words. */
    trouble: string | null;
  } | null;
  /** How often it went through, for machines that are counted by passes. */
  passes: number;
}

/** A machine at the grind station, as its own bowls know it. */
export interface GrinderView {
  id: string;
  name: string;
  fill: RealFill;
  /** Hours run in all, and since its stones were dressed and it was serviced. */
  hours: { run: number; sinceDressed: number; sinceServiced: number };
  /** What of its upkeep is due, in sentences. */
  due: string[];
  services: { at: number; what: string; note: string; person: string }[];
  holdUpsG: number[];
  carries: CarriedOver[];
  cleaned: { at: number; how: string; person: string } | null;
  grinds: number;
}

/** Scores by days of rest, bar by bar. */
export interface RestBenefit {
  bars: { name: string; rows: (RestedScore & { code: string })[]; verdict: RestVerdict }[];
}

/** Blocks at rest, batch by batch. */
export interface RestShelf {
  batches: {
    batchId: string;
    code: string;
    /** Meant to rest until then, UTC ms; null: as long as usual. */
    restUntil: number | null;
    /** How they tasted on the way, oldest first. */
    tastings: {
      stepId: string;
      at: number;
      restedDays: number;
      score: number;
      air: { tempC: number; humidityPct: number | null } | null;
      note: string;
      person: string;
    }[];
  }[];
}
