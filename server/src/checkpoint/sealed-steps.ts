import type { Balance, Entry, Past } from '@wunsch/core/ledger/entries';
import { plainStep } from '@wunsch/core/ledger/plain-step';
import type { Posting, Step, StepMoney } from '@wunsch/core/ledger/types';
import { ends, openColumns, type Columns } from './columns';
import { Lately } from '../store/lately';
import { inForce, openMoved, type Moved } from './moved';
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
    return this.#all.words.text(this.columns[column].at(this.row) ?? 0);
  }

  get seq(): number {
    return this.columns.seq.at(this.row);
  }

  get order(): number {
    return this.columns.order.at(this.row);
  }

  get kind(): Step['kind'] {
    return this.word('kind') as Step['kind'];
  }

  get station(): Step['station'] {
    return this.word('station') as Step['station'];
  }

  get at(): number {
    return this.columns.at.at(this.row);
  }

  get recordedAt(): number {
    return this.columns.recordedAt.at(this.row);
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

/** What a step of the past moved in a holding. Thousands are kept of what is taken from for years. */
class SealedEntry implements Entry {
  /** Not to be taken along where an entry is spread. */
  readonly #all: SealedSteps;
  readonly #row: number;

  constructor(
    all: SealedSteps,
    row: number,
    readonly massMg: number,
    readonly pieces: number,
  ) {
    this.#all = all;
    this.#row = row;
  }

  get at(): number {
    return this.#all.tables.steps.at.at(this.#row);
  }

  get order(): number {
    return this.#all.tables.steps.order.at(this.#row);
  }

  get stepId(): string {
    return this.#all.idOf(this.#row);
  }

  get kind(): Step['kind'] {
    return this.#all.step(this.#row).kind;
  }
}

/** All steps of the past, as the book takes them in. */
export class SealedSteps implements Past {
  private readonly accounts = new Map<number, Account>();
  /** What was read lately: it is asked for again. */
  private readonly read = new Lately<number, Rest>(READ);
  private readonly posted = new Map<number, Posting[]>();

  constructor(
    readonly words: Words,
    readonly tables: StepTables,
    readonly ids: Packed,
    private readonly moves: Moved,
    private readonly texts: Texts,
  ) {}

  get inForce(): Uint32Array {
    return this.moves.inForce;
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
    const holding = this.words.find(holdingId) ?? Infinity;
    return Array.from(this.rowsIn(holding), (row) => this.entry(row, holding));
  }

  firstEntry(holdingId: string): Entry | undefined {
    const holding = this.words.find(holdingId) ?? Infinity;
    const [row] = this.rowsIn(holding);
    return row === undefined ? undefined : this.entry(row, holding);
  }

  /** Rows of steps that moved something in a holding, in the order of the work. */
  private rowsIn(holding: number): Uint32Array {
    const { entryRows, entryStart } = this.moves;
    // Words that came later are no holdings of these.
    return holding + 1 < entryStart.length
      ? entryRows.subarray(entryStart[holding], entryStart[holding + 1])
      : entryRows.subarray(0, 0);
  }

  private entry(row: number, holding: number): Entry {
    const { massMg, pieces } = this.moved(row, holding);
    return new SealedEntry(this, row, massMg, pieces);
  }

  *balances(): Generator<readonly [string, Balance]> {
    const { holding, mass, pieces } = this.moves;
    for (const [i, number] of holding.entries())
      yield [this.words.text(number) ?? '', { massMg: mass[i] ?? 0, pieces: pieces[i] ?? 0 }];
  }

  *successors(): Generator<readonly [string, string]> {
    for (const [row, old] of this.tables.steps.supersedes.entries()) yield [this.idOf(old - 1), this.idOf(row)];
  }

  *silent(): Generator<readonly [string, string]> {
    const { steps } = this.tables;
    const isInForce = inForce(steps);
    for (const [row, number] of steps.about.entries())
      if (isInForce(row)) yield [this.words.text(number) ?? '', this.idOf(row)];
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
      const { loss, outside, reason } = this.account(account.at(i));
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
      slots[this.words.text(name.at(i)) ?? ''] = this.words.text(holding[i] ?? 0) ?? '';
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
    openMoved(sections),
    texts,
  );
