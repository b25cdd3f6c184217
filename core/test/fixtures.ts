import { Book } from '../src/ledger/book';
import type { Command } from '../src/ledger/commands';
import { planStep } from '../src/ledger/plan';
import type { CodeLetter, PlanContext } from '../src/ledger/planner';
import type { Batch, Material, Step } from '../src/ledger/types';
import { milliFromMajor } from '../src/units/money';
import { ROUTE_TEMPLATES } from '../src/workshop/routes';

export const MATERIALS: Material[] = [
  { id: 'sugar', name: 'Sugar', kind: 'ingredient', cocoa: 'none', sugar: true, allergens: [] },
  { id: 'butter', name: 'Cocoa butter', kind: 'ingredient', cocoa: 'butter', sugar: false, allergens: [] },
  { id: 'wrapper', name: 'Wrapper', kind: 'packaging', cocoa: 'none', sugar: false, allergens: [] },
];

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

  do(command: Command, extra: Extra = {}): Step {
    this.clock += HOUR;
    const at = extra.at ?? this.clock;
    const seq = this.count + 1;
    const old = extra.supersedes === undefined ? undefined : this.book.steps.get(extra.supersedes);
    const context: PlanContext = {
      book: this.book,
      at: old && extra.at === undefined ? old.at : at,
      order: old?.order ?? seq,
      oldSlots: old?.slots ?? {},
      machineId: null,
      route: (id) => ROUTE_TEMPLATES.find((route) => route.id === id) ?? fail(`route ${id}`),
      batch: (id) => this.batches.get(id) ?? fail(`batch ${id}`),
      material: (id) => MATERIALS.find((row) => row.id === id) ?? fail(`material ${id}`),
      newId: () => `h${(this.codes += 1)}`,
      newCode: (letter: CodeLetter) => `${letter}${(this.codes += 1)}`,
    };
    const plan = planStep(command, context);
    const minutes = extra.minutes ?? 0;
    const step: Step = {
      id: `s${seq}`,
      seq,
      order: context.order,
      kind: command.kind,
      station: plan.station,
      at: context.at,
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
      },
      postings: plan.postings,
    };
    for (const holding of plan.holdings) this.book.holdings.set(holding.id, holding);
    try {
      this.book.check([step]);
    } catch (error) {
      for (const holding of plan.holdings) this.book.holdings.delete(holding.id);
      throw error;
    }
    for (const holding of plan.holdings) this.book.addHolding({ ...holding, madeBy: step.id });
    if (plan.batch) this.batches.set(plan.batch.id, plan.batch);
    this.book.insert(step);
    this.count = seq;
    return step;
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
