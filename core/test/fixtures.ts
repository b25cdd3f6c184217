import { Book } from '../src/ledger/book';
import { formatMassBeside, type MassSystem } from '../src/units/mass';
import { checkEntering } from '../src/ledger/check';
import type { Position } from '../src/ledger/entries';
import type { Command } from '../src/commands';
import { planStep } from '../src/stations';
import type { CodeLetter, PlanContext } from '../src/ledger/planner';
import { cannotFollow, consequences, Revision } from '../src/ledger/revision';
import { plainStep } from '../src/ledger/plain-step';
import type { Batch, Holding, Material, Step } from '../src/ledger/types';
import { milliFromMajor } from '../src/units/money';
import { ROUTE_TEMPLATES } from '../src/workshop/routes';

export const MATERIALS: Material[] = [
  { id: 'sugar', name: 'Sugar', kind: 'ingredient', cocoa: 'none', sugar: true, allergens: [] },
  { id: 'butter', name: 'Cocoa butter', kind: 'ingredient', cocoa: 'butter', sugar: false, allergens: [] },
  { id: 'wrapper', name: 'Wrapper', kind: 'packaging', cocoa: 'none', sugar: false, allergens: [] },
];

/** Nibs in a tub, of which nothing else is known. */
export const tub = (id: string, code = id.toUpperCase()): Holding => ({
  id,
  code,
  kind: 'nibs',
  name: id,
  place: 'grind',
  routeId: null,
  batchId: null,
  materialId: null,
  madeBy: 's1',
});

export interface Extra {
  at?: number;
  minutes?: number;
  supersedes?: string;
}

export const HOUR = 3_600_000;
export const START = Date.UTC(2026, 0, 5, 6);

/** A workshop of only the core: plans, checks and enters steps as the server does, an hour apart. */
export class Bench {
  readonly book = new Book();
  readonly batches = new Map<string, Batch>();
  private count = 0;
  private codes = 0;
  private clock = START;
  wagePerHour = 12;
  massSystem: MassSystem = 'metric';

  do(command: Command, extra: Extra = {}): Step {
    this.clock += HOUR;
    const at = extra.at ?? this.clock;
    const seq = this.count + 1;
    const old = extra.supersedes === undefined ? undefined : this.book.steps.get(extra.supersedes);
    const moment = { at: old && extra.at === undefined ? old.at : at, order: old?.order ?? seq };
    const plan = planStep(command, this.context(moment, old));
    const minutes = extra.minutes ?? 0;
    const step: Step = {
      id: `s${seq}`,
      seq,
      order: moment.order,
      kind: command.kind,
      station: plan.station,
      at: moment.at,
      recordedAt: this.clock,
      personId: 'p',
      batchId: plan.batchId,
      machineId: null,
      supersedes: extra.supersedes ?? null,
      reason: null,
      withdrawn: false,
      command,
      slots: plan.slots,
      minutes,
      energyKwh: 0,
      money: {
        purchaseMilli: plan.purchaseMilli,
        labourMilli: milliFromMajor((minutes / 60) * this.wagePerHour),
        energyMilli: 0,
        revenueMilli: plan.revenueMilli,
        ...(plan.takingsMilli ? { takingsMilli: plan.takingsMilli } : {}),
      },
      postings: plan.postings,
    };
    const steps = [step];
    this.book.holdings.with(plan.holdings, () => {
      steps.push(...this.following(step));
      checkEntering(this.book, steps, undefined, this.massSystem);
    });
    for (const holding of plan.holdings) this.book.addHolding({ ...holding, madeBy: step.id });
    if (plan.batch) this.batches.set(plan.batch.id, plan.batch);
    for (const row of steps) this.book.insert(row);
    this.count = steps.at(-1)?.seq ?? seq;
    return step;
  }

  withdraw(old: Step): void {
    const seq = this.count + 1;
    const money = { purchaseMilli: 0, labourMilli: 0, energyMilli: 0, revenueMilli: 0 };
    const step: Step = {
      ...plainStep(old),
      id: `s${seq}`,
      seq,
      supersedes: old.id,
      withdrawn: true,
      postings: [],
      money,
    };
    const steps = [step, ...this.following(step)];
    checkEntering(this.book, steps, undefined, this.massSystem);
    for (const row of steps) this.book.insert(row);
    this.count = steps.at(-1)?.seq ?? seq;
  }

  private following(step: Step): Step[] {
    let { seq } = step;
    const made: Step[] = [];
    const reached = consequences<Command>(
      this.book,
      [step],
      (command, old, on) => planStep(command, this.context(old, old, on)),
      (old, command, { postings, slots }) => {
        seq += 1;
        const next: Step = { ...plainStep(old), id: `s${seq}`, seq, supersedes: old.id, command, slots, postings };
        made.push(next);
        return next;
      },
    );
    const stuck = reached.find(({ plan }) => plan === null);
    if (stuck) throw cannotFollow(stuck);
    return made;
  }

  private context({ at, order }: Position, old?: Step, on = new Revision(this.book)): PlanContext {
    return {
      book: this.book,
      at,
      order,
      before: (holdingId) => on.before(holdingId, { at, order }, old?.id),
      first: old ? this.book.firstVersion(old) : null,
      oldSlots: old?.slots ?? {},
      machineId: null,
      route: (id) => ROUTE_TEMPLATES.find((route) => route.id === id) ?? fail(`route ${id}`),
      batch: (id) => this.batches.get(id) ?? fail(`batch ${id}`),
      material: (id) => MATERIALS.find((row) => row.id === id) ?? fail(`material ${id}`),
      newId: () => `h${(this.codes += 1)}`,
      mass: (mg, besideMg = mg) => formatMassBeside(mg, besideMg, this.massSystem),
      newCode: (letter: CodeLetter) => `${letter}${(this.codes += 1)}`,
    };
  }

  lot(netG: number, pricePerKg = 5, freight = 0, producer = 'Ridge Growers'): Step {
    return this.do({
      kind: 'receive',
      name: producer,
      producer,
      country: 'Uganda',
      region: 'west',
      variety: '',
      harvest: '',
      form: 'beans',
      routeId: 'whole-bean',
      sacks: 1,
      netG,
      pricePerKg,
      currency: 'EUR',
      rate: 1,
      freight,
      moisturePct: 7,
      note: '',
    });
  }

  buy(materialId: string, massG: number, price: number): Step {
    return this.do({
      kind: 'buy',
      materialId,
      supplier: 'Shop',
      supplierBatch: '',
      note: '',
      price,
      ...(materialId === 'wrapper' ? { pieces: massG } : { massG }),
    });
  }
}

export const made = (step: Step, slot = 'good'): string => step.slots[slot] ?? fail(`slot ${slot}`);

export function fail(what: string): never {
  throw new Error(`no ${what}`);
}

/** The code of the refusal that a deed ends in. */
export function refusal(deed: () => unknown): string {
  try {
    deed();
  } catch (error) {
    return (error as { code?: string }).code ?? String(error);
  }
  return 'not refused';
}
