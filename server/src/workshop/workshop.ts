import { nanoid } from 'nanoid';
import { mayBeWorked, type LotStanding } from '@wunsch/core/beans/state';
import { DomainError } from '@wunsch/core/errors/domain-error';
import { Book, type Position } from '@wunsch/core/ledger/book';
import type { Command, EntryHead, StartWork } from '@wunsch/core/ledger/commands';
import { endsAs, hasSources, STEP_OF } from '@wunsch/core/ledger/accepts';
import { gatesOf, planStep } from '@wunsch/core/stations';
import { passGates, type Asked } from '@wunsch/core/gates/gate';
import { cannotFollow, Revision } from '@wunsch/core/ledger/revision';
import type { CodeLetter, PlanContext, StepPlan } from '@wunsch/core/ledger/planner';
import type { Batch, Override, Step, StepKind } from '@wunsch/core/ledger/types';
import { Valuation } from '@wunsch/core/ledger/valuation';
import { ratesAt } from '@wunsch/core/money/rates';
import { checkReturns } from '@wunsch/core/money/trade';
import { toMg } from '@wunsch/core/units/mass';
import { milliFromMajor } from '@wunsch/core/units/money';
import { beginRoast, elapsedS, finishRoast } from '@wunsch/core/roast/live';
import { ROUTE_TEMPLATES } from '@wunsch/core/workshop/routes';
import { DEFAULT_SETTINGS } from '@wunsch/core/workshop/schemas';
import type { LiveRoast, StartRoast } from '@wunsch/core/workshop/roasting';
import { firstMisfit, type Misfit } from '@wunsch/core/workshop/rows';
import { NO_MOULD, type LiveMould } from '@wunsch/core/workshop/moulding';
import { NO_POUR, type LivePour } from '@wunsch/core/workshop/tempering';
import type { Work } from '@wunsch/core/workshop/work';
import type { Database } from '../store/database';
import {
  clear,
  findAnswer,
  findClosedWork,
  noChanges,
  read,
  readCurve,
  readCurves,
  readFileBytes,
  write,
  writeCurve,
  type CurveRow,
} from '../store/records';
import type { answers } from '../store/schema';
import { Compositions } from './compositions';
import { Lists } from './lists';
import { checkPackedAs } from '../products/book';
import { blocksOf, checkBlocks } from '../trace/blocks';
import { checkPiles, gateContext } from './stops';
import { Revisions, type Entering, type Reached } from './revisions';
import { takeForWork } from './works';

/** A row of the database is not what it has to be: nobody's entry, but damage. */
export class Damaged extends Error {
  constructor({ table, id, detail }: Misfit) {
    super(
      `The data is damaged: ${table} ${id}: ${detail}. Nothing was changed; restore a backup, or have it looked at.`,
    );
  }
}

export interface Correction {
  supersedes: string;
  reason: string;
}

/**
 * The workshop as it stands: the book and its reference lists in memory, the database under it.
 *
 * This process is the only writer (the data directory is locked), so reads never touch the database.
 * Writes go through `exclusively`: they plan, check, enter the book and become durable in one
 * transaction before they are answered; when that transaction fails, the book is read again.
 */
export class Workshop extends Lists {
  book = new Book();
  private queue: Promise<unknown> = Promise.resolve();
  private counters = new Map<string, number>();
  private seq = 0;
  private readonly revisions = new Revisions(
    () => this.book,
    (old, on) => this.context(old, old, old.machineId, on),
  );
  private worth: Valuation | null = null;
  readonly compositions = new Compositions(this);
  private readonly listeners = new Set<(version: number) => void>();
  /** What was logged of a live roast so far; set by who logs it. */
  roastCurve: ((work: Work) => CurveRow | null) | null = null;
  /** What was logged of a pour so far. */
  pourCurve: ((work: Work) => CurveRow | null) | null = null;
  /** How fast the clock of a new roast runs. */
  roastSpeed: (roast: StartRoast) => number = () => 1;
  private readonly failing = new Map<string, string>();
  /** Goes up with every change that screens should see. */
  version = 1;

