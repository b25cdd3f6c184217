import type { Balance, Entry, Past } from '@wunsch/core/ledger/entries';
import { plainStep } from '@wunsch/core/ledger/plain-step';
import type { Posting, Step, StepMoney } from '@wunsch/core/ledger/types';
import { ends, openColumns, type Columns } from './columns';
import { Lately } from '../store/lately';
import type { Packed } from './packed';
import type { Sections } from './sections';
import {
  HAS_OVERRIDES,
  HAS_REASON,
  HAS_TAKINGS,
  POSTING,
  QUIET,
  SLOT,
  STEP,
  TAKING,
  WITHDRAWN,
  type Account,
  type Rest,
  type StepTables,
} from './step-columns';
import type { Texts } from './texts';
import type { Words } from './words';

/*
 * Steps as they are kept once they are old. What is asked of many at a time (when, who, what it moved, what it cost)
 * stands in columns of numbers; what was entered is text in a file, and read when it is asked for. A step of these looks
 * like any other.
 */

/** Texts that are kept as they were read. */
const READ = 3000;

/** So many of the newest steps, a week's at least, keep what they moved as it was read: the floor asks for it each time. */
const POSTED = 3000;

/** A step of the past. */
export class SealedStep implements Step {
  /** Not to be taken along where a step is spread. */
  readonly #all: SealedSteps;

  constructor(
    all: SealedSteps,
    readonly row: number,
  ) {
    this.#all = all;
  }

  get id(): string {
    return this.#all.idOf(this.row);
  }

  private get columns(): Columns<typeof STEP> {
    return this.#all.tables.steps;
  }

  private word(column: 'kind' | 'station' | 'person' | 'batch' | 'machine'): string | null {
    return this.#all.words.text(this.columns[column][this.row] ?? 0);
  }

  get seq(): number {
    return this.columns.seq[this.row] ?? 0;
  }

  get order(): number {
    return this.columns.order[this.row] ?? 0;
  }

  get kind(): Step['kind'] {
    return this.word('kind') as Step['kind'];
  }

  get station(): Step['station'] {
    return this.word('station') as Step['station'];
  }

  get at(): number {
    return this.columns.at[this.row] ?? 0;
  }

  get recordedAt(): number {
    return this.columns.recordedAt[this.row] ?? 0;
  }

  get personId(): string {
    return this.word('person') ?? '';
  }

  get batchId(): string | null {
    return this.word('batch');
  }

  get machineId(): string | null {
    return this.word('machine');
  }

  get supersedes(): string | null {
    const row = this.columns.supersedes.at(this.row);
    return row === 0 ? null : this.#all.idOf(row - 1);
  }

  private has(flag: number): boolean {
    return ((this.columns.flags[this.row] ?? 0) & flag) !== 0;
  }

  get withdrawn(): boolean {
    return this.has(WITHDRAWN);
  }

  get quiet(): boolean {
    return this.has(QUIET);
  }

  get minutes(): number {
    return this.columns.minutes.at(this.row);
  }

  get energyKwh(): number {
    return this.columns.energy.at(this.row);
  }

