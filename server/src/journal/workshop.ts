import { nanoid } from 'nanoid';
import { DomainError } from '@wunsch/core/errors/domain-error';
import { hasSources, type Command } from '@wunsch/core/commands';
import type { EntryHead, StartWork } from '@wunsch/core/work/start';
import { endsAs, gatesOf, workBegins, workFinishes } from '@wunsch/core/stations';
import { passGates, type Asked } from '@wunsch/core/gates/gate';
import type { Batch, Step } from '@wunsch/core/ledger/types';
import { ROUTE_TEMPLATES } from '@wunsch/core/workshop/routes';
import type { Station } from '@wunsch/core/work/stations';
import type { Work } from '@wunsch/core/workshop/work';
import { Checkpoint } from '../checkpoint/checkpoint';
import type { Store } from '../store/database';
import type { CurveRow } from '../store/curves';
import { blocksOf, checkBlocks } from '@wunsch/core/trace/blocks';
import { Compositions } from './compositions';
import { Journal } from './journal';
import { gateContext } from './stops';
import { takeForWork } from './works';

/** Who listens to a station's work while it is under way. */
export interface Follower {
  /** What was logged of it so far; null where nothing was. */
  curve(work: Work): CurveRow | null;
  /** How fast the clock of new work runs. */
  speed?(entry: StartWork): number;
}

/**
 * The workshop as it stands: the book and its reference lists in memory, the database under it.
 *
 * This process is the only writer (the data directory is locked), so reads never touch the database.
 * Writes go through `exclusively`: they plan, check, enter the book and become durable in one
 * transaction before they are answered; what fails half-way is taken back.
 */
export class Workshop extends Journal {
  readonly compositions = new Compositions(this);
  private readonly followers = new Map<Station, Follower>();

  private constructor(store: Store, now: () => number, checkpoint: Checkpoint | null) {
    super(store, now, checkpoint);
  }

  /**
   * @param build which program this is; left out, every start reads the whole database
   * @throws Damaged where what is kept makes no workshop, or ends before what had been saved
   */
  static async open(store: Store, now: () => number = Date.now, build?: string): Promise<Workshop> {
    const { directory } = store;
    const checkpoint = directory === null || build === undefined ? null : new Checkpoint(directory, build);
    const workshop = new Workshop(store, now, checkpoint);
    await workshop.begin();
    workshop.checkEnd();
    await workshop.sweepFiles();
    if (workshop.routes.size === 0) await workshop.furnish();
    return workshop;
  }

  /** A new workshop gets the route templates, and its settings row. */
  private async furnish(): Promise<void> {
    for (const route of ROUTE_TEMPLATES) this.putRoute({ ...route, stations: [...route.stations] });
    this.putSettings(this.settings);
    await this.commit();
  }

  /** Lets somebody listen to a station's work. */
  follow(station: Station, follower: Follower): void {
    this.followers.set(station, follower);
  }

  private logged(work: Work): CurveRow | null {
    return this.followers.get(work.station)?.curve(work) ?? null;
  }

  /** Begins work that is weighed out later. */
  startWork(entry: StartWork): Work {
    this.checkHead(entry);
    const kind = endsAs(entry);
    if (kind === undefined) {
      throw new DomainError('work/no-work', 'Nothing runs at that station on its own.', [
        { path: 'station', message: 'has no work to start' },
      ]);
    }
    this.checkBeans(entry.sources, kind);
    checkBlocks(this.book, blocksOf(this.records), { kind, sources: entry.sources } as Command);
    const startedAt = this.timeOf(entry);
    const sources = takeForWork(this.book, entry.sources, startedAt, this.reserved(), this.settings.massSystem);
    const asked = { kind, sources: entry.sources, begins: true } as Asked;
    const gates = gatesOf(asked, gateContext(this, { at: startedAt, order: this.seq + 1 }));
    const overrides = passGates(gates, entry.overrides ?? [], entry.personId);
    const work: Work = {
      id: nanoid(12),
      station: entry.station,
      sources,
      machineId: entry.machineId,
      personId: entry.personId,
      startedAt,
      dueAt: entry.dueAt === null ? null : Date.parse(entry.dueAt),
      note: entry.note,
      pausedAt: null,
      pausedMs: 0,
      sacks: entry.sacks ?? [],
      ...(overrides.length > 0 ? { overrides } : {}),
      ...workBegins(entry, { speed: this.followers.get(entry.station)?.speed?.(entry) ?? 1, curveId: nanoid(14) }),
    };
    this.putWork(work);
    return work;
  }

  private putWork(work: Work): void {
    this.checkRow('works', work);
    this.put(this.works, work.id, work);
    this.pending.works.push(work);
  }

  private openWork(workId: string): Work {
    const work = this.works.get(workId);
    if (!work) {
      throw new DomainError(
        'work/closed',
        'That work has been finished or put back already, perhaps at another screen. Nothing was saved twice.',
      );
    }
    return work;
  }

  /** Stops or starts the hands' clock of a piece of work. */
  pauseWork(workId: string, paused: boolean): Work {
    const work = this.openWork(workId);
    const now = this.now();
    const { pausedAt = null, pausedMs = 0 } = work;
    if ((pausedAt !== null) === paused) return work;
    const next: Work = paused
      ? { ...work, pausedAt: now, pausedMs }
      : { ...work, pausedAt: null, pausedMs: pausedMs + (now - (pausedAt ?? now)) };
    this.putWork(next);
    return next;
  }

  /** Changes what is planned for a batch. */
  changeBatch(batchId: string, change: (batch: Batch) => Batch): Batch {
    const batch = this.batches.get(batchId);
    if (!batch) throw new DomainError('http/not-found', 'There is no such batch.');
    const next = change(batch);
    this.putBatch(next);
    return next;
  }

  /** Changes what a station keeps of its work under way. @param change the parts that become others */
  changeWork(workId: string, change: (work: Work) => Partial<Work>): Work {
    const work = this.openWork(workId);
    const next: Work = { ...work, ...change(work) };
    this.putWork(next);
    return next;
  }

  /** Weighs work out: its step enters the book and the work is closed. */
  finishWork(workId: string, command: Command, head: EntryHead): Step {
    const work = this.openWork(workId);
    if (endsAs(work) !== command.kind || !hasSources(command)) {
      throw new DomainError('ledger/other-kind', 'That is not how this work ends.', [
        { path: 'kind', message: `is not ${endsAs(work)}` },
      ]);
    }
    const logged = this.logged(work);
    const curve = logged && logged.readings > 0 ? logged : null;
    const whole = workFinishes(work, command, { now: this.now(), curveId: curve?.id ?? null });
    const step = this.record(whole, head, undefined, workId);
    const made = step.slots['good'];
    if (curve && made !== undefined) this.addCurve({ ...curve, loadId: made });
    else if (work.roast) this.removeCurve(work.roast.curveId);
    this.closeWork(workId, step.id);
    return step;
  }

  /** Puts everything back as if the work had not been started. */
  putBack(workId: string): void {
    const work = this.openWork(workId);
    const curve = work.roast?.curveId ?? this.logged(work)?.id;
    if (curve !== undefined) this.removeCurve(curve);
    this.closeWork(workId, null);
  }

  private closeWork(workId: string, stepId: string | null): void {
    this.drop(this.works, workId);
    this.pending.closedWorks.push({ id: workId, at: this.now(), stepId });
  }

  /** Empties the workshop: only for a demo that begins again. */
  async empty(): Promise<void> {
    await this.replace(() => Promise.resolve());
  }
}
