import { Follower, type Lasting, type Settled } from '@wunsch/core/ledger/follower';
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

/** Rows of many keys, in two layers: those that are settled, and those that can be let go of. */
class Rows {
  private settled = new Map<string, IndexedYield[]>();
  private loose: Map<string, IndexedYield[]> | null = null;
  /** Both, of what was asked for. */
  private readonly both = new Map<string, readonly IndexedYield[]>();

  push(key: string, row: IndexedYield): void {
    this.listOf(key).push(row);
    this.both.delete(key);
  }

  /** The list that rows of a key are added to now. */
  listOf(key: string): IndexedYield[] {
    const layer = this.loose ?? this.settled;
    let rows = layer.get(key);
    if (!rows) layer.set(key, (rows = []));
    return rows;
  }

  /** @returns the same list until one is added or let go of */
  of(key: string): readonly IndexedYield[] {
    const settled = this.settled.get(key) ?? NONE;
    const loose = this.loose?.get(key) ?? NONE;
    let both = this.both.get(key);
    if (!both) this.both.set(key, (both = [...settled, ...loose]));
    return both;
  }

  settle(): void {
    this.loose = new Map();
  }

  back(): void {
    for (const key of this.loose?.keys() ?? []) this.both.delete(key);
    this.loose = null;
  }

  begin(): void {
    this.settled = new Map();
    this.both.clear();
    this.loose = null;
  }

  get past(): ReadonlyMap<string, readonly IndexedYield[]> {
    return this.settled;
  }
}

/** What is settled of yields: one number of each for each row, in the order of the work. */
interface Past {
  kinds: StepKind[];
  lots: string[];
  families: string[];
  rows: {
    kind: Uint8Array;
    place: Uint32Array;
    inMg: Float64Array;
    goodMg: Float64Array;
    lot: Int32Array;
    family: Uint32Array;
  };
}

/** Yields of all steps, by kind and family and by kind and lot, in the order of the work: kept up to date with the book. */
export class YieldIndex implements Lasting {
  private readonly byFamily = new Rows();
  private readonly byLot = new Rows();
  private readonly byKind = new Rows();
  private readonly all: readonly Rows[] = [this.byFamily, this.byLot, this.byKind];
  /** One text for all of a family: each that is made up anew would be kept. */
  private readonly families = new Map<string, string>();
  /** Can be caught up ahead of the first question. */
  readonly follower: Follower;

  constructor(
    private readonly workshop: Workshop,
    private readonly familyOf: (holdingId: string) => { lotId: string | null; family: string },
  ) {
    const each = (work: (rows: Rows) => void) => () => this.all.forEach(work);
    this.follower = new Follower({
      book: () => workshop.book,
      begin: each((rows) => rows.begin()),
      take: (step, _book, place) => this.add(step, place),
      layers: { settle: each((rows) => rows.settle()), back: each((rows) => rows.back()) },
    });
  }

  ofFamily(kind: StepKind, family: string): readonly IndexedYield[] {
    this.follower.catchUp();
    return this.byFamily.of(`${kind} ${family}`);
  }

  ofLot(kind: StepKind, lotId: string): readonly IndexedYield[] {
    this.follower.catchUp();
    return this.byLot.of(`${kind} ${lotId}`);
  }

  of(kind: StepKind): readonly IndexedYield[] {
    this.follower.catchUp();
    return this.byKind.of(kind);
  }

  private add(step: Step, index: number): void {
    if (!KINDS.has(step.kind)) return;
    const point = stepYield(this.workshop.book, step);
    const made = madeBy(step);
    if (!point || made === null) return;
    const { lotId, family } = this.familyOf(made);
    this.push(step.kind, new IndexedYield(this.workshop, index, point.inMg, point.goodMg, lotId, this.known(family)));
  }

  private known(family: string): string {
    const known = this.families.get(family);
    if (known === undefined) this.families.set(family, family);
    return known ?? family;
  }

  private push(kind: StepKind, row: IndexedYield): void {
    this.byKind.push(kind, row);
    this.byFamily.push(`${kind} ${row.family}`, row);
    if (row.lotId !== null) this.byLot.push(`${kind} ${row.lotId}`, row);
  }

  past(): Past {
    const rows = [...this.byKind.past].flatMap(([kind, own]) => own.map((row) => ({ kind: kind as StepKind, row })));
    const kinds = [...KINDS];
    const lots = [...new Set(rows.flatMap(({ row }) => row.lotId ?? []))];
    const families = [...new Set(rows.map(({ row }) => row.family))];
    const [lotOf, familyOf] = [numbersOf(lots), numbersOf(families)];
    return {
      kinds,
      lots,
      families,
      rows: {
        kind: Uint8Array.from(rows, ({ kind }) => kinds.indexOf(kind)),
        place: Uint32Array.from(rows, ({ row }) => row.index),
        inMg: Float64Array.from(rows, ({ row }) => row.inMg),
        goodMg: Float64Array.from(rows, ({ row }) => row.goodMg),
        lot: Int32Array.from(rows, ({ row }) => lotOf.get(row.lotId ?? '') ?? -1),
        family: Uint32Array.from(rows, ({ row }) => familyOf.get(row.family) ?? 0),
      },
    };
  }

  resume(past: unknown, settled: Settled): void {
    for (const rows of this.all) rows.begin();
    const { kinds, lots, families, rows } = past as Past;
    for (const family of families) this.known(family);
    // A key for each of so many rows would take longer than all else.
    const ofKind = kinds.map((kind) => this.byKind.listOf(kind));
    const ofFamily = kinds.map((kind) => families.map((family) => this.byFamily.listOf(`${kind} ${family}`)));
    const ofLot = kinds.map((kind) => lots.map((lotId) => this.byLot.listOf(`${kind} ${lotId}`)));
    rows.place.forEach((place, i) => {
      const [kind = 0, lot = -1, family = 0] = [rows.kind[i], rows.lot[i], rows.family[i]];
      const [inMg = 0, goodMg = 0] = [rows.inMg[i], rows.goodMg[i]];
      const row = new IndexedYield(this.workshop, place, inMg, goodMg, lots[lot] ?? null, families[family] ?? '');
      ofKind[kind]?.push(row);
      ofFamily[kind]?.[family]?.push(row);
      ofLot[kind]?.[lot]?.push(row);
    });
    this.follower.resume(settled);
  }
}

const numbersOf = (texts: readonly string[]): ReadonlyMap<string, number> =>
  new Map(texts.map((text, number) => [text, number]));

const NONE: readonly IndexedYield[] = [];

/** What a step made, or the batch that it was done to. */
const madeBy = ({ slots, batchId }: Step): string | null => slots['good'] ?? batchId;

/** Steps whose yield somebody asks for. */
const KINDS = new Set<StepKind>(YIELDS.map(({ step }) => step));
