import type { RestedScore, RestVerdict } from '../rest/benefit';
import type { GrindStudy } from '../grind/tonight';

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

/** Scores by days of rest, bar by bar. */
export interface RestBenefit {
  bars: { name: string; rows: (RestedScore & { code: string })[]; verdict: RestVerdict }[];
}
