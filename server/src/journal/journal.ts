import { nanoid } from 'nanoid';
import { mayBeWorked, type LotStanding } from '@wunsch/core/beans/state';
import type { Composition } from '@wunsch/core/composition/composition';
import { DomainError } from '@wunsch/core/errors/domain-error';
import { checkEntering } from '@wunsch/core/ledger/check';
import type { Position } from '@wunsch/core/ledger/entries';
import type { Command } from '@wunsch/core/commands';
import type { EntryHead } from '@wunsch/core/work/start';
import { hasSources } from '@wunsch/core/commands';
import { checkEntry, gatesOf, planStep } from '@wunsch/core/stations';
import { passGates } from '@wunsch/core/gates/gate';
import { cannotFollow, Revision } from '@wunsch/core/ledger/revision';
import { plainStep } from '@wunsch/core/ledger/plain-step';
import type { PlanContext, StepPlan } from '@wunsch/core/ledger/planner';
import type { Holding, Override, Step, StepKind } from '@wunsch/core/ledger/types';
import { ratesAt } from '@wunsch/core/money/rates';
import { formatMassBeside, toMg } from '@wunsch/core/units/mass';
import { milliFromMajor } from '@wunsch/core/units/money';
import { checkPackedAs } from '@wunsch/core/products/book';
import { blocksOf, checkBlocks } from '@wunsch/core/trace/blocks';
import { Kept } from './kept';
import { gateContext } from './stops';
import { Revisions, type Entering, type Reached } from './revisions';

export interface Correction {
  supersedes: string;
  reason: string;
}

/** The journal of a workshop: steps are planned, checked and entered, corrected and taken back; never changed. */
export abstract class Journal extends Kept {
  abstract readonly compositions: { of(holdingId: string): Composition };
  private readonly revisions = new Revisions(
    () => this.book,
    (old, on) => this.context(old, old, old.machineId, on),
  );

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
      mass: (mg, besideMg = mg) => formatMassBeside(mg, besideMg, this.settings.massSystem),
      newCode: (letter) => this.nextCode(letter),
    };
  }

  private checkEntering(steps: readonly Step[], finishing?: string): void {
    checkEntering(this.book, steps, this.reserved(finishing), this.settings.massSystem);
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
    const old = correction ? this.currentStep(correction.supersedes) : undefined;
    const at = this.timeOfEntry(head, old);
    if (old && old.kind !== command.kind) {
      throw new DomainError('ledger/other-kind', 'A correction stays the same kind of step.', [
        { path: 'kind', message: `is not ${old.kind}` },
      ]);
    }
    checkEntry(command, { book: this.book, settings: this.settings, old: old ?? null });
    if (!old && hasSources(command)) this.checkBeans(command.sources, command.kind);
    if (!old) checkBlocks(this.book, blocksOf(this.records), command);
    checkPackedAs(this.records, command);
    const seq = this.seq + 1;
    const order = old?.order ?? seq;
    const begun = finishing === undefined ? undefined : this.works.get(finishing)?.overrides;
    const counters = this.numbered;
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
      this.renumber(counters);
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
    const counters = this.numbered;
    const old = this.currentStep(supersedes);
    const at = this.timeOfEntry(head, old);
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
      this.renumber(counters);
    }
  }

  private refusalOf(steps: readonly Step[], plans: readonly StepPlan[]): DomainError | null {
    try {
      this.withHoldings(plans, () => this.checkEntering(steps));
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
  protected checkBeans(sources: readonly { holdingId: string }[], kind: StepKind): void {
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
    for (const step of steps) this.checkRow('steps', step);
    this.withHoldings(plans, () => this.checkEntering(steps, finishing));
    for (const { step, plan } of entering) {
      for (const planned of plan.holdings) {
        const holding = { ...planned, madeBy: step.id };
        this.book.addHolding(holding);
        this.undoBy(() => this.book.removeHolding(holding.id));
        this.pending.holdings.push(holding);
      }
      const made = step.slots['good'];
      if (plan.lot && made !== undefined && !this.lots.has(made)) {
        this.put(this.lots, made, plan.lot);
        this.pending.lots.push({ id: made, facts: plan.lot });
      }
      if (plan.batch) {
        // What was planned and chosen for it on the way stays when its first charge is corrected.
        const { acts, probe, restUntil } = this.batches.get(plan.batch.id) ?? {};
        const batch = { ...plan.batch, acts, probe, restUntil };
        this.putBatch(batch);
      }
    }
    for (const step of steps) this.insert(step);
    for (const { step, plan } of entering) {
      if (step.supersedes === null) continue;
      const changed = this.revisions.restate(step, (holding) => this.restoreLater(holding));
      this.pending.restated.push(...changed);
      if (changed.length > 0) this.worths.drop();
      if (plan.lot) this.correctLot(step, plan, step.command as Command);
    }
  }

  /** Does something while the holdings that plans would make can be looked up. */
  private withHoldings<T>(plans: readonly StepPlan[], work: () => T): T {
    return this.book.holdings.with(
      plans.flatMap(({ holdings }) => holdings),
      work,
    );
  }

  /** Remembers what is said of a holding, in case that what is entered now is dropped. */
  private restoreLater(holding: Holding): void {
    const said = { ...holding };
    this.undoBy(() => void this.book.restate(said));
  }

  private insert(step: Step): void {
    this.book.insert(step);
    this.undoBy(() => this.book.takeBack(step));
    this.seq = step.seq;
    this.pending.steps.push(step);
    this.worths.insert(step);
  }

  /** A corrected receipt corrects the lot's papers with it. */
  private correctLot(step: Step, plan: StepPlan, command: Command): void {
    const lotId = step.slots['good'];
    if (lotId === undefined || !plan.lot || command.kind !== 'receive') return;
    this.put(this.lots, lotId, plan.lot);
    const holding = this.book.holding(lotId);
    this.restoreLater(holding);
    this.book.restate({ ...holding, name: command.name, routeId: command.routeId });
    this.pending.lotFacts.push({ id: lotId, facts: plan.lot, name: command.name, routeId: command.routeId });
  }

  /** When something was done: what a correction does not say of it stays as it was. */
  private timeOfEntry(head: EntryHead, old: Step | undefined): number {
    return old && head.at === undefined ? old.at : this.timeOf(head);
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
    checkEntry(null, { book: this.book, settings: this.settings, old });
    const step: Step = {
      ...plainStep(old),
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
    this.checkEntering([step, ...later.map((row) => row.step)]);
    this.insert(step);
    this.enter(later);
    return step;
  }
}
