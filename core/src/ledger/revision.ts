import { DomainError } from '../errors/domain-error';
import { Heap } from '../stats/heap';
import type { Book } from './book';
import { comesBefore, movements, type Balance, type Entry, type Position } from './entries';
import type { Source } from '../fields/sources';
import type { StepPlan } from './planner';
import type { Posting, Step, StepKind } from './types';

/**
 * The book as it would be with some steps in place of what they supersede. It reads like the book and
 * changes nothing in it.
 */
export class Revision {
  private readonly gone = new Set<string>();
  private readonly added = new Map<string, Entry[]>();

  constructor(private readonly book: Book) {}

  /** Takes a step out. */
  remove(stepId: string): void {
    this.gone.add(stepId);
  }

  /** Puts a step in the place of the one that it supersedes, if any. */
  put(step: Step): void {
    if (step.supersedes !== null) this.remove(step.supersedes);
    for (const [holdingId, change] of movements(step.postings)) {
      const rows = this.added.get(holdingId) ?? [];
      rows.push({ at: step.at, order: step.order, stepId: step.id, kind: step.kind, ...change });
      this.added.set(holdingId, rows);
    }
  }

  /** What moved in a holding before a moment, in the order of the work; one step can be left out. */
  before(holdingId: string, moment: Position, without?: string): Entry[] {
    const rows = [...this.book.entriesOf(holdingId), ...(this.added.get(holdingId) ?? [])];
    return rows
      .filter((row) => !this.gone.has(row.stepId) && row.stepId !== without && comesBefore(row, moment))
      .sort((a, b) => a.at - b.at || a.order - b.order);
  }

  has(stepId: string): boolean {
    return !this.gone.has(stepId);
  }
}

/** What some entries leave in a holding. */
export function sumOf(entries: readonly Entry[]): Balance {
  const sum = { massMg: 0, pieces: 0 };
  for (const { massMg, pieces } of entries) {
    sum.massMg += massMg;
    sum.pieces += pieces;
  }
  return sum;
}

/** All that the ledger knows of what was entered; rooms know the rest. */
export interface Entered {
  kind: StepKind;
  sources?: readonly Source[];
}

/** What planning needs: the command, the step whose place it takes, and the book it is planned on. */
export type Plan<C extends Entered> = (command: C, old: Step, on: Revision) => StepPlan;

/** A later step that a change reaches. */
export interface Consequence<C extends Entered = Entered> {
  old: Step;
  command: C;
  /** Null where it cannot stand as it was entered; `problem` says why. */
  plan: StepPlan | null;
  problem: DomainError | null;
}

const sorted = (postings: readonly Posting[]): string =>
  JSON.stringify(
    postings
      .filter((p) => p.massMg !== 0 || p.pieces !== 0)
      .map((p) => [p.holdingId, p.loss, p.outside, p.reason, p.massMg, p.pieces])
      .sort((a, b) => JSON.stringify(a).localeCompare(JSON.stringify(b))),
  );
const alike = (a: readonly Posting[], b: readonly Posting[]): boolean => sorted(a) === sorted(b);

/**
 * Follows a change through the later steps it reaches. What was entered at a bench stays a fact: a bowl was
 * emptied, five bars were taken, so much was counted. What the book made of it is worked out again on the
 * changed book: the grams in the bowl, the weight of the five bars, the difference to the count.
 *
 * @param changed new steps and corrections, in the order of the work
 * @param plan plans a command in the place of a step; @param version makes the new version of a step from its plan
 * @param edits commands that are corrected along with it, by step id
 * @param propose whether grams that are not there any more are taken as they are there now (see `takeWhatIsThere`)
 * @returns the later steps that come out otherwise, or cannot stand, in the order of the work
 */
