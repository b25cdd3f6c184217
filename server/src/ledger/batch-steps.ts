import type { Book } from '@wunsch/core/ledger/book';
import { Follower, type Lasting, type Settled } from '@wunsch/core/ledger/follower';
import { Layered } from '@wunsch/core/ledger/layered';
import type { Step } from '@wunsch/core/ledger/types';

/** Of one batch: the place of its newest step in the order of the work, how many there are, and the sum of their numbers. */
interface Own {
  newest: number;
  count: number;
  seqs: number;
  /** What is said of these, as it was asked for: the same text for all of its goods. */
  word: string | null;
}

/** What is settled of it. */
interface Past {
  named: number;
  batches: ReadonlyMap<string, Own>;
  earlier: Uint32Array<ArrayBuffer>;
}

/** Comes before the first step of a batch. */
const NO_PLACE = 0xffffffff;

/** The steps in force that name each batch, kept up to date with the book. */
export class BatchSteps implements Lasting {
  /** Of which book and line that is, and how many steps in it name a batch. */
  private line = '';
  private named = 0;
  /** How many of them are settled. */
  private settledNamed = 0;
  private readonly batches = new Layered<string, Own>();
  /** By place: the place of the step before it that names the same batch. */
  private earlier = new Uint32Array(64);
  /** Can be caught up ahead of the first question. */
  readonly follower: Follower;

  constructor(private readonly book: () => Book) {
    this.follower = new Follower({
      book,
      begin: () => {
        this.goBack(0);
        this.batches.begin();
      },
      take: (step, _book, place) => this.add(step, place),
      layers: {
        settle: () => {
          this.settledNamed = this.named;
          this.batches.settle();
        },
        back: () => {
          this.goBack(this.settledNamed);
          this.batches.back();
        },
      },
    });
  }

  private goBack(named: number): void {
    this.line = this.book().line;
    this.named = named;
  }

  past(): Past {
    const { place = 0 } = this.follower.settledUpTo ?? {};
    return { named: this.settledNamed, batches: this.batches.past, earlier: this.earlier.slice(0, place) };
  }

  resume(past: unknown, settled: Settled): void {
    const { named, batches, earlier } = past as Past;
    this.settledNamed = named;
    this.goBack(named);
    this.batches.begin(new Map(batches));
    this.earlier = earlier;
    this.follower.resume(settled);
  }

  private add({ batchId, seq }: Step, place: number): void {
    if (batchId === null) return;
    if (place >= this.earlier.length) {
      const longer = new Uint32Array(2 * place + 64);
      longer.set(this.earlier);
      this.earlier = longer;
    }
    const own = this.batches.own(
      batchId,
      () => ({ newest: NO_PLACE, count: 0, seqs: 0, word: null }),
      (settled) => ({ ...settled }),
    );
    this.earlier[place] = own.newest;
    own.newest = place;
    own.count += 1;
    own.seqs += seq;
    own.word = null;
    this.named += 1;
  }

  /** Another word whenever a step of any batch was entered or changed. */
  get word(): string {
    this.follower.catchUp();
    return `${this.line} ${this.named}`;
  }

  /** Another word whenever other steps are in force that name a batch: those that come have greater numbers than any. */
  wordOf(batchId: string): string {
    this.follower.catchUp();
    const own = this.batches.get(batchId);
    // Which book that is, whatever was corrected in it.
    if (!own) return this.line.split('.')[0] ?? '';
    return (own.word ??= `${this.line.split('.')[0]} ${own.count} ${own.seqs}`);
  }

  /** Steps in force that name a batch, in order: a list of its own for whoever asks. */
  of(batchId: string): Step[] {
    this.follower.catchUp();
    const { timeline } = this.book();
    const steps: Step[] = [];
    for (
      let place = this.batches.get(batchId)?.newest ?? NO_PLACE;
      place !== NO_PLACE;
      place = this.earlier[place] ?? NO_PLACE
    ) {
      const step = timeline.at(place);
      if (step) steps.push(step);
    }
    return steps.reverse();
  }
}
