import { silentAbout, type Balance, type Entry, type Past } from '@wunsch/core/ledger/book';
import { notedIn } from '@wunsch/core/ledger/noted';
import { plainStep } from '@wunsch/core/ledger/plain-step';
import type { Posting, Step, StepMoney } from '@wunsch/core/ledger/types';
import { columnSections, Growing, openColumns, type Columns } from './columns';
import type { Sections } from './sections';
import type { Texts } from './texts';
import type { Words } from './words';

/*
 * Steps as they are kept once they are old. What is asked of many at a time (when, who, what it moved, what it cost)
 * stands in columns of numbers; what was entered is text in a file, and read when it is asked for. A step of these looks
 * like any other.
 */

/** `textEnd` says where its text ends, `…End` where its rows in the other columns do. */
const STEP = {
  seq: 'u32',
  order: 'u32',
  at: 'f64',
  recordedAt: 'f64',
  kind: 'u32',
  station: 'u32',
  person: 'u32',
  batch: 'u32',
  machine: 'u32',
  /** Row of the step that it took the place of, plus one; 0: none. */
  supersedes: 'u32',
  flags: 'u8',
  minutes: 'f64',
  energy: 'f64',
  purchase: 'f64',
  labour: 'f64',
  power: 'f64',
  revenue: 'f64',
  about: 'u32',
  textEnd: 'u32',
  postingEnd: 'u32',
  slotEnd: 'u32',
  takingEnd: 'u32',
} as const;
const POSTING = { holding: 'u32', account: 'u32', mass: 'f64', pieces: 'f64' } as const;
const SLOT = { name: 'u32', holding: 'u32' } as const;
const TAKING = { holding: 'u32', milli: 'f64' } as const;

/** Texts that are kept as they were read. */
const READ = 3000;

const WITHDRAWN = 1;
const HAS_TAKINGS = 2;
const HAS_REASON = 4;
const HAS_OVERRIDES = 8;
const QUIET = 16;

/** What of a step is text. */
type Rest = Pick<Step, 'command' | 'reason' | 'overrides'>;

interface Tables {
  steps: Columns<typeof STEP>;
  postings: Columns<typeof POSTING>;
  slots: Columns<typeof SLOT>;
  takings: Columns<typeof TAKING>;
}

const ends = (column: Uint32Array, row: number): [from: number, to: number] => [
  row === 0 ? 0 : (column[row - 1] ?? 0),
  column[row] ?? 0,
];

/** A step of the past. */
export class SealedStep implements Step {
  /** Not to be taken along where a step is spread. */
  readonly #all: SealedSteps;

