import { Follower } from '@wunsch/core/ledger/follower';
import type { HistoryPoint } from '@wunsch/core/api/types';
import type { Step, StepKind } from '@wunsch/core/ledger/types';
import { stepYield } from '@wunsch/core/ledger/yields';
import { YIELDS } from '@wunsch/core/stations';
import type { Workshop } from '../journal/workshop';

export interface IndexedYield extends HistoryPoint {
  kind: StepKind;
  /** The lot that most of it is. */
  lotId: string | null;
  /** Place in the order of the work. */
  index: number;
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
    const made = step.slots['good'] ?? step.batchId;
    if (!point || made === null) return;
    const { lotId, ...named } = this.familyOf(made);
    // One text for all of a family: each that is made up anew would be kept.
    const family = this.byFamily.get(`${step.kind} ${named.family}`)?.[0]?.family ?? named.family;
    const { stepId, at, inMg, goodMg, value } = point;
    // Named one by one: with a spread each of many would get a shape of its own, which takes more room than it.
    const row: IndexedYield = {
      stepId,
      at,
      inMg,
      goodMg,
      value,
      kind: step.kind,
      lotId,
      family,
      index,
      code: this.workshop.book.holdings.get(made)?.code ?? '',
    };
    push(this.byKind, step.kind, row);
    push(this.byFamily, `${step.kind} ${family}`, row);
    if (lotId !== null) push(this.byLot, `${step.kind} ${lotId}`, row);
  }
}

const NONE: readonly IndexedYield[] = [];

/** Steps whose yield somebody asks for. */
const KINDS = new Set<StepKind>(YIELDS.map(({ step }) => step));

function push<K>(map: Map<K, IndexedYield[]>, key: K, row: IndexedYield): void {
  const list = map.get(key);
  if (list) list.push(row);
  else map.set(key, [row]);
}
