import type { Book } from './book';
import { comesBefore, type Position } from './entries';
import { LOOSE } from './loose';
import type { Step } from './types';
import { Valuation, type WorthThen } from './valuation';

/**
 * The valuation of a book to which steps are entered, one after another.
 *
 * What is done is often written down late, and a sale of husk is credited to the loads that it came from: the steps after
 * either are replayed then, not all the years. For that a valuation of everything but the last steps is kept beside the
 * one that is asked, which goes on from it.
 */
export class Worths {
  private early: { valuation: Valuation; upTo: Position } | null = null;
  private whole: Valuation | null = null;

  /**
   * @param then what is kept from before, if anything
   * @param loose how many steps at the end are replayed after a late one; at most three times as many
   */
  constructor(
    private readonly book: Book,
    private readonly then: WorthThen | null = null,
    private readonly loose = LOOSE,
  ) {}

  /** Costs and make-up, brought up to date on asking. */
  get now(): Valuation {
    this.whole ??= new Valuation(this.book, this.earlier());
    return this.whole;
  }

  /** Takes in a step that was inserted in the book just now. */
  insert(step: Step): void {
    if (this.whole && !this.whole.append(step)) this.whole = null;
    if (!this.early) return;
    const { upTo } = this.early;
    const old = step.supersedes === null ? undefined : this.book.steps.get(step.supersedes);
    if ([step, old].some((changed) => changed && !comesBefore(upTo, changed))) this.early = null;
  }

  /** Forgets what was worked out: something else in the book was changed. */
  drop(): void {
    [this.early, this.whole] = [null, null];
  }

  private earlier(): WorthThen | null {
    const { timeline } = this.book;
    const behind = timeline.length - (this.early?.valuation.steps ?? this.then?.steps ?? 0);
    const last = timeline.at(Math.max(0, timeline.length - 1 - this.loose));
    if (behind > 3 * this.loose && last) this.goOn({ at: last.at, order: last.order });
    return this.early ? asThen(this.early.valuation, this.early.upTo) : this.then;
  }

  private goOn(upTo: Position): void {
    if (this.early?.valuation.advance(this.early.upTo, upTo)) this.early.upTo = upTo;
    else this.early = { valuation: new Valuation(this.book, this.then, upTo), upTo };
  }
}

const asThen = (valuation: Valuation, upTo: Position): WorthThen => ({
  upTo,
  steps: valuation.steps,
  sales: valuation.salesReaching(upTo),
  totals: valuation.totals,
  isSettled: () => true,
  state: (holdingId) => valuation.stateOf(holdingId),
  cost: (stepId) => valuation.costOf(stepId),
});
