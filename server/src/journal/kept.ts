import { Book } from '@wunsch/core/ledger/book';
import type { Lasting } from '@wunsch/core/ledger/follower';
import type { CodeLetter } from '@wunsch/core/ledger/planner';
import type { Valuation, WorthThen } from '@wunsch/core/ledger/valuation';
import { Worths } from '@wunsch/core/ledger/worths';
import { DEFAULT_SETTINGS } from '@wunsch/core/workshop/schemas';
import type { Checkpoint, Small, Whole } from '../checkpoint/checkpoint';
import { CurveLog } from '../store/curve-log';
import type { Store } from '../store/database';
import { firstCommit, lastStepIn, nextCommit, readCommit, writeCommit, type Commit } from '../store/commits';
import { clear, findAnswer, findClosedWork, write } from '../store/records';
import type { CurveRow } from '../store/curves';
import { readCurve, readCurves } from '../store/curves';
import type { answers } from '../store/schema';
import type { Tx } from '../store/types';
import { Lists } from './lists';
import { Damaged, readWhole } from './whole';

/** What a step takes in a checkpoint, roughly, and what is made of it much less. */
const BYTES_A_STEP = 400;
/** Commits that a start reads in no time. */
const FEW_LINES = 200;

/** What a kept workshop adds to its lists: the book, and the store that both are written to before anything is answered. */
export abstract class Kept extends Lists {
  book = new Book();
  private queue: Promise<unknown> = Promise.resolve();
  private counters = new Map<string, number>();
  /** The counters as they were at the last commit. */
  private counted = new Map<string, number>();
  protected seq = 0;
  protected worths = new Worths(this.book);
  /** What everything was worth some time ago: a valuation goes on from there. */
  private then: WorthThen | null = null;
  /** What is in the database. */
  private committed: Commit = firstCommit();
  private readonly listeners = new Set<(version: number) => void>();
  private readonly growing: CurveLog;
  private readonly failing = new Map<string, string>();
  /** Goes up with every change that screens should see. */
  version = 1;
  /** Whether a file is being read that is to take the place of everything. */
  restoring = false;

  protected constructor(
    readonly store: Store,
    now: () => number,
    /** What a start reads instead of the database, as long as it fits; null: there is none. */
    protected readonly checkpoint: Checkpoint | null,
  ) {
    super(now);
    this.growing = new CurveLog(store.db);
  }

  /** Reads everything again from the database. @throws Damaged */
  async reload(): Promise<void> {
    this.checkpoint?.drop();
    this.committed = await readCommit(this.store.db);
    this.adopt(await readWhole(this.store.db));
  }

  /** Reads everything at a start: what was kept of it, else from the database. @throws Damaged */
  protected async begin(): Promise<void> {
    this.committed = await readCommit(this.store.db);
    const kept = this.checkpoint?.read(this.committed) ?? null;
    if (kept?.seq === (await lastStepIn(this.store.db))) return this.adopt(kept);
    this.checkpoint?.drop();
    this.adopt(await readWhole(this.store.db));
    this.settle();
  }

  /** Keeps what a start reads, and goes on from it: what is old takes little room then. Only between commits. */
  settle(): void {
    if (!this.keepCheckpoint()) return;
    const kept = this.checkpoint?.read(this.committed);
    if (kept) this.adopt(kept);
  }

  /**
   * Writes down what a start reads. Only between commits.
   *
   * @returns whether it did: without it a start is slow, and nothing else
   */
  protected keepCheckpoint(): boolean {
    if (!this.checkpoint) return false;
    try {
      this.ready(2 * this.book.steps.size * BYTES_A_STEP);
      this.checkpoint.write(this.committed, this.small(), this.book, this.then);
      return true;
    } catch {
      return false;
    }
  }

  /** Lets what is made of the book go on from what the last start kept of it. @param lasting by their names */
  resume(lasting: ReadonlyMap<string, Lasting>): void {
    this.checkpoint?.resume(lasting, () => this.book);
  }

  /** Keeps what is made of the book for the next start. @throws Error where the disk takes no more */
  keepMade(lasting: ReadonlyMap<string, Lasting>): void {
    if (!this.checkpoint) return;
    this.ready(this.book.steps.size * BYTES_A_STEP);
    this.checkpoint.keep(lasting, this.committed, this.book);
  }

  /** Everything beside the book, as it is read. */
  private small(): Small {
    return {
      settings: this.settings,
      people: [...this.people.values()],
      machines: [...this.machines.values()],
      materials: [...this.materials.values()],
      routes: [...this.routes.values()],
      lots: [...this.lots].map(([id, facts]) => ({ id, facts })),
      batches: [...this.batches.values()],
      works: [...this.works.values()],
      beanRecords: [...this.beans.everything()],
      files: [...this.beans.files.values()],
      roastRecords: [...this.roasts.everything()],
      recipeRecords: [...this.recipes.everything()],
      roomRecords: [...this.records.everything()],
      curves: [...this.roasts.curves.values()],
    };
  }

