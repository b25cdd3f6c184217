import type { Book } from '../ledger/book';
import type { Step } from '../ledger/types';

const NONE: ReadonlySet<Step> = new Set();

/** Whether a step says something that goods made from it carry on: it was tempered, sent back, let past a stop. */
const isNotable = (step: Step): boolean =>
  step.kind === 'temper' || step.kind === 'remelt' || (step.overrides ?? []).length > 0;

/**
 * The notable steps behind every holding, kept up to date with the book: each step hands on what its sources carry.
 * One pass over a book, then a step at a time; a correction or a late entry begins the pass again.
 */
export class Notables {
  private carried = new Map<string, ReadonlySet<Step>>();
  private state = '';
  private line = '';
  private applied = 0;

  constructor(private readonly book: () => Book) {}

  /** @returns in no order */
  behind(holdingId: string): ReadonlySet<Step> {
    this.bringUpToDate();
    return this.carried.get(holdingId) ?? NONE;
  }

  private bringUpToDate(): void {
    const book = this.book();
    if (book.state === this.state) return;
    const { timeline } = book;
    if (book.line !== this.line) {
      this.carried = new Map();
      this.applied = 0;
    }
    for (let i = this.applied; i < timeline.length; i += 1) this.apply(timeline.at(i) as Step);
    [this.state, this.line, this.applied] = [book.state, book.line, timeline.length];
  }

  private apply(step: Step): void {
    let set: Set<Step> | ReadonlySet<Step> = isNotable(step) ? new Set([step]) : NONE;
    for (const { holdingId, massMg, pieces } of step.postings) {
      if (holdingId === null || (massMg >= 0 && pieces >= 0)) continue;
      set = union(set, this.carried.get(holdingId) ?? NONE);
    }
    if (set.size === 0) return;
    for (const { holdingId, massMg, pieces } of step.postings)
      if (holdingId !== null && (massMg > 0 || pieces > 0))
        this.carried.set(holdingId, union(this.carried.get(holdingId) ?? NONE, set));
  }
}

const union = (a: ReadonlySet<Step>, b: ReadonlySet<Step>): ReadonlySet<Step> =>
  b.size === 0 ? a : a.size === 0 ? b : new Set([...a, ...b]);