  private constructor(
    readonly db: Database,
    now: () => number,
    /** Waits until what was written is on the disk. */
    private readonly sync: () => Promise<void>,
  ) {
    super(now);
  }

  static async open(
    db: Database,
    now: () => number = Date.now,
    sync: () => Promise<void> = () => Promise.resolve(),
  ): Promise<Workshop> {
    const workshop = new Workshop(db, now, sync);
    await workshop.load();
    if (workshop.routes.size === 0) await workshop.furnish();
    return workshop;
  }

  /** A new workshop gets the route templates, and its settings row. */
  private async furnish(): Promise<void> {
    for (const route of ROUTE_TEMPLATES) this.putRoute({ ...route, stations: [...route.stations] });
    this.putSettings(this.settings);
    await this.commit();
  }

  private async load(): Promise<void> {
    const records = await read(this.db);
    const misfit = firstMisfit(records);
    if (misfit) throw new Damaged(misfit);
    this.book = new Book();
    for (const map of [this.people, this.machines, this.materials, this.routes, this.lots, this.batches, this.works])
      map.clear();
    this.beans.clear();
    this.roasts.clear();
    this.recipes.clear();
    this.records.clear();
    this.counters = new Map();
    this.pending = noChanges();
    this.worth = null;
    this.told += 1;
    this.seq = 0;
    this.settings = { ...DEFAULT_SETTINGS, ...(records.settings ?? {}) };
    for (const holding of records.holdings) {
      this.book.addHolding(holding);
      // Labels carry whatever the maker printed: they are no number of the house.
      if (holding.kind !== 'packed') this.countCode(holding.code);
    }
    for (const step of records.steps) {
      this.book.insert(step);
      this.seq = Math.max(this.seq, step.seq);
    }
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
    this.changed();
  }

  /** Runs writes one after another. */
  exclusively<T>(work: () => Promise<T>): Promise<T> {
    const turn = this.queue.then(work, work);
    this.queue = turn.catch(() => undefined);
    return turn;
  }

  /** Makes everything since the last commit durable in one transaction. */
  async commit(): Promise<void> {
    const changes = this.pending;
    this.pending = noChanges();
    try {
      await write(this.db, changes);
      await this.sync();
    } catch (error) {
      await this.load();
      throw error;
    }
    this.changed();
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
    this.worth ??= new Valuation(this.book);
    return this.worth;
  }

  private countCode(code: string): void {
    const match = /^([A-Z])(\d+)$/.exec(code);
    if (match?.[1]) this.counters.set(match[1], Math.max(this.counters.get(match[1]) ?? 0, Number(match[2])));
  }

  private nextCode(letter: CodeLetter): string {
    for (;;) {
      const next = (this.counters.get(letter) ?? 0) + 1;
      this.counters.set(letter, next);
      const code = `${letter}${String(next).padStart(3, '0')}`;
      if (!this.book.byCode(code)) return code;
    }
  }

  private context(
    { at, order }: Position,
    old: Step | undefined,
    machineId: string | null,
    on = new Revision(this.book),
  ): PlanContext {
    const find = <T>(map: Map<string, T>, id: string, what: string, path: string): T => {
      const found = map.get(id);
      if (!found)
        throw new DomainError(`workshop/unknown-${what}`, `There is no such ${what}.`, [
          { path, message: 'is not known here' },
        ]);
      return found;
    };
    return {
      book: this.book,
      at,
      order,
      before: (holdingId) => on.before(holdingId, { at, order }, old?.id),
      first: old ? this.book.firstVersion(old) : null,
      oldSlots: old?.slots ?? {},
      machineId,
      route: (id) => find(this.routes, id, 'route', 'routeId'),
      batch: (id) => find(this.batches, id, 'batch', 'batchId'),
      material: (id) => find(this.materials, id, 'material', 'materialId'),
      newId: () => nanoid(12),
      newCode: (letter) => this.nextCode(letter),
    };
  }

