import type { UsualSign } from '../roast/usual-signs';
import type { CurveMapping, BadRow } from '../roast/curve-file';
import type { Span } from '../run/gaps';
import type { LiveRoast, LoadFacts, Program, RoasterFacts, Trial } from '../roast/records';
import type { RoastTrialVerdict } from '../roast/trial';
import type { Individuals } from '../stats/individuals';
import type { WorkView } from './types';

/** Readings as they travel: null where a probe was silent. */
export interface CurveData {
  seconds: number[];
  beanC: (number | null)[];
  airC: (number | null)[];
}

export interface ProgramView {
  id: string;
  version: number;
  versions: number;
  program: Program;
  shelved: boolean;
  at: number;
  person: string;
  roaster: string | null;
  /** Loads roasted by any of its versions. */
  loads: number;
  lastAt: number | null;
}

export interface ProgramVersion {
  version: number;
  at: number;
  person: string;
  program: Program;
}

export interface RoasterView {
  id: string;
  name: string;
  minG: number | null;
  maxG: number | null;
  facts: RoasterFacts;
  /** Loads with a curve that its fit can learn from. */
  curves: number;
  loads: number;
  /** Nothing is begun on it any more. */
  retired: boolean;
}

/** A logged load as the fit takes it; see `LoggedLoad` in roast/fit. */
export interface LoggedLoadData {
  code: string;
  at: number;
  massG: number;
  layerMm: number | null;
  moisture: number;
  beanStartC: number | null;
  weightLeft: number | null;
  settings: LoadFacts['settings'];
  preheatC: number;
  curve: CurveData;
}

export interface LoadRow {
  /** The tub it became. */
  code: string;
  loadId: string;
  stepId: string;
  at: number;
  name: string;
  family: string;
  roaster: string | null;
  program: string | null;
  programId: string | null;
  inG: number;
  weightLeft: number;
  minutes: number | null;
  endC: number | null;
  curve: boolean;
  /** Mean of the panel's scores, of the load itself or of bars made of it. */
  score: number | null;
}

export interface LoadView extends LoadRow {
  person: string;
  machineId: string | null;
  kind: 'bean' | 'nib';
  how: LoadFacts | null;
  curveData: CurveData | null;
  /** Where the curve came from. */
  source: string | null;
  preheatC: number | null;
  startC: number | null;
  /** Weight left by earlier loads of the same beans, roaster and program. */
  past: Individuals | null;
  kill: RoasterFacts['kill'];
  /** Water in it as it went in, share of the wet weight: measured, of its lot, or usual. */
  moisture: number;
  /** Codes of the loads that went into the same winnowing or bowl, or stand beside it still; this one among them. */
  fill: string[];
  fillOf: string | null;
  winnow: { stepId: string; code: string; nibYield: number; shell: number | null } | null;
  scores: { score: number; note: string; person: string; at: number; from: string }[];
  words: { word: string; person: string; at: number }[];
  coolAt: number | null;
}

export interface LiveView {
  work: WorkView;
  roast: LiveRoast;
  curve: CurveData;
  roaster: RoasterView | null;
  /** Water in the beans as they went in, share of the wet weight: measured, of their lot, or usual. */
  moisture: number;
  /** Signs that were noted here lately in the makers' own words. */
  ownSigns: string[];
  /** When signs usually come on loads like this one, in their order. */
  usualSigns: UsualSign[];
  /** Server time of this answer, UTC ms. */
  now: number;
}

/** What the stream of a live roast sends: new readings, and when its facts changed. */
export interface LiveTick {
  now: number;
  /** Goes up when a sign, a stirring or a setting was logged anywhere. */
  version: number;
  from: number;
  curve: CurveData;
  /** The probe is not heard. */
  silent: boolean;
  /** What fails behind the scenes, in words; null while all is well. */
  trouble: string | null;
  over: boolean;
}

export interface CoolingView {
  code: string;
  name: string;
  massMg: number;
  coolAt: number;
}

export interface CurvePreviewView {
  columns: { name: string; samples: string[] }[];
  mapping: CurveMapping;
  unitWhy: string;
  rows: number;
  bad: BadRow[];
  badCount: number;
  gaps: Span[];
  startsAt: string | null;
  /** Thinned. */
  curve: CurveData;
  minutes: number;
}

export interface TrialView {
  id: string;
  at: number;
  person: string;
  trial: Trial;
  lotCode: string;
  lotName: string;
  loads: {
    cell: number;
    code: string;
    loadId: string;
    at: number;
    /** Bean temperature at the end, and minutes in the roaster: what came of the plan. */
    endC: number | null;
    minutes: number | null;
    scores: number[];
  }[];
  verdict: RoastTrialVerdict;
}
