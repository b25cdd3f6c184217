import type { Posting, Step } from '@wunsch/core/ledger/types';
import type { Columns } from './columns';

/*
 * How steps stand in columns: which there are, and what is text instead.
 */

/** `textEnd` says where its text ends, `…End` where its rows in the other columns do. */
export const STEP = {
  seq: 'near',
  order: 'near',
  at: 'near',
  recordedAt: 'near',
  kind: 'few',
  station: 'few',
  person: 'few',
  batch: 'u32',
  machine: 'few',
  /** Row of the step that it took the place of, plus one; 0: none. */
  supersedes: 'narrow',
  flags: 'u8',
  minutes: 'narrow',
  energy: 'narrow',
  purchase: 'narrow',
  labour: 'narrow',
  power: 'narrow',
  revenue: 'narrow',
  about: 'narrow',
  textEnd: 'near',
  postingEnd: 'near',
  slotEnd: 'near',
  takingEnd: 'near',
} as const;
export const POSTING = { holding: 'u32', account: 'few', mass: 'narrow', pieces: 'narrow' } as const;
export const SLOT = { name: 'few', holding: 'u32' } as const;
export const TAKING = { holding: 'u32', milli: 'narrow' } as const;

export const WITHDRAWN = 1;
export const HAS_TAKINGS = 2;
export const HAS_REASON = 4;
export const HAS_OVERRIDES = 8;
export const QUIET = 16;

/** What of a step is text. */
export type Rest = Pick<Step, 'command' | 'reason' | 'overrides'>;

export interface StepTables {
  steps: Columns<typeof STEP>;
  postings: Columns<typeof POSTING>;
  slots: Columns<typeof SLOT>;
  takings: Columns<typeof TAKING>;
}

/** To or from where grams go that no holding has. */
export type Account = Pick<Posting, 'loss' | 'outside' | 'reason'>;