  /** Milligrams that work under way has taken and not yet posted, by holding. */
  reserved(except?: string): Map<string, number> {
    const sums = new Map<string, number>();
    for (const work of this.works.values()) {
      if (work.id === except) continue;
      for (const { holdingId, massMg } of work.sources) sums.set(holdingId, (sums.get(holdingId) ?? 0) + massMg);
    }
    for (const [holdingId, massG] of this.recipes.weighedOut(except))
      sums.set(holdingId, (sums.get(holdingId) ?? 0) + toMg(massG));
    return sums;
  }

  /**
   * Enters one step (or the new version of one) in the book; durable with the next commit.
   *
   * @param finishing the work that this step closes: what it held is free for the step
   * @param along commands of later steps that are corrected with it, by step id: all of them or none
   */
  record(
    command: Command,
    head: EntryHead,
    correction?: Correction,
    finishing?: string,
    along?: ReadonlyMap<string, Command>,
  ): Step {
    this.checkHead(head);
    const at = this.timeOf(head);
    const old = correction ? this.currentStep(correction.supersedes) : undefined;
    if (old && old.kind !== command.kind) {
      throw new DomainError('ledger/other-kind', 'A correction stays the same kind of step.', [
        { path: 'kind', message: `is not ${old.kind}` },
      ]);
    }
    if (old?.kind === 'sell' && command.kind === 'sell') checkReturns(this.book, old, command);
    if (!old && hasSources(command)) this.checkBeans(command.sources, command.kind);
    if (!old) checkBlocks(this.book, blocksOf(this.records), command);
    checkPackedAs(this.records, command);
    if (command.kind === 'sort') checkPiles(command.rejects, this.settings, old);
    const seq = this.seq + 1;
    const order = old?.order ?? seq;
    const begun = finishing === undefined ? undefined : this.works.get(finishing)?.overrides;
    const counters = new Map(this.counters);
    try {
      const plan = planStep(command, this.context({ at, order }, old, head.machineId));
      const gates = gatesOf(command, gateContext(this, { at, order }));
      const overrides = passGates(gates, head.overrides ?? [], head.personId, old?.overrides ?? begun);
      const step = this.stepFrom(plan, command, head, at, seq, order, correction, overrides);
      const first = { step, plan };
      const later = this.withHoldings([plan], () => this.revisions.following(step, along));
      this.enter([first, ...later], finishing);
      return step;
    } catch (error) {
      this.counters = counters;
      throw error;
    }
  }

  /**
   * What a correction would do to every later step that it reaches, with proposals; nothing is entered.
   *
   * @param along what was said about later steps so far, by step id
   */
  previewCorrection(
    command: Command,
    head: EntryHead,
    supersedes: string,
    along: ReadonlyMap<string, Command>,
  ): { reached: Reached[]; problem: DomainError | null } {
    const counters = new Map(this.counters);
    const old = this.currentStep(supersedes);
    const at = this.timeOf(head);
    const seq = this.seq + 1;
    try {
      const plan = planStep(command, this.context({ at, order: old.order }, old, head.machineId));
      const step = this.stepFrom(plan, command, head, at, seq, old.order, { supersedes, reason: '' });
      const reached = this.withHoldings([plan], () => this.revisions.reached(step, along, true));
      const stuck = reached.find((row) => row.plan === null);
      const plans = [plan, ...reached.flatMap((row) => row.plan ?? [])];
      const steps = [step, ...reached.flatMap(({ next }) => next ?? [])];
      return { reached, problem: stuck ? cannotFollow(stuck) : this.refusalOf(steps, plans) };
    } finally {
      this.counters = counters;
    }
  }

  private refusalOf(steps: readonly Step[], plans: readonly StepPlan[]): DomainError | null {
    try {
      this.withHoldings(plans, () => this.book.check(steps, this.reserved()));
      return null;
    } catch (error) {
      if (error instanceof DomainError) return error;
      throw error;
    }
  }

  /** Whether a wet lot has been weighed in as dry. */
  isDried(lotId: string): boolean {
    return this.book.entriesOf(lotId).some(({ stepId }) => this.book.steps.get(stepId)?.kind === 'dry');
  }