export function consequences<C extends Entered>(
  book: Book,
  changed: readonly Step[],
  plan: Plan<C>,
  version: (old: Step, command: C, plan: StepPlan) => Step,
  edits: ReadonlyMap<string, C> = new Map(),
  propose = false,
): Consequence<C>[] {
  const now = new Revision(book);
  const untouched = new Revision(book);
  const waiting = new Heap<Step>((a, b) => comesBefore(a, b));
  const known = new Set<string>();
  const add = (step: Step | undefined): void => {
    if (!step || known.has(step.id)) return;
    known.add(step.id);
    waiting.push(step);
  };
  const touch = (postings: readonly Posting[], from: Position): void => {
    for (const holdingId of movements(postings).keys()) {
      for (const entry of book.entriesAfter(holdingId, from)) add(book.steps.get(entry.stepId));
      for (const step of book.countsAfter(holdingId, from)) add(step);
    }
  };
  for (const step of changed) {
    now.put(step);
    const old = step.supersedes === null ? undefined : book.steps.get(step.supersedes);
    const from = old && comesBefore(old, step) ? old : step;
    touch(step.postings, from);
    if (old) touch(old.postings, from);
  }
  for (const stepId of edits.keys()) add(book.steps.get(stepId));
  const found: Consequence<C>[] = [];
  for (let step = waiting.pop(); step; step = waiting.pop()) {
    if (!now.has(step.id)) continue;
    const entered = step.command as C;
    const edit = edits.get(step.id) ?? (propose ? takeWhatIsThere<C>(step, untouched, now) : null);
    const command = edit ?? entered;
    const before = attempt(() => plan(entered, step, untouched));
    // A step that today's rules would refuse as it stands is left as it is, unless it is corrected along.
    if (!before.plan && !edit) continue;
    const after = attempt(() => plan(command, step, now));
    if (after.plan && before.plan && !edit && alike(before.plan.postings, after.plan.postings)) continue;
    found.push({ old: step, command, ...after });
    if (!after.plan) continue;
    const next = version(step, command, after.plan);
    now.put(next);
    touch(next.postings, step);
    touch(step.postings, step);
  }
  return found;
}

/**
 * What a later step would have taken from changed holdings: all of it where it took all, no more than there is
 * where it took a part. What came out of it was weighed, and stays.
 *
 * @returns the step's command with other sources, or null where nothing of it changes
 */
export function takeWhatIsThere<C extends Entered>(step: Step, was: Revision, is: Revision): C | null {
  const command = step.command as C;
  if (!command.sources) return null;
  const entered = command.sources;
  const sums = (on: Revision, holdingId: string): Balance => sumOf(on.before(holdingId, step, step.id));
  const left = new Map<string, number>();
  const sources = entered.map((source) => {
    if (source.massG === undefined) return source;
    const { holdingId } = source;
    const there = sums(was, holdingId).massMg;
    const now = left.get(holdingId) ?? sums(is, holdingId).massMg;
    const took = entered.reduce((sum, row) => (row.holdingId === holdingId ? sum + (row.massG ?? 0) : sum), 0);
    const wanted = Math.round(source.massG * 1000);
    const tookAll = Math.round(took * 1000) === there && took === source.massG;
    const takes = Math.max(0, tookAll ? now : Math.min(wanted, now));
    left.set(holdingId, now - takes);
    if (takes === wanted) return source;
    return { ...source, massG: takes / 1000 };
  });
  return sources.some((source, index) => source !== entered[index]) ? { ...command, sources } : null;
}

function attempt(plan: () => StepPlan): { plan: StepPlan; problem: null } | { plan: null; problem: DomainError } {
  try {
    return { plan: plan(), problem: null };
  } catch (error) {
    if (error instanceof DomainError) return { plan: null, problem: error };
    throw error;
  }
}

/** The refusal for a change that a later step cannot follow, naming it. */
export function cannotFollow({ old, problem }: Consequence): DomainError {
  const day = new Date(old.at).toISOString().slice(0, 16).replace('T', ' ');
  return new DomainError(
    'ledger/later-step',
    `The ${old.kind} of ${day} UTC could not stand: ${problem?.message ?? ''} Correct it along with this one.`,
    [],
    { stepId: old.id, stepIds: [old.id], because: problem?.code },
  );
}
