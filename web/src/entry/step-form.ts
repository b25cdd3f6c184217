import type { ReactNode } from 'react';
import type { EnteredStep, HoldingView } from '@wunsch/core/api/types';
import type { Nearby } from '@wunsch/core/entry/doubt';
import type { Command } from '@wunsch/core/commands';
import type { Station } from '@wunsch/core/work/stations';
import type { Fields, FieldSpec, FieldState } from './entry';
import type { Answer } from './GatePanel';
import type { Part } from './MassBar';
import type { Source } from './takes';

export interface Entry {
  fields: Fields;
  /** Holdings chosen to take from. */
  picked: string[];
  machineId: string | null;
  /** What was chosen beside the fields: kept with them, so that a reload brings back the whole entry or nothing. */
  choices?: Record<string, string>;
}

/** Choices beside the fields, for what stands above and below them. */
export interface Choosing {
  /** Types into a field, as an instrument does. */
  write: (name: string, text: string) => void;
  choices: Record<string, string>;
  choose: (name: string, value: string) => void;
  /** What is typed so far. */
  fields: Fields;
}

/** What stands below the running sum gets to see, and may change. */
export interface Below {
  fields: Fields;
  setField: (name: string, state: FieldState) => void;
  inMg: number;
  /** Codes of what was picked; empty where it was fixed before. */
  codes: string[];
}

export type Slot = ReactNode | ((choosing: Choosing) => ReactNode);

/** An entry as its bench wants it. */
export interface StepFormProps {
  kind: Command['kind'];
  /** Which draft this is: one per station and subject. */
  draftId: string;
  /** What can be taken, to be picked; left out when the form takes nothing (or a fixed thing). */
  candidates?: readonly HoldingView[];
  /** What a work under way has taken already. */
  fixed?: readonly { holdingId: string; massMg: number; pieces: number }[] | undefined;
  initial?: Fields;
  initialPicked?: readonly string[];
  suggestions?: Record<string, string>;
  /** What is usual for what was picked: filled in while nothing is typed. */
  propose?: (chosen: readonly HoldingView[], fields: Fields) => Record<string, string>;
  /** Grams to take of what was picked (codes) where nothing is typed; all there is when left out. */
  takeG?: (codes: readonly string[]) => number | undefined;
  station: Station | null;
  /** Fields to ask; the usual ones of this kind when left out. */
  specs?: readonly FieldSpec[];
  /** More to ask about what was picked. */
  ask?: (chosen: readonly HoldingView[]) => readonly FieldSpec[];
  /** More that goes in beside what was fixed before: inclusions, fillings. */
  joins?: ((entry: Entry) => { holdingId: string; massG: number }[]) | undefined;
  /** Completes what the fields say to a whole command. */
  finish: (values: Record<string, unknown>, sources: Source[], entry: Entry) => Record<string, unknown>;
  /** Where it is sent, if not among new steps. */
  path?: `/api/ledger/works/${string}/finish` | `/api/ledger/steps/${string}/correct`;
  submit: string;
  /** Named parts of what went in, for the running sum. */
  parts?: (values: Record<string, unknown>) => Part[];
  restName?: string;
  restTone?: Part['tone'];
  minutes?: number;
  kwh?: number;
  machineId?: string | null;
  onSaved?: (saved: EnteredStep) => void;
  head?: Slot;
  /** More to send beside the command, such as the reason of a correction. */
  extra?: (entry: Entry) => Record<string, unknown>;
  pickTitle?: string;
  /** How many of the candidates are shown at once; the rest on asking. */
  shownFirst?: number;
  before?: Slot;
  /** What stands before is tall: on a wide screen the fields stand beside it. */
  beside?: boolean;
  /** Whose work it is, when not that of the person at the bench. */
  as?: string;
  /** Below the running sum, from what is typed so far. */
  below?: ((state: Below) => ReactNode) | undefined;
  /** Below the save, where it should be at hand before everything is read. */
  after?: (state: Below) => ReactNode;
  /** What of the entry cannot be read, in words: then nothing is sent. */
  problem?: (entry: Entry) => string | null;
  /** What can be done about a refusal, from what was sent. */
  refused?: (error: unknown, body: Record<string, unknown>) => ReactNode;
  /** Figures of the maker's past, by field: what is ten times away from them is asked about. */
  past?: Nearby | undefined;
  /** Grams that usually go in. */
  usualInG?: number | null | undefined;
  /** Sends it another way than as a step; null means there is no step to show yet. */
  send?: (entry: Outgoing) => Promise<EnteredStep | null>;
}

export interface Outgoing {
  sources: Source[];
  personId: string;
  machineId: string | null;
  at: string | undefined;
  key: string;
  overrides: Answer[];
  /** What `finish` made of the entry. */
  values: Record<string, unknown>;
}