  /** Where a lot stands between the door and the sorting table. */
  standing(lotId: string): LotStanding {
    const facts = this.lots.get(lotId);
    if (!facts) throw new DomainError('http/not-found', 'There is no such lot.');
    return this.beans.standing(lotId, facts, facts.form !== 'wet' || this.isDried(lotId));
  }

  /** Beans that are wet, on hold or refused are not worked. */
  private checkBeans(sources: readonly { holdingId: string }[], kind: StepKind): void {
    for (const { holdingId } of sources) {
      if (!this.lots.has(holdingId)) continue;
      const { code, routeId } = this.book.holding(holdingId);
      mayBeWorked(code, this.standing(holdingId), kind, this.routes.get(routeId ?? ''));
    }
  }

  private stepFrom(
    plan: StepPlan,
    command: Command,
    head: EntryHead,
    at: number,
    seq: number,
    order: number,
    correction?: Correction,
    overrides: Override[] = [],
  ): Step {
    const rates = ratesAt(this.settings, at);
    return {
      id: nanoid(12),
      seq,
      order,
      kind: command.kind,
      station: plan.station,
      at,
      recordedAt: this.now(),
      personId: head.personId,
      batchId: plan.batchId,
      machineId: head.machineId,
      supersedes: correction?.supersedes ?? null,
      reason: correction?.reason ?? null,
      withdrawn: false,
      command,
      slots: plan.slots,
      minutes: head.minutes,
      energyKwh: head.energyKwh,
      money: {
        purchaseMilli: plan.purchaseMilli,
        labourMilli: milliFromMajor((head.minutes / 60) * rates.wagePerHour),
        energyMilli: milliFromMajor(head.energyKwh * rates.energyPerKwh),
        revenueMilli: plan.revenueMilli,
        ...(plan.takingsMilli ? { takingsMilli: plan.takingsMilli } : {}),
      },
      postings: plan.postings,
      ...(overrides.length > 0 ? { overrides } : {}),
    };
  }

  /** Enters steps that belong together, all or none; what they say of holdings, lots and batches with them. */
  private enter(entering: readonly Entering[], finishing?: string): void {
    const steps = entering.map(({ step }) => step);
    const plans = entering.map(({ plan }) => plan);
    this.withHoldings(plans, () => this.book.check(steps, this.reserved(finishing)));
    for (const { step, plan } of entering) {
      for (const holding of plan.holdings) {
        holding.madeBy = step.id;
        this.book.addHolding(holding);
        this.pending.holdings.push(holding);
      }
      const made = step.slots['good'];
      if (plan.lot && made !== undefined && !this.lots.has(made)) {
        this.lots.set(made, plan.lot);
        this.pending.lots.push({ id: made, facts: plan.lot });
      }
      if (plan.batch) {
        // What was planned and chosen for it on the way stays when its first charge is corrected.
        const { acts, probe, restUntil } = this.batches.get(plan.batch.id) ?? {};
        const batch = { ...plan.batch, acts, probe, restUntil };
        this.batches.set(batch.id, batch);
        this.pending.batches.push(batch);
      }
    }
    for (const step of steps) this.insert(step);
    for (const { step, plan } of entering) {
      if (step.supersedes === null) continue;
      const changed = this.revisions.restate(step);
      this.pending.restated.push(...changed);
      if (changed.length > 0) this.worth = null;
      if (plan.lot) this.correctLot(step, plan, step.command as Command);
    }
  }

  /** Does something while the holdings that plans would make can be looked up. */
  private withHoldings<T>(plans: readonly StepPlan[], work: () => T): T {
    const fresh = plans.flatMap(({ holdings }) => holdings);
    for (const holding of fresh) this.book.holdings.set(holding.id, holding);
    try {
      return work();
    } finally {
      for (const holding of fresh) this.book.holdings.delete(holding.id);
    }
  }

  private insert(step: Step): void {
    this.book.insert(step);
    this.seq = step.seq;
    this.pending.steps.push(step);
    if (this.worth && !this.worth.append(step)) this.worth = null;
  }

