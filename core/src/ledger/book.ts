import { DomainError } from '../errors/domain-error';
import {
  AFTER_ALL,
  before,
  BEFORE_ALL,
  comesBefore,
  movements,
  silentAbout,
  upperBound,
  type Balance,
  type Entry,
  type Past,
  type Position,
} from './entries';
import { Holdings, type PastHoldings } from './holdings';
import { Steps } from './steps';
import { Timeline } from './timeline';
import type { Holding, Step } from './types';

let books = 0;
/** Of so many holdings of the past the entries are kept as they were read; they are read anew after that. */
const MOST_ASKED = 600;

/**
 * The double-entry mass ledger in memory: holdings, steps and running balances.
 *
 * It holds three laws: the grams of a step add up to zero; no holding is ever below zero at any
 * moment, however late a step is entered; a superseded step counts no more but stays readable.
 * `checkEntering` says whether steps may enter, `insert` enters one; neither does input or output.
 */
export class Book {
  readonly holdings = new Holdings();
  readonly steps = new Steps();
  /** Steps in force, in the order of the work. */
  readonly timeline = new Timeline(this.steps);
  /** Of holdings that something was entered for since the past, and where there is none. */
  private readonly entries = new Map<string, Entry[]>();
  /** Of other holdings that were asked for lately. */
  private readonly asked = new Map<string, readonly Entry[]>();
  private readonly successors = new Map<string, string>();
  /** Steps in force that are about a holding and move nothing in it, by holding: their ids. */
  private readonly silent = new Map<string, Set<string>>();
  /** Of holdings that something was entered for, and of the past what has something in it. */
  private readonly balances = new Map<string, Balance>();
  /** Holdings with something in them. */
  readonly live = new Set<string>();
  /** Of those, what was read of the past: they are asked for at every turn. */
  private readonly near = new Map<string, Holding>();
  private here: { version: number; holdings: readonly Holding[] } = { version: 0, holdings: [] };
  private past: Past | null = null;
  /** The earliest place in the order of the work where something was changed since the past was entered. */
  private changed: Position | null = null;
  private version = 0;
  /** Where in the order of the work each change was that was not at its end. */
  private readonly rewritten: Position[] = [];
  private readonly number = (books += 1);

  /** Another word after every change, and for every other book: caches compare it. */
  get state(): string {
    return `${this.number}.${this.version}`;
  }

  /** Another word after every change but a step at the end of the order of the work: what was read of it goes on. */
  get line(): string {
    return `${this.number}.${this.rewritten.length}`;
  }

  /**
   * The earliest place in the order of the work where something was changed since a line, other than at its end.
   *
   * @param line as this book had it once
   * @returns after all where nothing was; null where it is the line of another book
   */
  changedSince(line: string): Position | null {
    const [number, count] = line.split('.');
    if (Number(number) !== this.number) return null;
    return this.rewritten
      .slice(Number(count))
      .reduce((earliest, place) => (comesBefore(place, earliest) ? place : earliest), AFTER_ALL);
  }

  /** Enters what is past, before anything else; it was checked when it was entered first. */
  begin(past: Past, holdings: PastHoldings): void {
    this.past = past;
    this.holdings.begin(holdings);
    this.steps.begin(past);
    this.timeline.begin(past.inForce);
    for (const [stepId, by] of past.successors()) this.successors.set(stepId, by);
    for (const [holdingId, stepId] of past.silent()) this.silentOf(holdingId).add(stepId);
    for (const [holdingId, balance] of past.balances()) {
      this.balances.set(holdingId, balance);
      this.live.add(holdingId);
    }
    this.version += 1;
  }

  /** Whether everything up to a place in the order of the work is as it was when the past was entered. */
  isSettled(upTo: Position): boolean {
    return this.changed === null || before(upTo, this.changed) < 0;
  }

  addHolding(holding: Holding): void {
    this.holdings.set(holding);
    this.near.delete(holding.id);
  }

  /** Says something else of a holding that exists; its grams and its place stay. */
  restate(facts: Pick<Holding, 'id' | 'code' | 'name' | 'kind' | 'routeId' | 'batchId' | 'materialId'>): Holding {
    const before = this.holding(facts.id);
    if (before.kind !== facts.kind) this.changed = BEFORE_ALL;
    const holding = { ...before, ...facts };
    this.holdings.set(holding);
    this.near.delete(holding.id);
    this.version += 1;
    return holding;
  }

  /** Holdings with something in them, one after another as they were filled. */
  get standing(): readonly Holding[] {
    if (this.here.version !== this.version)
      this.here = { version: this.version, holdings: Array.from(this.live, (id) => this.nearBy(id)) };
    return this.here.holdings;
  }

  private nearBy(id: string): Holding {
    let holding = this.near.get(id);
    if (!holding) this.near.set(id, (holding = this.holding(id)));
    return holding;
  }

  holding(id: string): Holding {
    const found = this.near.get(id) ?? this.holdings.get(id);
    if (!found) throw new DomainError('ledger/unknown-holding', 'There is no such tub, lot or bar.', [], { id });
    return found;
  }

  byCode(code: string): Holding | undefined {
    return this.holdings.byCode(code);
  }

  balance(id: string): Balance {
    return this.balances.get(id) ?? { massMg: 0, pieces: 0 };
  }

