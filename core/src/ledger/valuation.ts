import { apportion } from '../units/apportion';
import type { Book } from './book';
import { byProductSales, reachingBack, sharedBack, type ByProductSale, type PerHolding } from './by-product-sales';
import { comesBefore, type Position } from './entries';
import { isByProduct, isOut, type Posting, type Step } from './types';

/** What a holding is made of: share by mass of each root (a lot or a purchased ingredient), adding up to 1. */
export type MakeUp = ReadonlyMap<string, number>;

export interface Worth {
  valueMilli: number;
  massMg: number;
  pieces: number;
}

/** How a step's cost came about and where it went, in milli. */
export interface StepCost {
  inputsMilli: number;
  purchaseMilli: number;
  labourMilli: number;
  energyMilli: number;
  /** What the step's by-product fetched: taken off the good outputs. */
  creditMilli: number;
  /** Value that went on, by holding. */
  outputs: Map<string, number>;
  /** Value that left with goods sold. */
  soldMilli: number;
  /** Value with no good output to go to. */
  lostMilli: number;
}

/** What a valuation knows of a holding. */
export interface State extends Worth {
  /** Milli per mg, or per piece for packaging, when it was last filled: kept when empty. */
  unitMilli: number;
  makeUp: Map<string, number>;
}

export interface Totals {
  boughtMilli: number;
  labourMilli: number;
  energyMilli: number;
  soldMilli: number;
  lostMilli: number;
  revenueMilli: number;
}

/** A valuation up to a place in the order of the work, kept from before: what came after is replayed upon it. */
export interface WorthThen {
  /** The last step that it takes in. */
  readonly upTo: Position;
  /** How many steps of the order of the work it takes in. */
  readonly steps: number;
  /** Sales of by-products after it that it knows of: what they fetched is credited to steps that it takes in. */
  readonly sales: readonly string[];
  readonly totals: Readonly<Totals>;
  /** Whether everything that it takes in is still as it was. */
  isSettled(): boolean;
  /** Not to be changed; the same for whoever asks again, for a while. */
  state(holdingId: string): Readonly<State> | undefined;
  cost(stepId: string): StepCost | undefined;
}

/**
 * Cost and make-up of every holding, replayed from the book in the order of the work.
 *
 * Cost travels with mass at the moving average: a step's inputs, labour and energy are shared among
 * its good outputs by mass; losses carry nothing, so the good grams bear them. What a by-product was
 * sold for is credited to the step that made it. Every milli is accounted for: see `totals`.
 */
export class Valuation {
  /** Of holdings that a step moved since what was kept from before. */
  readonly states = new Map<string, State>();
  private readonly costs = new Map<string, StepCost>();
  readonly totals: Totals;
  private applied: number;
  private readonly then: WorthThen | null;
  /** Those of by-products after the last step of what was kept, or to which it was advanced. */
  private sales: readonly ByProductSale[];

  /**
   * @param then what is kept from before; it counts only while nothing that it takes in has changed since
   * @param until the last place in the order of the work that is taken in; left out, all of it
   */
  constructor(
    private readonly book: Book,
    then: WorthThen | null = null,
    until?: Position,
  ) {
    const since = then?.isSettled() ? byProductSales(book, then.steps) : [];
    this.then = then?.isSettled() && sameSales(reachingBack(since, then.upTo), then.sales) ? then : null;
    this.totals = { ...NO_TOTALS, ...this.then?.totals };
    this.applied = this.then?.steps ?? 0;
    this.sales = this.then ? since : byProductSales(book, 0);
    this.replay(until);
  }

  /** How many steps of the order of the work are taken in. */
  get steps(): number {
    return this.applied;
  }

  /** Sales of by-products after a place that are credited to steps up to it, in the order of the work. */
  salesReaching(upTo: Position): string[] {
    return reachingBack(this.sales, upTo);
  }

  /**
   * Goes on to a later place in the order of the work; up to where it stands, nothing may have changed.
   *
   * @param from where it stands
   * @param until the last place that is taken in
   * @returns false where a sale since is credited to steps that were taken in already: replay instead
   */
  advance(from: Position, until: Position): boolean {
    const since = byProductSales(this.book, this.applied);
    if (!sameSales(reachingBack(since, from), this.salesReaching(from))) return false;
    this.sales = since;
    this.replay(until);
    return true;
  }

