import type { Book } from './book';
import { BEFORE_ALL, comesBefore, type Position } from './entries';
import { LOOSE } from './loose';
import type { Step } from './types';

/** Up to where something is settled. */
export interface Settled {
  /** How many steps of the order of the work it takes in. */
  place: number;
  /** Where the last of them stands. */
  upTo: Position;
}

/** What is made of a book in two layers: one for all but the last steps, and one that can be let go of. */
export interface Layers {
  /** From now on what is taken in may be let go of. */
  settle(settled: Settled): void;
  /** Lets go of what was taken in since it was settled last; what comes next is settled until it is again. */
  back(): void;
  /** Whether what is settled still holds where what it stands on is another; left out, it does. */
  holds?(settled: Settled): boolean;
}

/** What is made of a book and can be kept beside it, up to where it is settled. */
export interface Lasting {
  readonly follower: Follower;
  /** What is settled: maps, sets, lists and plain values, which it goes on to change. */
  past: () => unknown;
  /** Goes on from it. @param past as this program gave it, and its own from now on */
  resume: (past: unknown, settled: Settled) => void;
}

const UNKNOWN = Symbol('unknown');

export interface Following {
  book: () => Book;
  /** Lets go of all that was taken in. */
  begin: () => void;
  /** Is given each step in force, and its place in the order of the work. */
  take: (step: Step, book: Book, place: number) => void;
  /** Something else that it reads: where that is another, it goes back too. */
  standsOn?: () => unknown;
  /** Left out, it begins again after every change that is not at the end. */
  layers?: Layers;
}

/**
 * Goes through the order of the work once, and on as the book grows. A correction or a late entry makes it go back to what
 * is settled where it has layers and nothing settled was changed, and begin again otherwise.
 *
 * @example
 * const follower = new Follower({ book: () => book, begin: () => (sum = 0), take: (step) => (sum += step.minutes) });
 * follower.catchUp(); // true: all of the book is in the sum
 */
export class Follower {
  private line = '';
  private stand: unknown;
  private seen = 0;
  private settled: Settled | null = null;
  /** Place from which on what is taken in is loose; null while it is, and without layers. */
  private goal: number | null = null;
  private readonly first: (() => void)[] = [];

  /** @param loose how many steps at the end are gone through again after a late one; at most three times as many */
  constructor(
    private readonly of: Following,
    private readonly loose = LOOSE,
  ) {}

  /** Up to where what it took in is settled; null where nothing is. */
  get settledUpTo(): Settled | null {
    return this.goal === null || this.goal === this.settled?.place ? this.settled : null;
  }

  /** What is done before it is first caught up: to go on from what was kept is left until somebody asks. */
  whenFirstAsked(work: () => void): void {
    this.first.push(work);
  }

  /** Goes on from what was kept of the book as it is now, instead of from its beginning. */
  resume(settled: Settled): void {
    this.line = this.of.book().line;
    // What it stood on is not kept: it is asked before it goes on whether what is settled holds.
    this.stand = UNKNOWN;
    this.settled = settled;
    [this.seen, this.goal] = [settled.place, settled.place];
  }

  /**
   * Takes in what was entered since.
   *
   * @param most steps, after which it stops
   * @returns whether that is all
   */
  catchUp(most = Infinity): boolean {
    for (const work of this.first.splice(0)) work();
    const book = this.of.book();
    const { timeline } = book;
    this.meet(book);
    const end = Math.min(timeline.length, this.seen + most);
    for (; this.seen < end; this.seen += 1) {
      if (this.seen === this.goal) this.settle(book);
      this.of.take(timeline.at(this.seen) as Step, book, this.seen);
    }
    return end === timeline.length;
  }

  /** Goes back as far as it has to, for what was changed or as much is loose. */
  private meet(book: Book): void {
    const { line } = book;
    const stand = this.of.standsOn?.();
    if (this.line !== line || this.stand !== stand) {
      if (this.settledHolds(book, stand)) this.back(book);
      else this.begin(book);
      [this.line, this.stand] = [line, stand];
    } else if (this.goal === null && this.settled !== null && this.seen - this.settled.place > 3 * this.loose)
      this.back(book);
  }

  private settledHolds(book: Book, stand: unknown): boolean {
    const { settledUpTo: settled } = this;
    const changed = book.changedSince(this.line);
    if (settled === null || changed === null || !comesBefore(settled.upTo, changed)) return false;
    return this.stand === stand || this.of.layers?.holds?.(settled) !== false;
  }

  private begin(book: Book): void {
    this.of.begin();
    [this.seen, this.settled] = [0, null];
    this.goal = this.of.layers ? Math.max(0, book.timeline.length - this.loose) : null;
  }

  private back({ timeline }: Book): void {
    const place = this.settled?.place ?? 0;
    this.of.layers?.back();
    this.seen = place;
    this.goal = timeline.length - place > 3 * this.loose ? timeline.length - this.loose : place;
  }

  private settle({ timeline }: Book): void {
    const last = timeline.at(this.seen - 1);
    this.settled = {
      place: this.seen,
      upTo: this.seen > 0 && last ? { at: last.at, order: last.order } : BEFORE_ALL,
    };
    this.goal = null;
    this.of.layers?.settle(this.settled);
  }
}
