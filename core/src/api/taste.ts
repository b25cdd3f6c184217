import type { FileView } from './beans';
import type { HistoryVerdict } from '../taste/history';
import type { MattersVerdict } from '../taste/matters';
import type { BlindSession, OutsideBar, TasteSheet, TasteSubject } from '../taste/records';
import type { PanelVerdict } from '../taste/panel';
import type { TasterStanding } from '../taste/palates';
import type { SameResult, SameTest } from '../taste/same';
import type { ComesUp, VocabularyWord } from '../taste/vocabulary';

/** A test of whether two are the same, read. */
export interface SameTestView {
  id: string;
  at: number;
  person: string;
  test: SameTest;
  a: string;
  b: string;
  tasters: number;
  tries: number;
  right: number;
  note: string;
  result: SameResult;
}

/** Something that can be tasted. */
export interface SubjectView {
  subject: TasteSubject;
  /** Code of the book; null: of another maker. */
  code: string | null;
  name: string;
  /** What it is: packed bars, a block, nibs, a bar of another maker. */
  what: string;
  batchCode: string | null;
  allergens: string[];
  /** What has to be known before anybody eats it; null: nothing. */
  caution: string | null;
  /** Bars can be eaten of it in the book. */
  pieces: number;
  /** What it got on other days, the newest first; shown once it is scored anew. */
  earlier: { at: number; palate: string; overall: number }[];
}

export interface SheetView extends TasteSheet {
  id: string;
  at: number;
  /** Whose palate: of the workshop, or a guest. */
  palate: string;
  subjectName: string;
  subjectCode: string | null;
}

/** How an impression moved when somebody went back to it. */
export interface Change {
  subjectName: string;
  scale: string;
  from: number;
  to: number;
}

export interface TastingView {
  tastingId: string;
  at: number;
  palate: string;
  sheets: SheetView[];
  changes: Change[];
}

export interface VocabularyView {
  words: VocabularyWord[];
  /** What words can be asked of: beans, roasts, ages. */
  groups: { group: string; kind: 'bean' | 'roast' | 'age'; impressions: number }[];
}
export interface ComesUpView {
  group: string;
  words: ComesUp[];
}

export interface OutsideView {
  id: string;
  at: number;
  person: string;
  bar: OutsideBar;
  photos: FileView[];
  sheets: number;
  score: number | null;
}

/** A blind session, for its host. */
export interface SessionView {
  id: string;
  at: number;
  host: string;
  session: BlindSession;
  state: 'open' | 'closed' | 'opened';
  /** Codes of the bars, in their order. */
  codes: string[];
  /** For each seat: who sits there, bars in order, how many are done. */
  seats: { seat: number; taster: string; order: number[]; done: number; sheets: number }[];
  allergens: string[];
  cautions: string[];
  /** Once it was opened. */
  result: {
    verdict: PanelVerdict;
    words: { code: string; words: string[] }[];
    scales: { code: string; means: Partial<Record<string, number>> }[];
  } | null;
}

/** A blind session, for who tastes: codes only. */
export interface GuestView {
  id: string;
  workshop: string;
  name: string;
  question: string;
  state: 'open' | 'closed' | 'opened';
  bars: number;
  scales: boolean;
  allergens: string[];
  words: string[];
}
export interface SeatView {
  seat: number;
  taster: string;
  /** Codes in the order of serving. */
  codes: string[];
  /** Once it was opened: what each was, and how this palate did. */
  names: string[] | null;
  palate: TasterStanding | null;
}

/** How someone of the workshop tastes, over all sessions that were opened. */
export interface PalateView {
  palate: TasterStanding | null;
  sessions: number;
}

export interface HistoryView {
  products: {
    name: string;
    batches: {
      code: string;
      at: number;
      score: number;
      tasters: number;
      ageDays: number | null;
    }[];
    /** Each time it was tasted: how old its bars were, and what was scored. */
    tastings: { code: string; at: number; ageDays: number; values: Partial<Record<string, number>> }[];
    verdict: HistoryVerdict | null;
  }[];
  factNames: Record<string, string>;
}

export interface MattersView {
  beans: { family: string; verdict: MattersVerdict }[];
  factNames: Record<string, string>;
  units: Record<string, string>;
}

export interface SampleChoice {
  samples: {
    code: string;
    name: string;
    score: number | null;
    tasters: number;
    landedPerKgMilli: number | null;
    /** Beans in a bar at the usual yields. */
    costPerBarMilli: number | null;
    standing: 'sample' | 'present';
  }[];
  sentence: string;
}
