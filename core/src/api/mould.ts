import type { MouldFacts } from '../mould/records';
import type { LiveMould } from '../work/moulding';

export interface MouldView extends MouldFacts {
  id: string;
  /** When it was last cleaned and polished; null: nobody said. */
  cleanedAt: number | null;
  cleanedHow: string;
}

/** Moulds, and the place where they set. */
export interface MouldsView {
  moulds: MouldView[];
  cabinet: { moulds: number; minutes: number } | null;
}

/** Moulding under way, with what it is filled into. */
export interface MouldingView {
  workId: string;
  live: LiveMould;
  massG: number;
  perKgMilli: number;
  /** Bars of this kind that were made in the last year. */
  piecesAYear: number;
  moulds: MouldsView;
}
