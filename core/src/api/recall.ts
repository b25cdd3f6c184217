import type { HoldingKind, LossCause } from '../ledger/types';
import type { ComplaintKind } from '../trace/records';
import type { Place } from '../work/stations';
import type { FileView } from './beans';

/** A buyer's complaint about goods with a code. */
export interface ComplaintView {
  id: string;
  at: number;
  person: string;
  code: string;
  name: string;
  batchCode: string | null;
  what: ComplaintKind;
  from: string;
  pieces: number | null;
  note: string;
  photos: FileView[];
  /** What was answered; null while it is open. */
  answer: string | null;
}

/** One thing that goods share, in words, with where it leads. */
export interface SharedThingView {
  kind: string;
  id: string;
  words: string;
  link: string | null;
}

export interface SharedGroupView {
  things: SharedThingView[];
  having: number;
  of: number;
  pieces: number;
  share: number;
  /** How likely it is the cause, if one of these is, 0 to 1. */
  chance: number;
  /** What it means, in a sentence. */
  sentence: string;
}

/** What some goods have in common, the likeliest first. */
export interface SharedView {
  codes: string[];
  groups: SharedGroupView[];
}

/** Everything that shares one thing. */
export interface SharingView {
  words: string;
  goods: { code: string; name: string; kind: HoldingKind; pieces: number; here: number; sold: number }[];
}

export interface RecallRow {
  id: string;
  at: number;
  person: string;
  why: string;
  mock: boolean;
  codes: string[];
  endedAt: number | null;
}

export interface RecallView extends RecallRow {
  endWord: string;
  /** What is still in the house. */
  here: {
    code: string;
    name: string;
    kind: HoldingKind;
    place: Place;
    pieces: number;
    massMg: number;
    share: number;
    blocked: boolean;
  }[];
  sold: { code: string; to: string; at: number; pieces: number; massMg: number }[];
  lost: { cause: LossCause; massMg: number }[];
  hereMg: number;
  soldMg: number;
  lostMg: number;
  foundShare: number;
  /** Codes of finished goods that are concerned. */
  affected: string[];
  /** Buyers, each with what is theirs. */
  buyers: { to: string; pieces: number; massMg: number; codes: string[] }[];
}
