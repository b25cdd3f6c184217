import type { Cause, Sight } from '../temper/bloom';
import type { LearnedSetting } from '../temper/learned';
import type { TemperReading, TemperVerdict } from '../temper/judge';
import type { Windows } from '../temper/windows';

/** A pour under way. */
export interface PourView {
  workId: string;
  /** Null: nobody reads its temperature yet. */
  probe: 'simulated' | 'sent' | 'hand' | null;
  /** How fast a simulated one runs. */
  speed: number;
  /** A probe that sends has said nothing for a while. */
  silent: boolean;
  windows: Windows;
  because: string;
  /** Silk or seed is among what went in. */
  seeded: boolean;
  readings: TemperReading[];
}

/** A pour that is done, judged. */
export interface PouredView {
  stepId: string;
  code: string;
  at: number;
  method: string;
  test: string;
  readings: TemperReading[];
  /** Read by hand only: the three figures of its entry. */
  byHand: boolean;
  windows: Windows;
  verdict: TemperVerdict;
}

/** How the bars of a batch look, and why. */
export interface BatchLooks {
  pours: PouredView[];
  sights: (Sight & { stepId: string; at: number; person: string; note: string })[];
  cause: Cause;
}

/** What earlier pours of the same bar teach, machine by machine or method by method, the best known first. */
export interface LearnedView {
  name: string;
  settings: (LearnedSetting & { on: string })[];
}
