import { existsSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { Book } from '@wunsch/core/ledger/book';
import type { Lasting, Settled } from '@wunsch/core/ledger/follower';
import { Valuation, type WorthThen } from '@wunsch/core/ledger/valuation';
import type { CurveMeta } from '@wunsch/core/workshop/kept';
import type { Commit } from '../store/commits';
import type { Changes, Records } from '../store/records';
import { ChangeLog, type Noted } from './change-log';
import { openHoldings, sealHoldings } from './holdings';
import { Packed } from './packed';
import { LastingFile, putSections } from './lasting-file';
import { readSections, type Sections } from './sections';
import { sealSteps } from './seal-steps';
import { openSteps, type SealedSteps } from './sealed-steps';
import { openWorth, worthSections, worthTables, type WorthHead } from './sealed-worth';
import { TextFile, type Stretch } from './texts';
import { Words } from './words';

/** Everything of a workshop beside its book. */
export type Small = Omit<Records, 'steps' | 'holdings'>;

/** A workshop as it was read: its lists, its book, and what everything was worth some time ago. */
export interface Whole {
  small: Small;
  book: Book;
  then: WorthThen | null;
  /** Number of the last step. */
  seq: number;
}

interface Head {
  commit: Commit;
  /** Which program wrote it: another may read things otherwise. */
  build: string;
  worth: WorthHead;
  texts: Stretch[];
}

/** Steps at the end of the order of the work that a valuation replays: what is corrected is mostly among them. */
const REPLAYED = 1500;
/** Changes after which it is worth the while to write everything anew. */
const MANY_LINES = 2000;
const MANY_BYTES = 8_000_000;
/** More than this is read no faster than the database. */
const MOST_BYTES = 60_000_000;

/**
 * A workshop in one file beside the database, and what was committed since in another: a start reads these instead of
 * every row. Whatever does not fit (another program, another database, a commit that is missing, a byte that is wrong)
 * makes it no checkpoint at all; then the database is read.
 */
export class Checkpoint {
  private readonly path: string;
  private readonly log: ChangeLog;
  /** Whether there is a file that the log goes on from. */
  private whole = false;
  private sealed: { steps: SealedSteps; texts: TextFile } | null = null;
  private readonly textPath: string;
  /** What is made of the book beside it. */
  private readonly made: LastingFile;

  /** @param build which program this is */
  constructor(
    directory: string,
    private readonly build: string,
  ) {
    this.path = join(directory, 'checkpoint');
    this.textPath = join(directory, 'checkpoint.steps');
    this.log = new ChangeLog(join(directory, 'checkpoint.log'));
    this.made = new LastingFile(directory, build);
  }

  /** The workshop of a commit; null where it has to be read from the database. */
  read(commit: Commit): Whole | null {
    try {
      const whole = this.open(commit);
      if (!whole) this.drop();
      return whole;
    } catch {
      this.drop();
      return null;
    }
  }

  private open(commit: Commit): Whole | null {
    const sections = existsSync(this.path) ? readSections(this.path) : null;
    if (!sections) return null;
    const json = <T>(name: string): T => JSON.parse(textOf(sections[name])) as T;
    const head = json<Head>('head');
    const { lineage, number } = head.commit;
    if (head.build !== this.build || lineage !== commit.lineage || number > commit.number) return null;
    const changes = this.log.read(number, commit.number);
    if (!changes) return null;
    const words = new Words(Packed.open('words', sections));
    const texts = new TextFile(this.textPath, head.texts);
    const steps = openSteps(words, Packed.open('ids', sections), sections, texts.text);
    const book = new Book();
    book.begin(steps, openHoldings(words, steps, sections));
    const then = openWorth(head.worth, words, book, sections);
    this.sealed = { steps, texts };
    this.whole = true;
    const small = json<Small>('small');
    let seq = steps.tables.steps.seq.at(steps.size - 1);
    for (const change of changes) {
      follow(small, book, change);
      seq = change.steps.at(-1)?.seq ?? seq;
    }
    order(small);
    this.made.open(lineage);
    this.dropUnsettled(book);
    return { small, book, then, seq };
  }

  /** Notes what the next commit changes; where it cannot, the next start reads the database. */
  note(number: number, changes: Changes): void {
    this.tried(() => this.log.note(number, changes));
  }

  /** Notes that a curve grew. */
  noteCurve(meta: CurveMeta): void {
    this.tried(() => this.log.noteCurve(meta));
  }

  private tried(work: () => void): void {
    if (!this.whole) return;
    if (this.log.bytes > MOST_BYTES) return this.drop();
    try {
      work();
    } catch {
      this.drop();
    }
  }

  /** Lets go of what is kept: nothing of it counts any more. */
  drop(): void {
    this.whole = false;
    this.sealed = null;
    rmSync(this.path, { force: true });
    rmSync(this.textPath, { force: true });
    this.made.drop();
    this.log.clear();
  }

  /**
   * Reads again what is read only when it is asked for.
   *
   * @returns whether it is what was written; where it is not, nothing of what is kept counts any more
   */
  async isWhole(): Promise<boolean> {
    const texts = this.sealed?.texts;
    if (!texts || (await texts.isWhole())) return true;
    if (this.sealed?.texts === texts) this.drop();
    return false;
  }

  close(): void {
    this.log.close();
    this.sealed?.texts.close();
    this.sealed = null;
  }

  /** Whether so much was changed since it was written that it should be written anew. @param atLeast commits */
  isOld(atLeast = MANY_LINES): boolean {
    return !this.whole || this.log.lines >= atLeast || this.log.bytes > MANY_BYTES;
  }

  /**
   * Writes a workshop as it stands after a commit.
   *
   * @throws Error where the disk takes no more, or it cannot be kept like this; what was kept before stays
   */
  write(commit: Commit, small: Small, book: Book, then: WorthThen | null): void {
    // Before anything is written: once this is written anew, nobody would know what was changed since.
    this.dropUnsettled(book);
    const before = this.sealed?.steps ?? null;
    const fresh = [...book.steps.values(before?.size)];
    const rows = new Map(fresh.map(({ id }, i) => [id, (before?.size ?? 0) + i]));
    const rowOf = (stepId: string): number => {
      const row = rows.get(stepId) ?? before?.rowOf(stepId);
      if (row === undefined) throw new Error(`step ${stepId} is not there`);
      return row;
    };
    const words = new Words(before?.words.pack());
    const holdings = sealHoldings(words, book.holdings.values(), rowOf);
    const { sections: columns, texts } = sealSteps(words, before, fresh, rowOf);
    const { head: worth, sections } = worthAt(words, book, then);
    const head: Head = { commit, build: this.build, worth, texts: this.append(texts) };
    putSections(this.path, {
      head: Buffer.from(JSON.stringify(head)),
      small: Buffer.from(JSON.stringify(small)),
      ...words.pack().sections('words'),
      ...(before?.ids ?? Packed.of([])).with(fresh.map(({ id }) => id)).sections('ids'),
      ...holdings,
      ...columns,
      ...sections,
    });
    this.log.clear();
    this.whole = true;
  }

  /** What is made of steps that were changed since counts no more. */
  private dropUnsettled(book: Book): void {
    const { upTo } = this.made;
    if (upTo !== null && !book.isSettled(upTo)) this.made.drop();
  }

  /** Lets what is made of the book go on from what was kept of it, when it is first asked. @param lasting by their names */
  resume(lasting: ReadonlyMap<string, Lasting>, book: () => Book): void {
    for (const [name, own] of lasting)
      own.follower.whenFirstAsked(() =>
        this.tried(() => {
          const settled = this.made.settledOf(name);
          // Something may have been corrected since the start.
          if (settled && book().isSettled(settled.upTo)) this.made.resume(name, own);
        }),
      );
  }

  /**
   * Keeps what is made of the book, where it was settled anew since.
   *
   * @throws Error where the disk takes no more
   */
  keep(lasting: ReadonlyMap<string, Lasting>, { lineage }: Commit, book: Book): void {
    const isKept = (name: string, { place }: Settled): boolean => this.made.settledOf(name)?.place === place;
    const settled = [...lasting].flatMap(([name, own]) => {
      const upTo = own.follower.settledUpTo;
      return upTo && book.isSettled(upTo.upTo) ? [{ name, own, settled: upTo }] : [];
    });
    if (!this.whole || settled.every((row) => isKept(row.name, row.settled))) return;
    this.made.write(
      lineage,
      new Map(settled.map(({ name, own, settled: upTo }) => [name, { past: own.past(), settled: upTo }])),
    );
  }

  private append(texts: Uint8Array): Stretch[] {
    if (this.sealed) return this.sealed.texts.append(texts);
    const file = new TextFile(this.textPath, []);
    try {
      return file.append(texts);
    } finally {
      file.close();
    }
  }
}

const textOf = (bytes: Uint8Array = new Uint8Array()): string =>
  Buffer.from(bytes.buffer, bytes.byteOffset, bytes.length).toString();

/** What everything was worth some steps before the end. */
function worthAt(words: Words, book: Book, then: WorthThen | null): { head: WorthHead; sections: Sections } {
  const last = book.timeline.at(Math.max(0, book.timeline.length - 1 - REPLAYED));
  const upTo = last ? { at: last.at, order: last.order } : { at: 0, order: 0 };
  const valuation = new Valuation(book, then, upTo);
  return {
    head: { upTo, steps: valuation.steps, sales: valuation.salesReaching(upTo), totals: valuation.totals },
    sections: worthSections(worthTables(words, book.steps.ids(), valuation)),
  };
}

const byId = (a: { id: string }, b: { id: string }): number => (a.id < b.id ? -1 : a.id > b.id ? 1 : 0);

/** Of rows that were written again, the newest. */
const newest = <Row extends { id: string }>(rows: readonly Row[]): Row[] => [
  ...new Map(rows.map((row) => [row.id, row])).values(),
];

/** Puts lists in the order in which they are read from the database. */
function order(small: Small): void {
  small.curves = newest(small.curves);
  for (const list of ['people', 'machines', 'materials', 'routes', 'batches', 'lots', 'works'] as const)
    small[list].sort(byId);
  for (const list of ['beanRecords', 'roastRecords', 'recipeRecords', 'roomRecords'] as const)
    small[list].sort((a, b) => a.at - b.at || a.recordedAt - b.recordedAt || byId(a, b));
  small.files.sort((a, b) => a.at - b.at || byId(a, b));
  small.curves.sort((a, b) => a.startedAt - b.startedAt || byId(a, b));
}

/** Does to a workshop that is read what a commit did to it. */
function follow(small: Small, book: Book, changes: Noted): void {
  if (changes.settings) small.settings = changes.settings;
  for (const list of ['people', 'machines', 'materials', 'routes', 'batches', 'lots', 'works', 'curves'] as const)
    small[list].push(...(changes[list] as never[]));
  for (const list of ['beanRecords', 'files', 'roastRecords', 'recipeRecords', 'roomRecords'] as const)
    small[list].push(...(changes[list] as never[]));
  const gone = new Set([...changes.closedWorks.map(({ id }) => id), ...changes.removedFiles, ...changes.removedCurves]);
  if (gone.size > 0)
    for (const list of ['works', 'files', 'curves'] as const)
      small[list] = small[list].filter(({ id }) => !gone.has(id)) as never;
  for (const holding of changes.holdings) book.addHolding(holding);
  for (const step of changes.steps) book.insert(step);
  for (const { id, facts, name, routeId } of changes.lotFacts) {
    small.lots.push({ id, facts });
    book.restate({ ...book.holding(id), name, routeId });
  }
  for (const holding of changes.restated) book.restate(holding);
}