  /** What was there just before a moment: for entries made late. */
  balanceAt(id: string, at: number, order = Number.MAX_SAFE_INTEGER): Balance {
    const sum = { massMg: 0, pieces: 0 };
    for (const entry of this.entriesOf(id)) {
      if (before(entry, { at, order }) >= 0) break;
      sum.massMg += entry.massMg;
      sum.pieces += entry.pieces;
    }
    return sum;
  }

  entriesOf(id: string): readonly Entry[] {
    const known = this.entries.get(id) ?? this.asked.get(id);
    if (known || !this.past) return known ?? [];
    if (this.asked.size >= MOST_ASKED) this.asked.clear();
    const found = this.past.entriesOf(id);
    this.asked.set(id, found);
    return found;
  }

  /** What moved first in a holding; undefined where nothing did. */
  firstEntry(id: string): Entry | undefined {
    const known = this.entries.get(id) ?? this.asked.get(id);
    return known ? known[0] : this.past?.firstEntry(id);
  }

  /** The entries of a holding, to be changed; those of the past are brought from there first. */
  private rowsOf(id: string): Entry[] {
    let rows = this.entries.get(id);
    if (!rows) this.entries.set(id, (rows = this.past?.entriesOf(id) ?? []));
    this.asked.delete(id);
    return rows;
  }

  /** What moved in a holding after a moment. */
  entriesAfter(id: string, moment: Position): readonly Entry[] {
    const rows = this.entriesOf(id);
    return rows.slice(upperBound(rows, moment));
  }

  /** Counts of a holding after a moment that agreed with the book, and so moved nothing. */
  countsAfter(id: string, moment: Position): readonly Step[] {
    const steps = Array.from(this.silent.get(id) ?? [], (stepId) => this.steps.get(stepId));
    return steps.filter((step) => step !== undefined).filter((step) => comesBefore(moment, step));
  }

  /** The step that took this one's place, if any. */
  successorOf(stepId: string): string | undefined {
    return this.successors.get(stepId);
  }

  /** The first version of a step, which what it made goes by. */
  firstVersion(step: Step): string {
    let first = step;
    while (first.supersedes !== null) {
      const older = this.steps.get(first.supersedes);
      if (!older) break;
      first = older;
    }
    return first.id;
  }

  isCurrent(step: Step): boolean {
    return !this.successors.has(step.id);
  }

  /** Enters a checked step. */
  insert(step: Step): void {
    const old = step.supersedes === null ? undefined : this.steps.get(step.supersedes);
    if (old) {
      this.successors.set(old.id, step.id);
      this.retire(old);
    }
    this.enforce(step, this.steps.add(step));
    this.version += 1;
  }

  /** Takes back a step that was entered last, as if it had never been: for entries that are dropped half-way. */
  takeBack(step: Step): void {
    this.retire(step);
    this.steps.delete(step.id);
    this.version += 1;
    const old = step.supersedes === null ? undefined : this.steps.get(step.supersedes);
    if (!old) return;
    this.successors.delete(old.id);
    this.enforce(old, this.steps.numberOf(old.id) ?? 0);
  }

  /** Forgets a holding that no step names any more. */
  removeHolding(id: string): void {
    this.holdings.delete(id);
    this.near.delete(id);
    this.version += 1;
  }

  /** Lets a step count. */
  private enforce(step: Step, number: number): void {
    if (step.withdrawn) return;
    const key = { at: step.at, order: step.order };
    this.note(key);
    if (!this.timeline.insert(step, number)) this.rewritten.push(key);
    this.keepSilent(step, true);
    for (const [holdingId, change] of movements(step.postings)) {
      const rows = this.rowsOf(holdingId);
      const entry = { ...key, stepId: step.id, kind: step.kind, ...change };
      const newest = rows.at(-1);
      if (!newest || before(newest, key) <= 0) rows.push(entry);
      else rows.splice(upperBound(rows, key), 0, entry);
      this.addBalance(holdingId, change.massMg, change.pieces);
    }
  }

  /** Lets a step count no more. */
  private retire(step: Step): void {
    if (step.withdrawn) return;
    this.note(step);
    this.rewritten.push({ at: step.at, order: step.order });
    this.timeline.remove(this.steps.numberOf(step.id) ?? -1);
    this.keepSilent(step, false);
    for (const [holdingId, change] of movements(step.postings)) {
      const rows = this.rowsOf(holdingId);
      const index = rows.findIndex((entry) => entry.stepId === step.id);
      if (index >= 0) rows.splice(index, 1);
      this.addBalance(holdingId, -change.massMg, -change.pieces);
    }
  }

  private keepSilent(step: Step, inForce: boolean): void {
    const about = silentAbout(step);
    if (about === null) return;
    if (inForce) this.silentOf(about).add(step.id);
    else this.silentOf(about).delete(step.id);
  }

  private silentOf(holdingId: string): Set<string> {
    let steps = this.silent.get(holdingId);
    if (!steps) this.silent.set(holdingId, (steps = new Set()));
    return steps;
  }

  private note({ at, order }: Position): void {
    if (this.changed === null || before({ at, order }, this.changed) < 0) this.changed = { at, order };
  }

  private addBalance(holdingId: string, massMg: number, pieces: number): void {
    const balance = this.balances.get(holdingId) ?? { massMg: 0, pieces: 0 };
    balance.massMg += massMg;
    balance.pieces += pieces;
    this.balances.set(holdingId, balance);
    if (balance.massMg !== 0 || balance.pieces !== 0) this.live.add(holdingId);
    else {
      this.live.delete(holdingId);
      this.near.delete(holdingId);
    }
  }
}
