import type { Cause, Sight } from '../temper/bloom';
import type { LearnedSetting, PastPour } from '../temper/learned';
import type { BenchFaults } from '../temper/faults';
import type { TemperReading, TemperVerdict } from '../temper/judge';
import type { Chocolate, Windows } from '../temper/windows';
import type { LivePour, MeterFacts, PourMark } from '../work/tempering';
import type { FileView } from './beans';

/** A pour under way. */
export interface PourView {
  workId: string;
  /** Null: nobody reads its temperature yet. */
  probe: 'simulated' | 'sent' | 'hand' | null;
  /** How fast a simulated one runs. */
  speed: number;
  /** A probe that sends has said nothing for a while. */
  silent: boolean;
  /** What goes wrong with its readings behind the scenes, in words; null while all is well. */
  trouble: string | null;
  windows: Windows;
  because: string;
  /** Silk or seed is among what went in. */
  seeded: boolean;
  readings: TemperReading[];
  /** Seconds into the pour, now. */
  nowS: number;
  /** Its plan, and what was marked. */
  pour: LivePour;
  massG: number;
  fatShare: number;
  softShare: number;
}

/** Cocoa butter that is held warm until it is silk. */
export interface SilkView {
  workId: string;
  probe: PourView['probe'];
  speed: number;
  silent: boolean;
  /** What goes wrong with its readings behind the scenes, in words; null while all is well. */
  trouble: string | null;
  readings: TemperReading[];
}

/** Windows of what has a code. */
export interface WindowsView {
  code: string;
  subject: string;
  subjectName: string;
  chocolate: Chocolate;
  windows: Windows;
  because: string;
  own: boolean;
  usual: Windows;
  fatShare: number;
  softShare: number;
}

/** How often which fault came first, at which bench. */
export interface FaultsView {
  /** Of pours since then, UTC ms. */
  since: number | null;
  benches: BenchFaults[];
}

/** A pour that is done, judged. */
export interface PouredView {
  stepId: string;
  code: string;
  at: number;
  method: string;
  test: string;
  meter: MeterFacts | null;
  marks: PourMark[];
  readings: TemperReading[];
  seeded: boolean;
  /** Of it, what was seed or silk by weight; null: not weighed apart. */
  seedShare: number | null;
  fatShare: number;
  softShare: number;
  /** Read by hand only: the three figures of its entry. */
  byHand: boolean;
  windows: Windows;
  verdict: TemperVerdict;
}

/** How the bars of a batch look, and why. */
export interface BatchLooks {
  pours: PouredView[];
  sights: (Sight & { stepId: string; at: number; person: string; note: string })[];
  photos: FileView[];
  /** Bars and seconds of it that are here: what can be melted again. */
  here: { holdingId: string; code: string; kind: 'bars' | 'seconds' | 'packed'; pieces: number; massMg: number }[];
  cause: Cause;
}

/** What earlier pours of the same bar teach, machine by machine or method by method, the best known first. */
export interface LearnedView {
  name: string;
  settings: (LearnedSetting & { on: string })[];
  pours: (PastPour & { on: string })[];
}
