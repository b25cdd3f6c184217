import type { Book } from '../ledger/book';
import { Follower } from '../ledger/follower';
import type { Step } from '../ledger/types';
import type { Marking } from './marks';

const NONE: ReadonlySet<Step> = new Set();

/**
 * The notable steps behind every holding, kept up to date with the book: each step hands on what its sources carry.
 * One pass over a book, then a step at a time; a correction or a late entry begins the pass again.
 */
export class Notables {
  private carried = new Map<string, ReadonlySet<Step>>();
  /** Can be caught up ahead of the first question. */
  readonly follower: Follower;

  /** @param marking as the stations say it: what goods carry on that are made from a step */
  constructor(
    book: () => Book,
    private readonly marking: Pick<Marking, 'steps'>,
  ) {
    this.follower = new Follower(
      book,
      () => (this.carried = new Map()),
      (step) => this.apply(step),
    );
  }

  /** @returns in no order */
  behind(holdingId: string): ReadonlySet<Step> {
    this.follower.catchUp();
    return this.carried.get(holdingId) ?? NONE;
  }

  /** Whether a step says something that goods made from it carry on, or was let past a stop. */
  private isNotable({ kind, overrides = [] }: Step): boolean {
    return overrides.length > 0 || this.marking.steps.get(kind)?.carriesOn === true;
  }

  private apply(step: Step): void {
    let set: Set<Step> | ReadonlySet<Step> = this.isNotable(step) ? new Set([step]) : NONE;
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