  constructor(
    all: SealedSteps,
    readonly row: number,
    readonly id: string,
  ) {
    this.#all = all;
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
    const row = this.columns.supersedes[this.row] ?? 0;
    return row === 0 ? null : (this.#all.steps[row - 1]?.id ?? null);
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
    return this.columns.minutes[this.row] ?? 0;
  }

  get energyKwh(): number {
    return this.columns.energy[this.row] ?? 0;
  }

  get money(): StepMoney {
    const { purchase, labour, power, revenue } = this.columns;
    return {
      purchaseMilli: purchase[this.row] ?? 0,
      labourMilli: labour[this.row] ?? 0,
      energyMilli: power[this.row] ?? 0,
      revenueMilli: revenue[this.row] ?? 0,
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

type Account = Pick<Posting, 'loss' | 'outside' | 'reason'>;

/** All steps of the past, as the book takes them in. */
export class SealedSteps implements Past {
  readonly steps: SealedStep[];
  readonly inForce: SealedStep[] = [];
  private readonly accounts = new Map<number, Account>();
  /** What was read lately: it is asked for again. */
  private readonly read = new Map<number, Rest>();
  /** Rows that moved something in a holding, in the order of the work, from `entryStart` of its number to that of the next. */
  private readonly entryStart: Uint32Array;
  private readonly entryRows: Uint32Array;

  constructor(
    readonly words: Words,
    readonly tables: Tables,
    ids: readonly string[],
    private readonly texts: Texts,
  ) {
    this.steps = ids.map((id, row) => new SealedStep(this, row, id));
    const { supersedes, flags, at, order } = tables.steps;
    const replaced = new Uint8Array(ids.length);
    for (const row of supersedes) if (row > 0) replaced[row - 1] = 1;
    const rows: number[] = [];
    for (let row = 0; row < ids.length; row += 1)
      if (!replaced[row] && ((flags[row] ?? 0) & WITHDRAWN) === 0) rows.push(row);
    rows.sort((a, b) => (at[a] ?? 0) - (at[b] ?? 0) || (order[a] ?? 0) - (order[b] ?? 0));
    for (const row of rows) {
      const step = this.steps[row];
      if (step) this.inForce.push(step);
    }
    [this.entryStart, this.entryRows] = this.entries(rows);
  }

  private entries(rows: readonly number[]): [start: Uint32Array, rows: Uint32Array] {
    const { postingEnd } = this.tables.steps;
    const { holding } = this.tables.postings;
    const count = this.words.texts.length;
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
      sum.massMg += mass[i] ?? 0;
      sum.pieces += pieces[i] ?? 0;
    }
    return sum;
  }

  entriesOf(holdingId: string): Entry[] {
    const holding = this.words.find(holdingId);
    if (holding === undefined) return [];
    const rows = this.entryRows.subarray(this.entryStart[holding], this.entryStart[holding + 1]);
    return Array.from(rows, (row): Entry => {
      const { at, order, kind, id } = this.steps[row] as SealedStep;
      return { at, order, stepId: id, kind, ...this.moved(row, holding) };
    });
  }

  get balances(): Iterable<readonly [string, Balance]> {
    const { mass, pieces, holding } = this.tables.postings;
    const { postingEnd } = this.tables.steps;
    const sums: Balance[] = [];
    for (const { row } of this.inForce) {
      const to = postingEnd[row] ?? 0;
      for (let i = row === 0 ? 0 : (postingEnd[row - 1] ?? 0); i < to; i += 1) {
        const number = holding[i] ?? 0;
        if (number === 0) continue;
        const sum = (sums[number] ??= { massMg: 0, pieces: 0 });
        sum.massMg += mass[i] ?? 0;
        sum.pieces += pieces[i] ?? 0;
      }
    }
    return sums.flatMap((sum, number) => [[this.words.text(number) ?? '', sum] as const]);
  }

  get silent(): Iterable<readonly [string, Step]> {
    return this.everySilent();
  }

  private *everySilent(): Generator<readonly [string, Step]> {
    for (const step of this.inForce) {
      const about = this.words.text(this.tables.steps.about[step.row] ?? 0);
      if (about !== null) yield [about, step];
    }
  }

  postingsOf(row: number): Posting[] {
    const { holding, account, mass, pieces } = this.tables.postings;
    const [from, to] = ends(this.tables.steps.postingEnd, row);
    const postings: Posting[] = [];
    for (let i = from; i < to; i += 1) {
      const { loss, outside, reason } = this.account(account[i] ?? 0);
      const holdingId = this.words.text(holding[i] ?? 0);
      postings.push({ holdingId, loss, outside, reason, massMg: mass[i] ?? 0, pieces: pieces[i] ?? 0 });
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
    for (let i = from; i < to; i += 1) takings[this.words.text(holding[i] ?? 0) ?? ''] = milli[i] ?? 0;
    return takings;
  }

  restOf(row: number): Rest {
    let rest = this.read.get(row);
    if (rest) {
      // Asked for last is let go of last.
      this.read.delete(row);
    } else {
      rest = JSON.parse(this.texts(...ends(this.tables.steps.textEnd, row))) as Rest;
      for (const oldest of this.read.keys()) {
        if (this.read.size < READ) break;
        this.read.delete(oldest);
      }
    }
    this.read.set(row, rest);
    return rest;
  }
}

const accountText = ({ loss, outside, reason }: Account): string | null =>
  loss === null && outside === null && reason === null ? null : JSON.stringify([loss, outside, reason]);

/** The steps of a checkpoint. @throws Error where it is no whole one */
export const openSteps = (words: Words, ids: readonly string[], sections: Sections, texts: Texts): SealedSteps =>
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

/**
 * Steps as the sections of a checkpoint: those that were sealed before as they are, and others behind them.
 *
 * @param words grows by what the others say
 * @param fresh in the order of recording, each after every one that was sealed
 * @param rowOf the row of a step, among all of them in that order
 * @returns the columns of all, and the texts of the others
 */
export function sealSteps(
  words: Words,
  before: SealedSteps | null,
  fresh: readonly Step[],
  rowOf: (stepId: string) => number,
): { sections: Sections; texts: Uint8Array } {
  const old = before?.tables ?? null;
  const steps = new Growing(STEP, old?.steps ?? null);
  const postings = new Growing(POSTING, old?.postings ?? null);
  const slots = new Growing(SLOT, old?.slots ?? null);
  const takings = new Growing(TAKING, old?.takings ?? null);
  const texts: Buffer[] = [];
  let textEnd = old?.steps.textEnd.at(-1) ?? 0;
  for (const step of fresh) {
    const { money, overrides } = step;
    for (const posting of step.postings)
      postings.add({
        holding: words.number(posting.holdingId),
        account: words.number(accountText(posting)),
        mass: posting.massMg,
        pieces: posting.pieces,
      });
    for (const [name, holdingId] of Object.entries(step.slots))
      slots.add({ name: words.number(name), holding: words.number(holdingId) });
    for (const [holdingId, milli] of Object.entries(money.takingsMilli ?? {}))
      takings.add({ holding: words.number(holdingId), milli });
    const rest: Rest = {
      command: step.command,
      reason: step.reason,
      ...(overrides === undefined ? {} : { overrides }),
    };
    const text = Buffer.from(JSON.stringify(rest));
    texts.push(text);
    textEnd += text.length;
    steps.add({
      seq: step.seq,
      order: step.order,
      at: step.at,
      recordedAt: step.recordedAt,
      kind: words.number(step.kind),
      station: words.number(step.station),
      person: words.number(step.personId),
      batch: words.number(step.batchId),
      machine: words.number(step.machineId),
      supersedes: step.supersedes === null ? 0 : rowOf(step.supersedes) + 1,
      flags:
        (step.withdrawn ? WITHDRAWN : 0) |
        (money.takingsMilli ? HAS_TAKINGS : 0) |
        (step.reason === null ? 0 : HAS_REASON) |
        (overrides === undefined ? 0 : HAS_OVERRIDES) |
        (notedIn(step) === '' ? QUIET : 0),
      minutes: step.minutes,
      energy: step.energyKwh,
      purchase: money.purchaseMilli,
      labour: money.labourMilli,
      power: money.energyMilli,
      revenue: money.revenueMilli,
      about: words.number(silentAbout(step)),
      textEnd,
      postingEnd: postings.length,
      slotEnd: slots.length,
      takingEnd: takings.length,
    });
  }
  const sections = {
    ...columnSections('step', steps.whole()),
    ...columnSections('posting', postings.whole()),
    ...columnSections('slot', slots.whole()),
    ...columnSections('taking', takings.whole()),
  };
  return { sections, texts: Buffer.concat(texts) };
}