  /** A corrected receipt corrects the lot's papers with it. */
  private correctLot(step: Step, plan: StepPlan, command: Command): void {
    const lotId = step.slots['good'];
    if (lotId === undefined || !plan.lot || command.kind !== 'receive') return;
    this.lots.set(lotId, plan.lot);
    const holding = this.book.holding(lotId);
    holding.name = command.name;
    holding.routeId = command.routeId;
    this.pending.lotFacts.push({ id: lotId, facts: plan.lot, name: command.name, routeId: command.routeId });
  }

  private currentStep(stepId: string): Step {
    const step = this.book.steps.get(stepId);
    if (!step)
      throw new DomainError('ledger/unknown-step', 'There is no such step.', [
        { path: 'id', message: 'is not known here' },
      ]);
    return step;
  }

  /** Takes a step back: it stays readable but counts no more. */
  withdraw(stepId: string, personId: string, reason: string): Step {
    this.checkHead({ personId, machineId: null });
    const old = this.currentStep(stepId);
    if (old.kind === 'sell') checkReturns(this.book, old, null);
    const step: Step = {
      ...old,
      id: nanoid(12),
      seq: this.seq + 1,
      recordedAt: this.now(),
      personId,
      supersedes: old.id,
      reason,
      withdrawn: true,
      minutes: 0,
      energyKwh: 0,
      money: { purchaseMilli: 0, labourMilli: 0, energyMilli: 0, revenueMilli: 0 },
      postings: [],
    };
    const later = this.revisions.following(step);
    this.book.check([step, ...later.map((row) => row.step)], this.reserved());
    this.insert(step);
    this.enter(later);
    return step;
  }

