import type { Book } from '../ledger/book';
import { Follower, type Lasting, type Settled } from '../ledger/follower';
import { Layered } from '../ledger/layered';
import type { Step } from '../ledger/types';
import type { Marking } from './marks';

/** Ids of steps by holding. */
type Carried = ReadonlyMap<string, ReadonlySet<string>>;

const NONE: ReadonlySet<string> = new Set();

/**
 * The notable steps behind every holding, kept up to date with the book: each step hands on what its sources carry.
 * One pass over a book, then a step at a time.
 */
export class Notables implements Lasting {
  private readonly carried = new Layered<string, ReadonlySet<string>>();
  /** Can be caught up ahead of the first question. */
  readonly follower: Follower;

  /** @param marking as the stations say it: what goods carry on that are made from a step */
  constructor(
    book: () => Book,
    private readonly marking: Pick<Marking, 'steps'>,
  ) {
    this.follower = new Follower({
      book,
      begin: () => this.carried.begin(),
      take: (step) => this.apply(step),
      layers: this.carried,
    });
  }

  past(): Carried {
    return this.carried.past;
  }

  resume(past: unknown, settled: Settled): void {
    this.carried.begin(past as Map<string, ReadonlySet<string>>);
    this.follower.resume(settled);
  }

  /** @returns ids of steps, in no order */
  behind(holdingId: string): ReadonlySet<string> {
    this.follower.catchUp();
    return this.carried.get(holdingId) ?? NONE;
  }

  /** Whether a step says something that goods made from it carry on, or was let past a stop. */
  private isNotable({ kind, overrides = [] }: Step): boolean {
    return overrides.length > 0 || this.marking.steps.get(kind)?.carriesOn === true;
  }

  private apply(step: Step): void {
    let set: ReadonlySet<string> = this.isNotable(step) ? new Set([step.id]) : NONE;
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

const union = (a: ReadonlySet<string>, b: ReadonlySet<string>): ReadonlySet<string> =>
  b.size === 0 ? a : a.size === 0 ? b : new Set([...a, ...b]);