  /** Takes the place of everything with what was read. */
  private adopt({ small: records, book, then, seq }: Whole): void {
    for (const map of [this.people, this.machines, this.materials, this.routes, this.lots, this.batches, this.works])
      map.clear();
    this.beans.clear();
    this.beans.files.clear();
    this.roasts.clear();
    this.roasts.clearCurves();
    this.recipes.clear();
    this.records.clear();
    this.growing.clear();
    this.counters = new Map();
    this.forgetPending();
    this.then = then;
    this.told += 1;
    this.book = book;
    this.worths = new Worths(book, then);
    this.seq = seq;
    this.settings = { ...DEFAULT_SETTINGS, ...(records.settings ?? {}) };
    // Labels carry whatever the maker printed: they are no number of the house.
    for (const { kind, code } of book.holdings.codesWithKinds()) if (kind !== 'packed') this.countCode(code);
    for (const { id, facts } of records.lots) this.lots.set(id, facts);
    for (const row of records.people) this.people.set(row.id, row);
    for (const row of records.machines) this.machines.set(row.id, row);
    for (const row of records.materials) this.materials.set(row.id, row);
    for (const row of records.routes) this.routes.set(row.id, row);
    for (const row of records.batches) this.batches.set(row.id, row);
    for (const row of records.works) this.works.set(row.id, row);
    for (const row of records.beanRecords) this.beans.add(row);
    for (const row of records.files) this.beans.files.set(row.id, row);
    for (const row of records.roastRecords) this.roasts.add(row);
    for (const row of records.recipeRecords) this.recipes.add(row);
    for (const row of records.roomRecords) this.records.add(row);
    for (const row of records.curves) this.roasts.addCurve(row);
    this.counted = new Map(this.counters);
    this.changed();
  }

  /** Runs writes one after another. */
  exclusively<T>(work: () => Promise<T>): Promise<T> {
    const turn = this.queue.then(work, work);
    this.queue = turn.catch(() => undefined);
    return turn;
  }

  /**
   * Makes sure that something can be written at all, before anything is entered.
   *
   * @param bytes how much, where it is much
   * @throws DomainError `store/disk-full`
   */
  ready(bytes?: number): void {
    this.store.disk.room(bytes);
  }

  /** Makes everything since the last commit durable in one transaction. */
  async commit(): Promise<void> {
    const { pending } = this;
    try {
      this.ready(pending.newFiles.reduce((sum, bytes) => sum + bytes.length, 0));
      for (const bytes of pending.newFiles) await this.store.files.put(bytes);
    } catch (error) {
      this.undo();
      throw error;
    }
    this.forgetPending();
    try {
      const next = nextCommit(this.committed);
      this.checkpoint?.note(next.number, pending);
      await write(this.store.db, pending, next);
      this.committed = next;
      await this.store.sync();
    } catch (error) {
      await this.reload();
      throw error;
    }
    for (const { id } of pending.curves) this.growing.forget(id);
    for (const id of pending.removedCurves) this.growing.forget(id);
    this.counted = new Map(this.counters);
    if (pending.steps.length > 0) this.store.last.keep(this.seq);
    // What was removed is gone at once; a restore that is being read has files that nothing names yet.
    if (pending.removedFiles.length > 0 && !this.restoring) await this.sweepFiles().catch(() => undefined);
    this.changed();
  }

  /** Drops what was not committed: an entry that failed half-way leaves nothing behind. */
  discard(): void {
    if (this.isDirty) this.undo();
  }

  private undo(): void {
    const first = this.pending.steps[0];
    this.takeBackPending();
    if (first) {
      this.seq = first.seq - 1;
      this.worths.drop();
    }
    this.counters = new Map(this.counted);
    this.told += 1;
    this.changed();
  }

  /**
   * Puts another workshop in the place of this one: all of it or nothing.
   *
   * @param rows writes the rows of the other one
   * @throws Damaged where what was written makes no workshop
   */
  async replace(rows: (tx: Tx) => Promise<void>): Promise<void> {
    // Whichever way this ends, what was counted before says nothing any more.
    this.store.last.keep(0);
    this.checkpoint?.drop();
    const commit = firstCommit();
    const whole = await this.store.db.transaction(async (tx) => {
      await clear(tx);
      await rows(tx);
      await writeCommit(tx, commit);
      return readWhole(tx);
    });
    this.committed = commit;
    this.adopt(whole);
    await this.store.sync();
    this.settle();
    this.store.last.keep(this.seq);
    await this.sweepFiles();
  }

