import type { Book } from '../ledger/book';
import { Follower, type Lasting, type Settled } from '../ledger/follower';
import { Layered } from '../ledger/layered';
import type { Step } from '../ledger/types';

/** Bars of one batch, by its share of the pours and tubs they came from: not always whole. */
export interface BatchBars {
  /** Moulded, less those that went back to be melted. */
  made: number;
  massMg: number;
  /** In bars and packs that are still here. */
  standing: number;
  sold: number;
}

/** The share of each batch in a gram. Never changed: many holdings have the same. */
type Shares = readonly (readonly [batchId: string, share: number])[];

/** A holding's chocolate while the book is read: as nearly all are empty in the end, these have one for all of a batch. */
interface Content {
  readonly massMg: number;
  readonly shares: Shares;
}

/** What is settled of it. */
interface Past {
  bars: ReadonlyMap<string, BatchBars>;
  contents: ReadonlyMap<string, Content>;
}

const NONE: BatchBars = { made: 0, massMg: 0, standing: 0, sold: 0 };

/**
 * The bars of every batch, in one pass through the book that goes on as the book grows. A pour of two batches gives each
 * its share by weight; what joins from the pantry after the bowl belongs to what it joins. A batch's own bowl is all its
 * own, whatever was put in it.
 */
export class BarsByBatch implements Lasting {
  private readonly bars = new Layered<string, BatchBars>();
  private readonly contents = new Layered<string, Content>();
  /** What is all of one batch and has nothing in it, by that batch: most holdings are. */
  private readonly empties = new Map<string, Content>();
  private standing = { state: '', pieces: new Map<string, number>() };

  /** Can be caught up ahead of the first question. */
  readonly follower: Follower;

  constructor(
    private readonly book: () => Book,
    private readonly isBatch: (holdingId: string) => boolean,
  ) {
    this.follower = new Follower({
      book,
      begin: () => {
        this.bars.begin();
        this.contents.begin();
      },
      take: (step, whole) => this.apply(whole, step),
      layers: {
        settle: () => {
          this.bars.settle();
          this.contents.settle();
        },
        back: () => {
          this.bars.back();
          this.contents.back();
        },
      },
    });
  }

  past(): Past {
    return { bars: this.bars.past, contents: this.contents.past };
  }

  resume(past: unknown, settled: Settled): void {
    const { bars, contents } = past as Past;
    this.bars.begin(new Map(bars));
    this.contents.begin();
    // What is all of one batch has one text and one list for all of that batch again.
    for (const [holdingId, { massMg, shares }] of contents) this.put(holdingId, massMg, shares);
    this.follower.resume(settled);
  }

  of(batchId: string): BatchBars {
    this.follower.catchUp();
    const book = this.book();
    if (this.standing.state !== book.state) this.standing = { state: book.state, pieces: this.piecesHere(book) };
    return { ...(this.bars.get(batchId) ?? NONE), standing: this.standing.pieces.get(batchId) ?? 0 };
  }

  private piecesHere(book: Book): Map<string, number> {
    const pieces = new Map<string, number>();
    for (const { id: holdingId, kind } of book.standing) {
      if (kind !== 'bars' && kind !== 'packed') continue;
      for (const [batchId, share] of this.contents.get(holdingId)?.shares ?? [])
        pieces.set(batchId, (pieces.get(batchId) ?? 0) + book.balance(holdingId).pieces * share);
    }
    return pieces;
  }

  private count(shares: Shares, part: keyof BatchBars, amount: number): void {
    for (const [batchId, share] of shares) {
      const row = this.bars.own(
        batchId,
        () => ({ ...NONE }),
        (settled) => ({ ...settled }),
      );
      row[part] += amount * share;
    }
  }

  private apply(book: Book, step: Step): void {
    const pool = this.takeOut(book, step);
    for (const p of step.postings) {
      if (p.holdingId === null || p.massMg <= 0) continue;
      const own = this.isBatch(p.holdingId);
      const before = this.contents.get(p.holdingId);
      if (!own && pool.length === 0) {
        // Grams that a count found are of what was there.
        if (before) {
          this.put(p.holdingId, before.massMg + p.massMg, before.shares);
          if (step.kind === 'return') this.count(before.shares, 'sold', -p.pieces);
        }
        continue;
      }
      const blended = blend(before, pool, p.massMg);
      const shares: Shares = own ? [...blended.filter(([id]) => id !== p.holdingId), [p.holdingId, 1]] : blended;
      this.put(p.holdingId, Math.max(0, before?.massMg ?? 0) + p.massMg, shares);
      if (step.kind !== 'mould' || p.pieces <= 0 || book.holding(p.holdingId).kind !== 'bars') continue;
      this.count(pool, 'made', p.pieces);
      this.count(pool, 'massMg', p.massMg);
    }
  }

  private put(holdingId: string, massMg: number, shares: Shares): void {
    const [[batchId, share] = ['', 0]] = shares;
    if (shares.length !== 1 || share !== 1) {
      this.contents.set(holdingId, { massMg, shares });
      return;
    }
    let empty = this.empties.get(batchId);
    if (!empty) this.empties.set(batchId, (empty = { massMg: 0, shares }));
    this.contents.set(holdingId, massMg === 0 ? empty : { massMg, shares: empty.shares });
  }

  /** What a step takes of batches, as shares of the worked goods it takes; counts what was sold or went back. */
  private takeOut(book: Book, step: Step): Shares {
    const pool = new Map<string, number>();
    let worked = 0;
    for (const p of step.postings) {
      if (p.holdingId === null || p.massMg >= 0) continue;
      const { kind } = book.holding(p.holdingId);
      if (kind === 'ingredient') continue;
      worked -= p.massMg;
      const content = this.contents.get(p.holdingId);
      if (!content) continue;
      const { shares } = content;
      for (const [batchId, share] of shares) pool.set(batchId, (pool.get(batchId) ?? 0) - p.massMg * share);
      this.put(p.holdingId, content.massMg + p.massMg, shares);
      if (p.pieces >= 0) continue;
      if (step.kind === 'sell') this.count(shares, 'sold', -p.pieces);
      if ((step.kind === 'remelt' || step.kind === 'temper') && kind !== 'seconds') {
        this.count(shares, 'made', p.pieces);
        this.count(shares, 'massMg', p.massMg);
      }
    }
    return Array.from(pool, ([batchId, mg]) => [batchId, mg / worked] as const);
  }
}

/** The share of each batch once something is added. */
function blend(content: Content | undefined, pool: Shares, addedMg: number): Shares {
  const had = Math.max(0, content?.massMg ?? 0);
  // What is empty keeps nothing of what was there.
  if (had === 0) return pool;
  const total = had + addedMg;
  const shares = new Map<string, number>();
  for (const [batchId, share] of content?.shares ?? []) shares.set(batchId, (share * had) / total);
  for (const [batchId, share] of pool) shares.set(batchId, (shares.get(batchId) ?? 0) + (share * addedMg) / total);
  return [...shares];
}