  private replay(until: Position | undefined): void {
    const { credits, takings } = sharedBack(this.sales);
    const { timeline } = this.book;
    for (; this.applied < timeline.length; this.applied += 1) {
      const step = timeline.at(this.applied);
      if (!step || (until && comesBefore(until, step))) break;
      this.apply(step, credits.get(step.id), takings.get(step.id));
    }
  }

  /**
   * Takes in a step after which nothing moved what it moves, without replaying the rest: most of what is entered.
   *
   * @returns false where it is another one, puts something right, or sells a by-product: replay instead
   */
  append(step: Step): boolean {
    const isNext = this.book.timeline.length === this.applied + 1;
    if (!isNext || step.supersedes !== null || step.withdrawn) return false;
    for (const { holdingId } of step.postings) {
      if (holdingId === null) continue;
      if (this.book.entriesOf(holdingId).at(-1)?.stepId !== step.id) return false;
      if (step.money.revenueMilli !== 0 && isByProduct(this.book.holding(holdingId).kind)) return false;
    }
    this.apply(step);
    this.applied += 1;
    return true;
  }

  /** How a step's cost came about; undefined where it had none, or counts no more. */
  costOf(stepId: string): StepCost | undefined {
    return this.costs.get(stepId) ?? this.then?.cost(stepId);
  }

  /** What is known of a holding; not to be changed. */
  stateOf(holdingId: string): Readonly<State> | undefined {
    return this.states.get(holdingId) ?? this.then?.state(holdingId);
  }

  worth(holdingId: string): Worth {
    const state = this.stateOf(holdingId);
    return state
      ? { valueMilli: state.valueMilli, massMg: state.massMg, pieces: state.pieces }
      : { valueMilli: 0, massMg: 0, pieces: 0 };
  }

  /** Milli per kilogram at its last filling, whether or not anything is left. */
  perKgMilli(holdingId: string): number {
    return (this.stateOf(holdingId)?.unitMilli ?? 0) * 1_000_000;
  }

  /** Milli per piece at its last filling. */
  perPieceMilli(holdingId: string): number {
    const entries = this.book.entriesOf(holdingId);
    let mass = 0;
    let pieces = 0;
    for (const entry of entries) {
      if (entry.pieces <= 0) continue;
      mass += entry.massMg;
      pieces += entry.pieces;
    }
    const unit = this.stateOf(holdingId)?.unitMilli ?? 0;
    if (pieces === 0) return 0;
    return mass > 0 ? (unit * mass) / pieces : unit;
  }

  makeUp(holdingId: string): MakeUp {
    return this.stateOf(holdingId)?.makeUp ?? new Map();
  }

  private state(holdingId: string): State {
    let state = this.states.get(holdingId);
    if (!state) {
      const then = this.then?.state(holdingId);
      state = then
        ? { ...then, makeUp: new Map(then.makeUp) }
        : { valueMilli: 0, massMg: 0, pieces: 0, unitMilli: 0, makeUp: new Map() };
      this.states.set(holdingId, state);
    }
    return state;
  }

  private apply(step: Step, byProductCredit?: PerHolding, takings?: PerHolding): void {
    if (step.postings.length === 0 && step.money.labourMilli === 0 && step.money.energyMilli === 0) return;
    const { purchaseMilli, labourMilli, energyMilli, revenueMilli } = step.money;
    const cost: StepCost = {
      inputsMilli: 0,
      purchaseMilli,
      labourMilli,
      energyMilli,
      creditMilli: 0,
      outputs: new Map(),
      soldMilli: 0,
      lostMilli: 0,
    };
    const pool = new Map<string, number>();
    for (const posting of step.postings) {
      if (posting.holdingId !== null && isOut(posting)) cost.inputsMilli += this.take(posting, pool, takings);
    }
    const made = step.postings.filter((p) => p.holdingId !== null && isIn(p));
    for (const posting of made) {
      const credit = byProductCredit?.get(posting.holdingId ?? '') ?? 0;
      if (credit === 0) continue;
      cost.creditMilli += credit;
      this.give(posting, credit, pool, cost);
    }
    const good = made.filter((p) => !isByProduct(this.book.holding(p.holdingId ?? '').kind));
    for (const posting of made) {
      if (!good.includes(posting) && !byProductCredit?.get(posting.holdingId ?? '')) this.give(posting, 0, pool, cost);
    }
    // What comes back from a buyer is worth again what it was: it counts as sold no more.
    const cameBack = step.postings.some((p) => p.outside === 'customer' && p.massMg < 0)
      ? good.reduce((sum, p) => sum + Math.round(this.state(p.holdingId ?? '').unitMilli * p.massMg), 0)
      : 0;
    cost.soldMilli = 0 - cameBack;
    const toShare = cost.inputsMilli + cameBack + purchaseMilli + labourMilli + energyMilli - cost.creditMilli;
    if (good.length > 0) {
      const byMass = good.some((p) => p.massMg > 0);
      const parts = apportion(
        toShare,
        good.map((p) => (byMass ? p.massMg : p.pieces)),
      );
      good.forEach((posting, index) => this.give(posting, parts[index] ?? 0, pool, cost));
    } else if (step.postings.some((p) => p.outside === 'customer')) cost.soldMilli += toShare;
    else cost.lostMilli = toShare;
    this.costs.set(step.id, cost);
    this.totals.boughtMilli += purchaseMilli;
    this.totals.labourMilli += labourMilli;
    this.totals.energyMilli += energyMilli;
    this.totals.soldMilli += cost.soldMilli;
    this.totals.lostMilli += cost.lostMilli;
    this.totals.revenueMilli += revenueMilli;
  }