  /** Begins work that is weighed out later. */
  startWork(entry: StartWork): Work {
    this.checkHead(entry);
    if (STEP_OF[entry.station] === undefined) {
      throw new DomainError('work/no-work', 'Nothing runs at that station on its own.', [
        { path: 'station', message: 'has no work to start' },
      ]);
    }
    const kind = endsAs(entry);
    if (kind !== undefined) this.checkBeans(entry.sources, kind);
    checkBlocks(this.book, blocksOf(this.records), { kind: kind ?? 'sort', sources: entry.sources } as Command);
    const startedAt = this.timeOf(entry);
    const sources = takeForWork(this.book, entry.sources, startedAt, this.reserved());
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
      ...(entry.silk === true && entry.station === 'temper' ? { silk: true } : {}),
      ...(entry.roast && entry.station === 'roast'
        ? { roast: beginRoast(entry.roast, this.roastSpeed(entry.roast), nanoid(14)) }
        : {}),
    };
    this.works.set(work.id, work);
    this.pending.works.push(work);
    return work;
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
    this.works.set(workId, next);
    this.pending.works.push(next);
    return next;
  }

  /** Changes what is planned for a batch. */
  changeBatch(batchId: string, change: (batch: Batch) => Batch): Batch {
    const batch = this.batches.get(batchId);
    if (!batch) throw new DomainError('http/not-found', 'There is no such batch.');
    const next = change(batch);
    this.batches.set(batchId, next);
    this.pending.batches.push(next);
    return next;
  }

  /** Changes the facts of a roast that is live. */
  changeRoast(workId: string, change: (roast: LiveRoast) => LiveRoast): Work {
    const work = this.openWork(workId);
    if (!work.roast) throw new DomainError('work/closed', 'That work is no roast that is followed live.');
    const next: Work = { ...work, roast: change(work.roast) };
    this.works.set(workId, next);
    this.pending.works.push(next);
    return next;
  }

  private changeWork(work: Work, change: Partial<Work>): Work {
    const next: Work = { ...work, ...change };
    this.works.set(work.id, next);
    this.pending.works.push(next);
    return next;
  }

  /** Changes what is planned for a pour under way, and what was marked of it. */
  changePour(workId: string, change: (pour: LivePour) => LivePour): LivePour {
    const work = this.openWork(workId);
    if (work.station !== 'temper') throw new DomainError('work/closed', 'That work is no pour.');
    const pour = change(work.pour ?? NO_POUR);
    this.changeWork(work, { pour });
    return pour;
  }

  /** Changes what was filled and weighed of moulding under way. */
  changeMould(workId: string, change: (mould: LiveMould) => LiveMould): LiveMould {
    const work = this.openWork(workId);
    if (work.station !== 'mould') throw new DomainError('work/closed', 'That work is no moulding.');
    const mould = change(work.mould ?? NO_MOULD);
    this.changeWork(work, { mould });
    return mould;
  }

  /** Weighs work out: its step enters the book and the work is closed. */
  finishWork(workId: string, command: Command, head: EntryHead): Step {
    const work = this.openWork(workId);
    if (endsAs(work) !== command.kind || !hasSources(command)) {
      throw new DomainError('ledger/other-kind', 'That is not how this work ends.', [
        { path: 'kind', message: `is not ${endsAs(work)}` },
      ]);
    }
    const curve = work.roast ? (this.roastCurve?.(work) ?? null) : null;
    const whole =
      command.kind === 'roast' && work.roast
        ? { ...command, ...finishRoast(work.roast, command, elapsedS(work.roast, work.startedAt, this.now())) }
        : command.kind === 'temper' && work.pour && work.pour.marks.length > 0
          ? { marks: work.pour.marks, ...command }
          : command.kind === 'mould' && work.mould && work.mould.weightsG.length > 0
            ? { weightsG: work.mould.weightsG, ...command }
            : command;
    const curveId = curve && curve.readings > 0 ? curve.id : null;
    const step = this.record(whole.kind === 'roast' ? { ...whole, curveId } : whole, head, undefined, workId);
    const made = step.slots['good'];
    if (curve && curveId !== null && made !== undefined) this.addCurve({ ...curve, loadId: made });
    else if (work.roast) this.removeCurve(work.roast.curveId);
    const pour = work.station === 'temper' ? (this.pourCurve?.(work) ?? null) : null;
    if (pour && made !== undefined) this.addCurve({ ...pour, loadId: made });
    this.closeWork(workId, step.id);
    return step;
  }

  /** Puts everything back as if the work had not been started. */
  putBack(workId: string): void {
    const work = this.openWork(workId);
    const curve = work.roast?.curveId ?? this.pourCurve?.(work)?.id;
    if (curve !== undefined) this.removeCurve(curve);
    this.closeWork(workId, null);
  }

  private closeWork(workId: string, stepId: string | null): void {
    this.works.delete(workId);
    this.pending.closedWorks.push({ id: workId, at: this.now(), stepId });
  }

  fileBytes(fileId: string): Promise<Uint8Array | null> {
    return readFileBytes(this.db, fileId);
  }

  readCurve(curveId: string): ReturnType<typeof readCurve> {
    return readCurve(this.db, curveId);
  }

  readCurves(ids: readonly string[]): ReturnType<typeof readCurves> {
    return readCurves(this.db, ids);
  }

  /** Keeps the newest state of a curve that is still growing; no screen is told. */
  keepCurve(row: CurveRow): Promise<void> {
    const { curve: _, ...meta } = row;
    this.roasts.addCurve(meta);
    return writeCurve(this.db, row).then(this.sync);
  }

  closedWork(workId: string): ReturnType<typeof findClosedWork> {
    return findClosedWork(this.db, workId);
  }

  answerFor(key: string): ReturnType<typeof findAnswer> {
    return findAnswer(this.db, key);
  }

  keepAnswer(answer: typeof answers.$inferInsert): void {
    this.pending.answers.push(answer);
  }

  /** Drops what was not committed: an entry that failed half-way leaves nothing behind. */
  async discard(): Promise<void> {
    const { pending } = this;
    const dirty = Object.values(pending).some((list) => (Array.isArray(list) ? list.length > 0 : list !== undefined));
    if (dirty) await this.load();
  }

  /** Reads everything again from the database. */
  reload(): Promise<void> {
    return this.load();
  }

  /** Empties the workshop: only for a demo that begins again, and before a restore. */
  async empty(): Promise<void> {
    await clear(this.db);
    await this.load();
  }
}
