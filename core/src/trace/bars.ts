import type { Book } from '../ledger/book';
import { Follower } from '../ledger/follower';
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

/** A holding's chocolate while the book is read: grams, and the share of each batch in a gram. */
interface Content {
  massMg: number;
  /** Never changed: many have the same. */
  shares: ReadonlyMap<string, number>;
}

const NONE: BatchBars = { made: 0, massMg: 0, standing: 0, sold: 0 };

type Count = (shares: ReadonlyMap<string, number>, part: keyof BatchBars, amount: number) => void;

/**
 * The bars of every batch, in one pass through the book that goes on as the book grows. A pour of two batches gives each
 * its share by weight; what joins from the pantry after the bowl belongs to what it joins. A batch's own bowl is all its
 * own, whatever was put in it.
 */
export class BarsByBatch {
  private bars = new Map<string, BatchBars>();
  private contents = new Map<string, Content>();
  /** What is all of one batch, by that: most holdings are. */
  private readonly wholes = new Map<string, ReadonlyMap<string, number>>();
  private standing = { state: '', pieces: new Map<string, number>() };

  /** Can be caught up ahead of the first question. */
  readonly follower: Follower;

  constructor(
    private readonly book: () => Book,
    private readonly isBatch: (holdingId: string) => boolean,
  ) {
    this.follower = new Follower(
      book,
      () => {
        this.bars = new Map();
        this.contents = new Map();
      },
      (step, whole) => this.apply(whole, step),
    );
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

  private readonly count: Count = (shares, part, amount) => {
    for (const [batchId, share] of shares) {
      const row = this.bars.get(batchId) ?? { ...NONE };
      row[part] += amount * share;
      this.bars.set(batchId, row);
    }
  };

  private apply(book: Book, step: Step): void {
    const { contents, count } = this;
    const { postings } = step;
    const pool = takeOut(book, step, contents, count);
    for (const p of postings) {
      if (p.holdingId === null || p.massMg <= 0) continue;
      const own = this.isBatch(p.holdingId);
      if (!own && pool.size === 0) {
        // Grams that a count found are of what was there.
        const there = contents.get(p.holdingId);
        if (there) {
          there.massMg += p.massMg;
          if (step.kind === 'return') count(there.shares, 'sold', -p.pieces);
        }
        continue;
      }
      const before = contents.get(p.holdingId);
      const shares = blend(before, pool, p.massMg);
      if (own) shares.set(p.holdingId, 1);
      contents.set(p.holdingId, {
        massMg: Math.max(0, before?.massMg ?? 0) + p.massMg,
        shares: this.shared(shares),
      });
      if (step.kind !== 'mould' || p.pieces <= 0 || book.holding(p.holdingId).kind !== 'bars') continue;
      count(pool, 'made', p.pieces);
      count(pool, 'massMg', p.massMg);
    }
  }

  private shared(shares: ReadonlyMap<string, number>): ReadonlyMap<string, number> {
    const [[batchId, share] = ['', 0]] = shares;
    if (shares.size !== 1 || share !== 1) return shares;
    const known = this.wholes.get(batchId);
    if (!known) this.wholes.set(batchId, shares);
    return known ?? shares;
  }
}

/** What a step takes of batches, as shares of the worked goods it takes; counts what was sold or went back. */
function takeOut(book: Book, step: Step, contents: Map<string, Content>, count: Count): Map<string, number> {
  const pool = new Map<string, number>();
  let worked = 0;
  for (const p of step.postings) {
    if (p.holdingId === null || p.massMg >= 0) continue;
    const { kind } = book.holding(p.holdingId);
    if (kind === 'ingredient') continue;
    worked -= p.massMg;
    const content = contents.get(p.holdingId);
    if (!content) continue;
    for (const [batchId, share] of content.shares) pool.set(batchId, (pool.get(batchId) ?? 0) - p.massMg * share);
    content.massMg += p.massMg;
    if (p.pieces >= 0) continue;
    if (step.kind === 'sell') count(content.shares, 'sold', -p.pieces);
    if ((step.kind === 'remelt' || step.kind === 'temper') && kind !== 'seconds') {
      count(content.shares, 'made', p.pieces);
      count(content.shares, 'massMg', p.massMg);
    }
  }
  for (const [batchId, mg] of pool) pool.set(batchId, mg / worked);
  return pool;
}

/** The share of each batch once something is added. */
function blend(content: Content | undefined, pool: ReadonlyMap<string, number>, addedMg: number): Map<string, number> {
  const had = Math.max(0, content?.massMg ?? 0);
  const total = had + addedMg;
  const shares = new Map<string, number>();
  // What is empty keeps nothing of what was there.
  if (had > 0) for (const [batchId, share] of content?.shares ?? []) shares.set(batchId, (share * had) / total);
  for (const [batchId, share] of pool) shares.set(batchId, (shares.get(batchId) ?? 0) + (share * addedMg) / total);
  return shares;
}
