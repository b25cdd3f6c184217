import { Follower } from '@wunsch/core/ledger/follower';
import type { HistoryPoint } from '@wunsch/core/api/types';
import type { Step, StepKind } from '@wunsch/core/ledger/types';
import { stepYield } from '@wunsch/core/ledger/yields';
import { YIELDS } from '@wunsch/core/stations';
import type { Workshop } from '../journal/workshop';

/**
 * One step's yield. There are as many of them as were ever worked: what is read of the step only where somebody asks for it
 * is not kept.
 */
export class IndexedYield implements HistoryPoint {
  /** Not to be taken along where one is spread. */
  readonly #workshop: Workshop;

  constructor(
    workshop: Workshop,
    /** Place in the order of the work. */
    readonly index: number,
    readonly inMg: number,
    readonly goodMg: number,
    /** The lot that most of it is. */
    readonly lotId: string | null,
    readonly family: string,
  ) {
    this.#workshop = workshop;
  }

  get step(): Step | undefined {
    return this.#workshop.book.timeline.at(this.index);
  }

  get stepId(): string {
    return this.step?.id ?? '';
  }

  get at(): number {
    return this.step?.at ?? 0;
  }

  /** Good out over in, 0 to 1. */
  get value(): number {
    return this.goodMg / this.inMg;
  }

  get code(): string {
    const made = this.step && madeBy(this.step);
    return (made && this.#workshop.book.holdings.get(made)?.code) ?? '';
  }

  /** What is sent of it. */
  toJSON(): HistoryPoint {
    const { stepId, at, inMg, goodMg, value, code, family } = this;
    return { stepId, at, inMg, goodMg, value, code, family };
  }
}

/** Yields of all steps, by kind and family and by kind and lot, in the order of the work: kept up to date with the book. */
export class YieldIndex {
  private readonly byFamily = new Map<string, IndexedYield[]>();
  private readonly byLot = new Map<string, IndexedYield[]>();
  private readonly byKind = new Map<StepKind, IndexedYield[]>();
  /** Can be caught up ahead of the first question. */
  readonly follower: Follower;

  constructor(
    private readonly workshop: Workshop,
    private readonly familyOf: (holdingId: string) => { lotId: string | null; family: string },
  ) {
    this.follower = new Follower(
      () => workshop.book,
      () => [this.byFamily, this.byLot, this.byKind].forEach((rows) => rows.clear()),
      (step, _book, place) => this.add(step, place),
      () => workshop.valuation,
    );
  }

  ofFamily(kind: StepKind, family: string): readonly IndexedYield[] {
    this.follower.catchUp();
    return this.byFamily.get(`${kind} ${family}`) ?? [];
  }

  ofLot(kind: StepKind, lotId: string): readonly IndexedYield[] {
    this.follower.catchUp();
    return this.byLot.get(`${kind} ${lotId}`) ?? [];
  }

  of(kind: StepKind): readonly IndexedYield[] {
    this.follower.catchUp();
    return this.byKind.get(kind) ?? NONE;
  }

  private add(step: Step, index: number): void {
    if (!KINDS.has(step.kind)) return;
    const point = stepYield(this.workshop.book, step);
    const made = madeBy(step);
    if (!point || made === null) return;
    const { lotId, ...named } = this.familyOf(made);
    // One text for all of a family: each that is made up anew would be kept.
    const family = this.byFamily.get(`${step.kind} ${named.family}`)?.[0]?.family ?? named.family;
    const row = new IndexedYield(this.workshop, index, point.inMg, point.goodMg, lotId, family);
    push(this.byKind, step.kind, row);
    push(this.byFamily, `${step.kind} ${family}`, row);
    if (lotId !== null) push(this.byLot, `${step.kind} ${lotId}`, row);
  }
}

const NONE: readonly IndexedYield[] = [];

/** What a step made, or the batch that it was done to. */
const madeBy = ({ slots, batchId }: Step): string | null => slots['good'] ?? batchId;

/** Steps whose yield somebody asks for. */
const KINDS = new Set<StepKind>(YIELDS.map(({ step }) => step));

function push<K>(map: Map<K, IndexedYield[]>, key: K, row: IndexedYield): void {
  const list = map.get(key);
  if (list) list.push(row);
  else map.set(key, [row]);
}
