import { nanoid } from 'nanoid';
import type { BeanRecord, BeanRecordValue } from '@wunsch/core/beans/records';
import { DomainError } from '@wunsch/core/errors/domain-error';
import type { RecordValue, Room, RoomRecord } from '@wunsch/core/records';
import type { RecipeRecord, RecipeRecordValue } from '@wunsch/core/recipe/records';
import type { RoastRecord, RoastRecordValue } from '@wunsch/core/roast/records';
import type { EntryHead } from '@wunsch/core/work/start';
import type { Batch, LotFacts, Material } from '@wunsch/core/ledger/types';
import { DEFAULT_SETTINGS, type Machine, type Person, type Settings } from '@wunsch/core/workshop/schemas';
import type { Route } from '@wunsch/core/work/stations';
import { misfitOf, type Table } from '@wunsch/core/rows';
import type { Work } from '@wunsch/core/workshop/work';
import { BeanBook } from '@wunsch/core/beans/book';
import { RecipeBook } from '@wunsch/core/recipe/book';
import { RoastBook } from '@wunsch/core/roast/book';
import { hashOf } from '../store/files';
import { noChanges, type Changes } from '../store/records';
import type { CurveRow } from '../store/curves';
import type { FileMeta } from '@wunsch/core/workshop/kept';
import { RoomRecords } from '@wunsch/core/room-records';

/** How far ahead of this clock an entry may be: a tablet's clock runs a little fast. */
const CLOCK_SLACK_MS = 5 * 60_000;

/** Everything of a workshop beside its book: lists, records, files, and what has changed since the last commit. */
export abstract class Lists {
  settings: Settings = { ...DEFAULT_SETTINGS };
  readonly people = new Map<string, Person>();
  readonly machines = new Map<string, Machine>();
  readonly materials = new Map<string, Material>();
  readonly routes = new Map<string, Route>();
  readonly lots = new Map<string, LotFacts>();
  readonly batches = new Map<string, Batch>();
  readonly works = new Map<string, Work>();
  readonly beans = new BeanBook();
  readonly roasts = new RoastBook();
  readonly recipes = new RecipeBook();
  readonly records = new RoomRecords();
  /** Goes up when something is said that changes what goods are, or what machines carry over. */
  told = 0;
  /** What changed since the last commit, and the bytes of new files. */
  protected pending: Changes & { newFiles: Uint8Array[] } = { ...noChanges(), newFiles: [] };
  /** What takes it back, in the order in which it was done. */
  private undoing: (() => void)[] = [];

  protected constructor(readonly now: () => number) {}

  /** Says how something that was just done is taken back, should it not be committed. */
  protected undoBy(undo: () => void): void {
    this.undoing.push(undo);
  }

  protected put<K, V>(map: Map<K, V>, key: K, value: V): void {
    const [had, old] = [map.has(key), map.get(key)];
    this.undoBy(() => (had ? map.set(key, old as V) : map.delete(key)));
    map.set(key, value);
  }

  protected drop<K, V>(map: Map<K, V>, key: K): void {
    const old = map.get(key);
    if (map.delete(key)) this.undoBy(() => map.set(key, old as V));
  }

  /** Whether something was done that is not committed yet. */
  get isDirty(): boolean {
    return (
      this.undoing.length > 0 || Object.values(this.pending).some((list) => Array.isArray(list) && list.length > 0)
    );
  }

  protected forgetPending(): void {
    this.pending = { ...noChanges(), newFiles: [] };
    this.undoing = [];
  }

  /** Puts everything back as it was at the last commit. */
  protected takeBackPending(): void {
    for (const undo of this.undoing.reverse()) undo();
    without(this.beans, this.pending.beanRecords);
    without(this.roasts, this.pending.roastRecords);
    without(this.recipes, this.pending.recipeRecords);
    without(this.records, this.pending.roomRecords);
    this.forgetPending();
  }

  /**
   * UTC ms of an entry. What a clock that runs a little ahead says is now: else others would wait for what it made.
   *
   * @throws DomainError for times to come and before this century
   */
  timeOf(head: Pick<EntryHead, 'at'>): number {
    const now = this.now();
    const at = head.at === undefined ? now : Date.parse(head.at);
    if (at > now + CLOCK_SLACK_MS) {
      throw new DomainError('ledger/future', 'That time is still to come.', [
        { path: 'at', message: 'is in the future' },
      ]);
    }
    if (at < Date.UTC(2000, 0, 1)) {
      throw new DomainError('ledger/too-early', 'That time is before this century.', [
        { path: 'at', message: 'is before 2000' },
      ]);
    }
    return Math.min(at, now);
  }

  checkPerson(personId: string): void {
    this.checkHead({ personId, machineId: null });
  }

  protected checkHead(head: { personId: string; machineId: string | null }): void {
    if (!this.people.has(head.personId)) {
      throw new DomainError('workshop/unknown-person', 'Choose who is at the bench.', [
        { path: 'personId', message: 'is not on the team' },
      ]);
    }
    if (head.machineId !== null && !this.machines.has(head.machineId)) {
      throw new DomainError('workshop/unknown-machine', 'There is no such machine.', [
        { path: 'machineId', message: 'is not known here' },
      ]);
    }
  }

