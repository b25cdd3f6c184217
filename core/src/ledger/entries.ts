import { DomainError } from '../errors/domain-error';
import { formatMass } from '../units/mass';
import type { Posting, Step, StepKind } from './types';

/** A place in the order of the work: by time, and within the same instant by the order of entry. */
export interface Position {
  at: number;
  order: number;
}

/** One movement of one holding, in the order of the work. */
export interface Entry extends Position {
  stepId: string;
  kind: StepKind;
  massMg: number;
  pieces: number;
}

export interface Balance {
  massMg: number;
  pieces: number;
}

export const before = (a: Position, b: Position): number => a.at - b.at || a.order - b.order;
export const BEFORE_ALL: Position = { at: -Infinity, order: -Infinity };
export const AFTER_ALL: Position = { at: Infinity, order: Infinity };

/** Whether one thing was done before another. */
export const comesBefore = (a: Position, b: Position): boolean => before(a, b) < 0;

/** Index of the first element that comes after `key`; the array is sorted by (at, order). */
export function upperBound(rows: readonly Position[], key: Position): number {
  let low = 0;
  let high = rows.length;
  while (low < high) {
    const middle = (low + high) >>> 1;
    const row = rows[middle];
    if (row !== undefined && before(row, key) <= 0) low = middle + 1;
    else high = middle;
  }
  return low;
}

export function checkPostings(postings: readonly Posting[]): void {
  let sum = 0;
  for (const posting of postings) {
    if (!Number.isSafeInteger(posting.massMg) || !Number.isSafeInteger(posting.pieces)) {
      throw new DomainError('ledger/not-whole', 'Masses are whole milligrams and counts are whole pieces.');
    }
    sum += posting.massMg;
  }
  if (sum !== 0) {
    throw new DomainError('ledger/unbalanced', `The grams of this step do not add up: ${formatMass(sum)} over.`);
  }
}

/** What a step does to each holding, summed: a step may name one holding twice. */
export function movements(postings: readonly Posting[]): Map<string, Balance> {
  const sums = new Map<string, Balance>();
  for (const posting of postings) {
    if (posting.holdingId === null) continue;
    const sum = sums.get(posting.holdingId) ?? { massMg: 0, pieces: 0 };
    sum.massMg += posting.massMg;
    sum.pieces += posting.pieces;
    sums.set(posting.holdingId, sum);
  }
  return sums;
}

/** The holding that a step is about without moving anything in it, as a count that agreed with the book. */
export function silentAbout(step: Step): string | null {
  if (step.postings.length > 0) return null;
  const about = (step.command as { holdingId?: unknown } | null)?.holdingId;
  return typeof about === 'string' ? about : null;
}

/**
 * Steps that enter a book all at once: each is read when somebody asks for it, what they moved was added up before. They go
 * by their rows, which count them in the order of recording.
 */
export interface Past {
  /** How many there are. */
  readonly size: number;
  /** The step of a row. */
  step(row: number): Step;
  /** The row of a step; undefined where it is none of these. */
  rowOf(stepId: string): number | undefined;
  /** Rows of those in force, in the order of the work. */
  readonly inForce: Uint32Array;
  /** Those that another took the place of, and which. */
  successors(): Iterable<readonly [stepId: string, by: string]>;
  /** Those in force that are about a holding and move nothing in it. */
  silent(): Iterable<readonly [holdingId: string, stepId: string]>;
  /** What is in each holding that any of them named and that is not empty. */
  balances(): Iterable<readonly [holdingId: string, balance: Balance]>;
  /** What moved in a holding, in the order of the work; a list of its own for whoever asks. */
  entriesOf(holdingId: string): Entry[];
  /** What moved first in a holding; undefined where nothing did. */
  firstEntry(holdingId: string): Entry | undefined;
}
