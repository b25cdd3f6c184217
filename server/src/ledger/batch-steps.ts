import type { Book } from '@wunsch/core/ledger/book';
import { Follower, type Lasting, type Settled } from '@wunsch/core/ledger/follower';
import { Layered } from '@wunsch/core/ledger/layered';
import type { Step } from '@wunsch/core/ledger/types';

/** Which steps are in force: what comes has a greater number than any before it. */
interface Count {
  count: number;
  /** The sum of their numbers. */
  seqs: number;
}

/** What is known of a batch without reading its steps. */
export interface BatchSpan {
  firstAt: number;
  lastAt: number;
  machines: readonly string[];
}

interface Own extends Count, BatchSpan {
  /** Place of the newest step in the order of the work. */
  newest: number;
  /** What is said of these, as it was asked for: the same text for all of its goods. */
  word: string | null;
}

/** What is settled of it. */
interface Past {
  all: Count;
  batches: ReadonlyMap<string, Own>;
  earlier: Uint32Array<ArrayBuffer>;
}

/** Comes before the first step of a batch. */
const NO_PLACE = 0xffffffff;
const NO_STEPS: Count = { count: 0, seqs: 0 };
const NEW: Own = { ...NO_STEPS, newest: NO_PLACE, word: null, firstAt: 0, lastAt: 0, machines: [] };

/** The steps in force that name each batch, kept up to date with the book. */
export class BatchSteps implements Lasting {
  /** Of all batches. */
  private all = { ...NO_STEPS };
  /** Those of them that are settled. */
  private settledAll = NO_STEPS;
  private readonly batches = new Layered<string, Own>();
  /** By place: the place of the step before it that names the same batch. */
  private earlier = new Uint32Array(64);
  /** Can be caught up ahead of the first question. */
  readonly follower: Follower;

  constructor(private readonly book: () => Book) {
    this.follower = new Follower({
      book,
      begin: () => {
        this.all = { ...NO_STEPS };
        this.batches.begin();
      },
      take: (step, _book, place) => this.add(step, place),
      layers: {
        settle: () => {
          this.settledAll = { ...this.all };
          this.batches.settle();
        },
        back: () => {
          this.all = { ...this.settledAll };
          this.batches.back();
        },
      },
    });
  }

  past(): Past {
    const { place = 0 } = this.follower.settledUpTo ?? {};
    return {
      all: this.settledAll,
      batches: new Map(Array.from(this.batches.past, ([batchId, own]) => [batchId, { ...own, word: null }])),
      earlier: this.earlier.slice(0, place),
    };
  }

  resume(past: unknown, settled: Settled): void {
    const { all, batches, earlier } = past as Past;
    this.settledAll = all;
    this.all = { ...all };
    this.batches.begin(new Map(batches));
    this.earlier = earlier;
    this.follower.resume(settled);
  }

  private add({ batchId, seq, at, machineId }: Step, place: number): void {
    if (batchId === null) return;
    if (place >= this.earlier.length) {
      const longer = new Uint32Array(2 * place + 64);
      longer.set(this.earlier);
      this.earlier = longer;
    }
    const own = this.batches.own(
      batchId,
      () => ({ ...NEW, firstAt: at }),
      (settled) => ({ ...settled }),
    );
    this.earlier[place] = own.newest;
    own.newest = place;
    own.lastAt = at;
    if (machineId !== null && !own.machines.includes(machineId)) own.machines = [...own.machines, machineId];
    own.word = null;
    for (const sum of [own, this.all]) {
      sum.count += 1;
      sum.seqs += seq;
    }
  }

  private said({ count, seqs }: Count): string {
    // Which book that is, whatever was corrected in it.
    return `${this.book().line.split('.')[0]} ${count} ${seqs}`;
  }

  /** Another word whenever other steps are in force that name any batch. */
  get word(): string {
    this.follower.catchUp();
    return this.said(this.all);
  }

  /** Another word whenever other steps are in force that name a batch. */
  wordOf(batchId: string): string {
    this.follower.catchUp();
    const own = this.batches.get(batchId);
    return own ? (own.word ??= this.said(own)) : this.said(NO_STEPS);
  }

  /** When its first and its last step was, and the machines that they name; null where no step names it. */
  spanOf(batchId: string): BatchSpan | null {
    this.follower.catchUp();
    return this.batches.get(batchId) ?? null;
  }

  /** Whether all that is known of a batch is settled. */
  isSettled(batchId: string): boolean {
    const own = this.batches.past.get(batchId);
    return own !== undefined && own === this.batches.get(batchId);
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