  /** Writes something down about a lot, or (without one) about the bean store. */
  addBeanRecord(
    lotId: string | null,
    value: BeanRecordValue,
    head: { personId: string; at?: string | undefined },
  ): BeanRecord {
    this.checkHead({ personId: head.personId, machineId: null });
    if (value.kind === 'hold' && value.toldBy !== null) this.checkPerson(value.toldBy);
    if (value.kind === 'harvest') this.timeOf({ at: value.openedAt });
    const record: BeanRecord = {
      id: nanoid(12),
      lotId,
      at: this.timeOf(head),
      recordedAt: this.now(),
      personId: head.personId,
      value,
    };
    this.beans.add(record);
    if (value.kind === 'nib-fat' || value.kind === 'taken-back') this.told += 1;
    this.pending.beanRecords.push(record);
    return record;
  }

  /** Writes something down about roasting. */
  addRoastRecord(value: RoastRecordValue, head: { personId: string; at?: string | undefined }): RoastRecord {
    this.checkHead({ personId: head.personId, machineId: null });
    const { personId } = head;
    const record: RoastRecord = { id: nanoid(12), at: this.timeOf(head), recordedAt: this.now(), personId, value };
    this.roasts.add(record);
    this.pending.roastRecords.push(record);
    return record;
  }

  /** Writes something down about recipes. */
  addRecipeRecord(value: RecipeRecordValue, head: { personId: string; at?: string | undefined }): RecipeRecord {
    this.checkHead({ personId: head.personId, machineId: null });
    const { personId } = head;
    const record: RecipeRecord = { id: nanoid(12), at: this.timeOf(head), recordedAt: this.now(), personId, value };
    this.recipes.add(record);
    this.pending.recipeRecords.push(record);
    return record;
  }

  /** Writes something down in a room. */
  addRecord<R extends Room>(
    room: R,
    value: RecordValue<R>,
    { personId, at }: { personId: string; at?: string | undefined },
  ): RoomRecord<R> {
    this.checkPerson(personId);
    const record = { id: nanoid(12), room, at: this.timeOf({ at }), recordedAt: this.now(), personId, value };
    this.records.add(record);
    this.pending.roomRecords.push(record);
    return record;
  }

  /** Takes a whole curve in. */
  addCurve(row: CurveRow): void {
    const { curve: _, ...meta } = row;
    this.rememberCurve(row.id);
    this.roasts.addCurve(meta);
    this.pending.curves.push(row);
  }

  /** Takes a curve off again. */
  removeCurve(curveId: string): void {
    this.rememberCurve(curveId);
    this.roasts.removeCurve(curveId);
    this.pending.removedCurves.push(curveId);
  }

  private rememberCurve(curveId: string): void {
    const old = this.roasts.curves.get(curveId);
    this.undoBy(() => {
      this.roasts.removeCurve(curveId);
      if (old) this.roasts.addCurve(old);
    });
  }

  addFile(meta: Omit<FileMeta, 'id' | 'at' | 'sha256' | 'size'>, bytes: Uint8Array): FileMeta {
    this.checkHead({ personId: meta.personId, machineId: null });
    const file: FileMeta = {
      ...meta,
      id: nanoid(16),
      at: this.now(),
      size: bytes.length,
      sha256: hashOf(bytes),
    };
    this.put(this.beans.files, file.id, file);
    this.pending.files.push(file);
    this.pending.newFiles.push(bytes);
    return file;
  }

  removeFile(fileId: string): void {
    if (!this.beans.files.has(fileId)) throw new DomainError('http/not-found', 'There is no such file.');
    this.drop(this.beans.files, fileId);
    this.pending.removedFiles.push(fileId);
  }

  putSettings(value: Settings): void {
    const old = this.settings;
    this.undoBy(() => (this.settings = old));
    this.settings = value;
    this.told += 1;
    this.pending.settings = value;
  }

  putPerson(value: Person): void {
    this.put(this.people, value.id, value);
    this.pending.people.push(value);
  }

  putMachine(value: Machine): void {
    this.put(this.machines, value.id, value);
    this.told += 1;
    this.pending.machines.push(value);
  }

  putMaterial(value: Material): void {
    this.put(this.materials, value.id, value);
    this.told += 1;
    this.pending.materials.push(value);
  }

  /**
   * Refuses what could not be read again at the next start.
   *
   * @throws DomainError `workshop/unreadable`
   */
  protected checkRow(table: Table, row: { id: string }): void {
    const misfit = misfitOf(table, row, 0);
    if (!misfit) return;
    throw new DomainError('workshop/unreadable', `That cannot be kept: ${misfit.detail}. Nothing was saved.`, [
      { path: misfit.detail.split(' ')[0] ?? '', message: misfit.detail },
    ]);
  }

  protected putBatch(value: Batch): void {
    this.checkRow('batches', value);
    this.put(this.batches, value.id, value);
    this.pending.batches.push(value);
  }

  putRoute(value: Route): void {
    this.put(this.routes, value.id, value);
    this.pending.routes.push(value);
  }
}

/** Takes records out of a book again. */
function without<R>(
  book: { everything(): Iterable<R>; clear(): void; add(record: R): void },
  gone: readonly R[],
): void {
  if (gone.length === 0) return;
  const dropped = new Set(gone);
  const rest = [...book.everything()].filter((record) => !dropped.has(record));
  book.clear();
  for (const record of rest) book.add(record);
}