  /** Lets go of photos and papers that nothing names any more; says on every screen which are missing. */
  async sweepFiles(): Promise<void> {
    const names = new Map([...this.beans.files.values()].map(({ sha256, name }) => [sha256, name]));
    const missing = await this.store.files.sweep(new Set(names.keys()));
    const named = missing.slice(0, 3).map((hash) => names.get(hash) ?? hash);
    this.trouble(
      'files',
      missing.length === 0
        ? null
        : `${missing.length} ${missing.length === 1 ? 'photo or paper is' : 'photos and papers are'} missing from the data directory: ${named.join(', ')}${missing.length > 3 ? ' and more' : ''}. A backup may have them.`,
    );
  }

  /** Tidies up the store, when nobody writes. */
  upkeep(): Promise<void> {
    return this.exclusively(async () => {
      await this.store.upkeep(this.now());
      if (this.checkpoint?.isOld()) this.keepCheckpoint();
    });
  }

  /** Looks whether what a start read only in part is whole, and reads the database where it is not. */
  async checkKept(): Promise<void> {
    if (!this.checkpoint || (await this.checkpoint.isWhole())) return;
    await this.exclusively(async () => {
      await this.reload();
      this.settle();
    });
  }

  /** Waits for what is being written, and keeps what the next start reads. */
  rest(): Promise<void> {
    return this.exclusively(() => {
      if (this.checkpoint?.isOld(FEW_LINES)) this.keepCheckpoint();
      this.checkpoint?.close();
      return Promise.resolve();
    });
  }

  /** Looks whether there is room on the disk; every screen says when there is little. */
  watchDisk(): void {
    this.trouble('disk', this.store.disk.warning());
  }

  /** What fails behind the scenes at the moment, in words: every screen says so. */
  get troubles(): string[] {
    return [...this.failing.values()];
  }

  /** Notes that something behind the scenes fails, or (with null) works again. @param what does it */
  trouble(what: string, words: string | null): void {
    if ((this.failing.get(what) ?? null) === words) return;
    if (words === null) this.failing.delete(what);
    else this.failing.set(what, words);
    this.changed();
  }

  /** Tells every screen to look again: something was worked out of what was entered before. */
  noticed(): void {
    this.changed();
  }

  private changed(): void {
    this.version += 1;
    for (const listener of this.listeners) listener(this.version);
  }

  onChange(listener: (version: number) => void): () => void {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  }

  /** Costs and make-up, brought up to date on asking. */
  get valuation(): Valuation {
    return this.worths.now;
  }

  private countCode(code: string): void {
    const match = /^([A-Z])(\d+)$/.exec(code);
    if (match?.[1]) this.counters.set(match[1], Math.max(this.counters.get(match[1]) ?? 0, Number(match[2])));
  }

  protected nextCode(letter: CodeLetter): string {
    for (;;) {
      const next = (this.counters.get(letter) ?? 0) + 1;
      this.counters.set(letter, next);
      const code = `${letter}${String(next).padStart(3, '0')}`;
      if (!this.book.byCode(code)) return code;
    }
  }

  /** Puts the counters back as they were. @param before from `numbered` */
  protected renumber(before: ReadonlyMap<string, number>): void {
    this.counters = new Map(before);
  }

  protected get numbered(): ReadonlyMap<string, number> {
    return new Map(this.counters);
  }

  /** The bytes of a photo or paper; null when there are none (any more). */
  async fileBytes(fileId: string): Promise<Uint8Array | null> {
    const file = this.beans.files.get(fileId);
    return file ? this.store.files.read(file.sha256) : null;
  }

  readCurve(curveId: string): ReturnType<typeof readCurve> {
    return readCurve(this.store.db, curveId);
  }

  readCurves(ids: readonly string[]): ReturnType<typeof readCurves> {
    return readCurves(this.store.db, ids);
  }

  /** Keeps the newest state of a curve that is still growing; no screen is told. */
  async keepCurve(row: CurveRow): Promise<void> {
    const { curve: _, ...meta } = row;
    this.ready();
    this.roasts.addCurve(meta);
    await this.growing.grow(row);
    this.checkpoint?.noteCurve(meta);
    await this.store.sync();
  }

  closedWork(workId: string): ReturnType<typeof findClosedWork> {
    return findClosedWork(this.store.db, workId);
  }

  answerFor(key: string): ReturnType<typeof findAnswer> {
    return findAnswer(this.store.db, key);
  }

  keepAnswer(answer: typeof answers.$inferInsert): void {
    this.pending.answers.push(answer);
  }

  /** Says whether the database ends before what was saved. @throws Damaged */
  protected checkEnd(): void {
    const { atStart } = this.store.last;
    if (atStart === null || atStart <= this.seq) return;
    throw new Damaged(
      `it ends at step ${this.seq}, and step ${atStart} had been saved. Parts of it are missing or older than they should be (to go on with what is there all the same, delete the file last-step)`,
    );
  }
}