  get money(): StepMoney {
    const { purchase, labour, power, revenue } = this.columns;
    return {
      purchaseMilli: purchase.at(this.row),
      labourMilli: labour.at(this.row),
      energyMilli: power.at(this.row),
      revenueMilli: revenue.at(this.row),
      ...(this.has(HAS_TAKINGS) ? { takingsMilli: this.#all.takingsOf(this.row) } : {}),
    };
  }

  get postings(): Posting[] {
    return this.#all.postingsOf(this.row);
  }

  get slots(): Record<string, string> {
    return this.#all.slotsOf(this.row);
  }

  get command(): unknown {
    return this.#all.restOf(this.row).command;
  }

  get reason(): string | null {
    return this.has(HAS_REASON) ? this.#all.restOf(this.row).reason : null;
  }

  get overrides(): Step['overrides'] {
    return this.has(HAS_OVERRIDES) ? this.#all.restOf(this.row).overrides : undefined;
  }

  toJSON(): Step {
    return plainStep(this);
  }
}

/** All steps of the past, as the book takes them in. */
export class SealedSteps implements Past {
  readonly inForce: Uint32Array;
  private readonly accounts = new Map<number, Account>();
  /** What was read lately: it is asked for again. */
  private readonly read = new Lately<number, Rest>(READ);
  private readonly posted = new Map<number, Posting[]>();
  /** Rows that moved something in a holding, in the order of the work, from `entryStart` of its number to that of the next. */
  private readonly entryStart: Uint32Array;
  private readonly entryRows: Uint32Array;

  constructor(
    readonly words: Words,
    readonly tables: StepTables,
    readonly ids: Packed,
    private readonly texts: Texts,
  ) {
    const { supersedes, flags, at, order } = tables.steps;
    const replaced = new Uint8Array(ids.length);
    for (const row of supersedes) if (row > 0) replaced[row - 1] = 1;
    const rows: number[] = [];
    for (let row = 0; row < ids.length; row += 1)
      if (!replaced[row] && ((flags[row] ?? 0) & WITHDRAWN) === 0) rows.push(row);
    rows.sort((a, b) => (at[a] ?? 0) - (at[b] ?? 0) || (order[a] ?? 0) - (order[b] ?? 0));
    this.inForce = Uint32Array.from(rows);
    [this.entryStart, this.entryRows] = this.entries(this.inForce);
  }

  get size(): number {
    return this.ids.length;
  }

  step(row: number): SealedStep {
    return new SealedStep(this, row);
  }

  rowOf(stepId: string): number | undefined {
    return this.ids.find(stepId);
  }

  idOf(row: number): string {
    return this.ids.text(row) ?? '';
  }

  private entries(rows: Uint32Array): [start: Uint32Array, rows: Uint32Array] {
    const { postingEnd } = this.tables.steps;
    const { holding } = this.tables.postings;
    const count = this.words.length;
    const start = new Uint32Array(count + 1);
    let next: Uint32Array | null = null;
    let list = new Uint32Array(0);
    // Counted first, then put in its place.
    for (const pass of ['count', 'place']) {
      const last = new Int32Array(count).fill(-1);
      if (pass === 'place') {
        for (let i = 1; i <= count; i += 1) start[i] = (start[i] ?? 0) + (start[i - 1] ?? 0);
        next = start.slice();
        list = new Uint32Array(start[count] ?? 0);
      }
      for (const row of rows) {
        const to = postingEnd[row] ?? 0;
        for (let i = row === 0 ? 0 : (postingEnd[row - 1] ?? 0); i < to; i += 1) {
          const number = holding[i] ?? 0;
          // A step may name one holding twice.
          if (number === 0 || last[number] === row) continue;
          last[number] = row;
          if (next === null) start[number + 1] = (start[number + 1] ?? 0) + 1;
          else {
            const at = next[number] ?? 0;
            list[at] = row;
            next[number] = at + 1;
          }
        }
      }
    }
    return [start, list];
  }

  private moved(row: number, holding: number): Balance {
    const { holding: holdings, mass, pieces } = this.tables.postings;
    const [from, to] = ends(this.tables.steps.postingEnd, row);
    const sum = { massMg: 0, pieces: 0 };
    for (let i = from; i < to; i += 1) {
      if (holdings[i] !== holding) continue;
      sum.massMg += mass.at(i);
      sum.pieces += pieces.at(i);
    }
    return sum;
  }

  entriesOf(holdingId: string): Entry[] {
    const holding = this.words.find(holdingId);
    if (holding === undefined) return [];
    const rows = this.entryRows.subarray(this.entryStart[holding], this.entryStart[holding + 1]);
    return Array.from(rows, (row): Entry => {
      const { at, order, kind, id } = this.step(row);
      return { at, order, stepId: id, kind, ...this.moved(row, holding) };
    });
  }

  *balances(): Generator<readonly [string, Balance]> {
    const { mass, pieces, holding } = this.tables.postings;
    const { postingEnd } = this.tables.steps;
    const [masses, counts] = [new Float64Array(this.words.length), new Float64Array(this.words.length)];
    for (const row of this.inForce) {
      const [from, to] = ends(postingEnd, row);
      for (let i = from; i < to; i += 1) {
        const number = holding[i] ?? 0;
        masses[number] = (masses[number] ?? 0) + mass.at(i);
        counts[number] = (counts[number] ?? 0) + pieces.at(i);
      }
    }
    for (let number = 1; number < masses.length; number += 1) {
      const sum = { massMg: masses[number] ?? 0, pieces: counts[number] ?? 0 };
      if (sum.massMg !== 0 || sum.pieces !== 0) yield [this.words.text(number) ?? '', sum];
    }
  }

  *successors(): Generator<readonly [string, string]> {
    const { supersedes } = this.tables.steps;
    for (let row = 0; row < this.size; row += 1) {
      const old = supersedes.at(row);
      if (old > 0) yield [this.idOf(old - 1), this.idOf(row)];
    }
  }

  *silent(): Generator<readonly [string, string]> {
    const { about } = this.tables.steps;
    for (const row of this.inForce) {
      const holdingId = this.words.text(about.at(row));
      if (holdingId !== null) yield [holdingId, this.idOf(row)];
    }
  }

  postingsOf(row: number): Posting[] {
    if (row < this.size - POSTED) return this.readPostings(row);
    let postings = this.posted.get(row);
    if (!postings) this.posted.set(row, (postings = this.readPostings(row)));
    return postings;
  }

  private readPostings(row: number): Posting[] {
    const { holding, account, mass, pieces } = this.tables.postings;
    const [from, to] = ends(this.tables.steps.postingEnd, row);
    const postings: Posting[] = [];
    for (let i = from; i < to; i += 1) {
      const { loss, outside, reason } = this.account(account[i] ?? 0);
      const holdingId = this.words.text(holding[i] ?? 0);
      postings.push({ holdingId, loss, outside, reason, massMg: mass.at(i), pieces: pieces.at(i) });
    }
    return postings;
  }

  private account(number: number): Account {
    let account = this.accounts.get(number);
    if (!account) {
      const [loss, outside, reason] = JSON.parse(this.words.text(number) ?? '[null,null,null]') as [
        Account['loss'],
        Account['outside'],
        string | null,
      ];
      this.accounts.set(number, (account = { loss, outside, reason }));
    }
    return account;
  }

  slotsOf(row: number): Record<string, string> {
    const { name, holding } = this.tables.slots;
    const [from, to] = ends(this.tables.steps.slotEnd, row);
    const slots: Record<string, string> = {};
    for (let i = from; i < to; i += 1)
      slots[this.words.text(name[i] ?? 0) ?? ''] = this.words.text(holding[i] ?? 0) ?? '';
    return slots;
  }

  takingsOf(row: number): Record<string, number> {
    const { holding, milli } = this.tables.takings;
    const [from, to] = ends(this.tables.steps.takingEnd, row);
    // Keys that come once each: an ordinary object would get a shape of its own each time.
    const takings = Object.create(null) as Record<string, number>;
    for (let i = from; i < to; i += 1) takings[this.words.text(holding[i] ?? 0) ?? ''] = milli.at(i);
    return takings;
  }

  restOf(row: number): Rest {
    const known = this.read.get(row);
    if (known) return known;
    const rest = JSON.parse(this.texts(...ends(this.tables.steps.textEnd, row))) as Rest;
    this.read.set(row, rest);
    return rest;
  }
}

/** The steps of a checkpoint. @throws Error where it is no whole one */
export const openSteps = (words: Words, ids: Packed, sections: Sections, texts: Texts): SealedSteps =>
  new SealedSteps(
    words,
    {
      steps: openColumns('step', STEP, sections),
      postings: openColumns('posting', POSTING, sections),
      slots: openColumns('slot', SLOT, sections),
      takings: openColumns('taking', TAKING, sections),
    },
    ids,
    texts,
  );
