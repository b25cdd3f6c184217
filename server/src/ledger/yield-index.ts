import type { HistoryPoint } from '@wunsch/core/api/types';
import type { Step, StepKind } from '@wunsch/core/ledger/types';
import { stepYield, YIELD_STEP } from '@wunsch/core/ledger/yields';
import type { Valuation } from '@wunsch/core/ledger/valuation';
import type { Workshop } from '../journal/workshop';

export interface IndexedYield extends HistoryPoint {
  kind: StepKind;
  /** The lot that most of it is. */
  lotId: string | null;
  /** Place in the order of the work. */
  index: number;
}

/**
 * Yields of all steps, by kind and family and by kind and lot, in the order of the work. Steps appended at the
 * end are taken in as they come; a correction or a late entry makes it begin again.
 */
export class YieldIndex {
  private byFamily = new Map<string, IndexedYield[]>();
  private byLot = new Map<string, IndexedYield[]>();
  private byKind = new Map<StepKind, IndexedYield[]>();
  private seen = 0;
  private last: string | undefined;
  private worth: Valuation | null = null;

  constructor(
    private readonly workshop: Workshop,
    private readonly familyOf: (holdingId: string) => { lotId: string | null; family: string },
  ) {}

  ofFamily(kind: StepKind, family: string): readonly IndexedYield[] {
    this.update();
    return this.byFamily.get(`${kind} ${family}`) ?? [];
  }

  ofLot(kind: StepKind, lotId: string): readonly IndexedYield[] {
    this.update();
    return this.byLot.get(`${kind} ${lotId}`) ?? [];
  }

  of(kind: StepKind): readonly IndexedYield[] {
    this.update();
    return this.byKind.get(kind) ?? NONE;
  }

  /**
   * Takes in what was entered since.
   *
   * @param until stops at that moment of the machine's clock, where it is not done by then
   * @returns whether it is done
   */
  update(until = Infinity): boolean {
    const { book, valuation } = this.workshop;
    const { timeline } = book;
    if (this.worth !== valuation || (this.seen > 0 && timeline.at(this.seen - 1)?.id !== this.last)) {
      this.byFamily = new Map();
      this.byLot = new Map();
      this.byKind = new Map();
      this.seen = 0;
      this.worth = valuation;
    }
    for (; this.seen < timeline.length; this.seen += 1) {
      if (this.seen % 64 === 0 && performance.now() > until) return false;
      const step = timeline.at(this.seen);
      if (step) this.add(step, this.seen);
      this.last = step?.id;
    }
    return true;
  }

  private add(step: Step, index: number): void {
    if (!KINDS.has(step.kind)) return;
    const point = stepYield(this.workshop.book, step);
    const made = step.slots['good'] ?? step.batchId;
    if (!point || made === null) return;
    const { lotId, family } = this.familyOf(made);
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
const KINDS = new Set<StepKind>(Object.values(YIELD_STEP));

function push<K>(map: Map<K, IndexedYield[]>, key: K, row: IndexedYield): void {
  const list = map.get(key);
  if (list) list.push(row);
  else map.set(key, [row]);
}
