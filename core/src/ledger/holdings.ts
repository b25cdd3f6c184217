import type { Holding } from './types';

/** Holdings that are read when somebody asks for one. They go by rows. */
export interface PastHoldings {
  /** How many there are. */
  readonly size: number;
  /** The holding of a row. */
  holding(row: number): Holding;
  /** The row of a holding; undefined where it is none of these. */
  rowOf(id: string): number | undefined;
  /** What stands on the holding of a row, and what it is. */
  codeOf(row: number): Pick<Holding, 'code' | 'kind'>;
  /** Rows whose codes begin with these capitals, in the order of the codes. */
  startingWith(capitals: string): Iterable<number>;
}

/** Of so many holdings of the past what was read is kept; it is read anew after that. */
const MOST_ASKED = 1500;

/**
 * Every holding of a book, by its id and by its code. Those of the past are no objects until somebody asks for one: the
 * same holding may be another object the next time.
 */
export class Holdings {
  private past: PastHoldings | null = null;
  /** Those that were made since the past, or said to be something else. */
  private readonly fresh = new Map<string, Holding>();
  /** Of those, ids by their codes in capitals. */
  private readonly codes = new Map<string, string>();
  private readonly asked = new Map<string, Holding>();

  /** Takes in holdings of the past, before any other. */
  begin(past: PastHoldings): void {
    this.past = past;
  }

  has(id: string): boolean {
    return this.fresh.has(id) || this.past?.rowOf(id) !== undefined;
  }

  get(id: string): Holding | undefined {
    return this.fresh.get(id) ?? this.asked.get(id) ?? this.read(id);
  }

  private read(id: string): Holding | undefined {
    const row = this.past?.rowOf(id);
    if (row === undefined) return undefined;
    if (this.asked.size >= MOST_ASKED) this.asked.clear();
    const holding = this.past?.holding(row);
    if (holding) this.asked.set(id, holding);
    return holding;
  }

  /** Upper and lower case are the same. */
  byCode(code: string): Holding | undefined {
    const capitals = code.toUpperCase();
    const fresh = this.fresh.get(this.codes.get(capitals) ?? '');
    if (fresh) return fresh;
    for (const row of this.past?.startingWith(capitals) ?? []) {
      const holding = this.past?.holding(row);
      if (holding?.code.toUpperCase() !== capitals) return undefined;
      if (!this.fresh.has(holding.id)) return holding;
    }
    return undefined;
  }

  /** Those whose codes begin like this, in upper or lower case. */
  *startingWith(beginning: string): Generator<Holding> {
    const capitals = beginning.toUpperCase();
    const exact = this.codes.get(capitals);
    if (exact !== undefined) {
      const holding = this.fresh.get(exact);
      if (holding) yield holding;
    }
    for (const row of this.past?.startingWith(capitals) ?? []) {
      const holding = this.past?.holding(row);
      if (holding && !this.fresh.has(holding.id)) yield holding;
    }
    for (const [code, id] of this.codes) {
      const holding = code !== capitals && code.startsWith(capitals) ? this.fresh.get(id) : undefined;
      if (holding) yield holding;
    }
  }

  /** Puts a holding in, or in the place of what was said of it before. */
  set(holding: Holding): void {
    this.forgetCode(holding.id);
    this.asked.delete(holding.id);
    this.fresh.set(holding.id, holding);
    this.codes.set(holding.code.toUpperCase(), holding.id);
  }

  /** Does something while more can be looked up by their ids. */
  with<T>(more: readonly Holding[], work: () => T): T {
    for (const holding of more) this.fresh.set(holding.id, holding);
    try {
      return work();
    } finally {
      for (const { id } of more) this.fresh.delete(id);
    }
  }

  /** Forgets a holding that was made since the past. */
  delete(id: string): void {
    this.forgetCode(id);
    this.fresh.delete(id);
  }

  private forgetCode(id: string): void {
    const code = this.fresh.get(id)?.code.toUpperCase();
    if (code !== undefined && this.codes.get(code) === id) this.codes.delete(code);
  }

  /** What stands on each, and what it is; those of the past as they were then. */
  *codesWithKinds(): Generator<Pick<Holding, 'code' | 'kind'>> {
    const past = this.past;
    if (past) for (let row = 0; row < past.size; row += 1) yield past.codeOf(row);
    yield* this.fresh.values();
  }

  *ids(): Generator<string> {
    for (const { id } of this.values()) yield id;
  }

  /** Those of the past first, each in the order in which it was made. */
  *values(): Generator<Holding> {
    for (let row = 0; row < (this.past?.size ?? 0); row += 1) {
      const holding = this.past?.holding(row);
      if (holding) yield this.fresh.get(holding.id) ?? holding;
    }
    for (const holding of this.fresh.values()) if (this.past?.rowOf(holding.id) === undefined) yield holding;
  }
}