  /**
   * Takes value and make-up out of a holding in proportion to what leaves it; the last gram takes all.
   * A by-product holds just what it will fetch, so a sale takes its own takings and anything else nothing.
   */
  private take(posting: Posting, pool: Map<string, number>, takings?: PerHolding): number {
    const holdingId = posting.holdingId ?? '';
    const state = this.state(holdingId);
    const byMass = state.massMg > 0;
    const share = byMass ? -posting.massMg / state.massMg : state.pieces > 0 ? -posting.pieces / state.pieces : 1;
    const value = isByProduct(this.book.holding(holdingId).kind)
      ? (takings?.get(holdingId) ?? 0)
      : share >= 1
        ? state.valueMilli
        : Math.round(state.valueMilli * share);
    state.valueMilli -= value;
    state.massMg += posting.massMg;
    state.pieces += posting.pieces;
    for (const [root, part] of state.makeUp) pool.set(root, (pool.get(root) ?? 0) - part * posting.massMg);
    return value;
  }

  private give(posting: Posting, valueMilli: number, pool: ReadonlyMap<string, number>, cost: StepCost): void {
    const holdingId = posting.holdingId ?? '';
    const state = this.state(holdingId);
    const massBefore = state.massMg;
    state.massMg += posting.massMg;
    state.pieces += posting.pieces;
    state.valueMilli += valueMilli;
    cost.outputs.set(holdingId, (cost.outputs.get(holdingId) ?? 0) + valueMilli);
    const amount = state.massMg > 0 ? state.massMg : state.pieces;
    if (amount > 0) state.unitMilli = state.valueMilli / amount;
    if (posting.massMg > 0) mix(state.makeUp, massBefore, pool, posting.massMg, holdingId);
  }
}

const NO_TOTALS: Totals = {
  boughtMilli: 0,
  labourMilli: 0,
  energyMilli: 0,
  soldMilli: 0,
  lostMilli: 0,
  revenueMilli: 0,
};

const isIn = (p: Posting): boolean => p.massMg > 0 || (p.massMg === 0 && p.pieces > 0);

/** Blends `addedMg` of the pool into what is there; without a pool the holding is a root of itself. */
function mix(
  makeUp: Map<string, number>,
  massBefore: number,
  pool: ReadonlyMap<string, number>,
  addedMg: number,
  self: string,
): void {
  let poolMass = 0;
  for (const part of pool.values()) poolMass += part;
  const total = massBefore + addedMg;
  // Grams that a count finds are of what was there.
  if (poolMass <= 0 && makeUp.size > 0) return;
  if (massBefore <= 0) makeUp.clear();
  else for (const [root, part] of makeUp) makeUp.set(root, (part * massBefore) / total);
  if (poolMass <= 0) makeUp.set(self, (makeUp.get(self) ?? 0) + addedMg / total);
  else
    for (const [root, part] of pool) {
      makeUp.set(root, (makeUp.get(root) ?? 0) + (part / poolMass) * (addedMg / total));
    }
}

const sameSales = (now: readonly string[], known: readonly string[]): boolean =>
  now.length === known.length && now.every((id, i) => id === known[i]);
