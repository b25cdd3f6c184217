import type { Settings } from '@wunsch/core/workshop/schemas';
import { existsSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Command } from '@wunsch/core/commands';
import type { EntryHead } from '@wunsch/core/work/start';
import type { Step } from '@wunsch/core/ledger/types';
import type { Station } from '@wunsch/core/work/stations';
import type { Work } from '@wunsch/core/workshop/work';
import { ROUTE_TEMPLATES } from '@wunsch/core/workshop/routes';
import type { Workshop } from '../journal/workshop';
import { BeanStory } from './beans';
import { BatchChain } from './chain';
import { furnishBowls } from './grinds';
import { describeProducts, takeOrders } from './goods';
import { describeMoulds } from './moulds';
import type { Plan } from './plan';
import { holdSilk } from './pours';
import { planLadder, writeRecipes } from './recipes';
import { writeTastings } from './tastings';
import { complain } from './complaints';
import { ownHarvest } from './own-harvest';
import { offerSamples } from './samples';
import { RoastStory } from './roasts';
import { Chance, DAY, Doors, HOUR, MINUTE, Schedule } from './schedule';
import { MACHINES, MATERIALS, ORIGINS, PEOPLE, settingsAt, SUPPLIES, type Origin } from './scenario';

export interface DemoOptions {
  months: number;
  batches: number;
  seed?: number;
  /** Told now and then how much is done, 0 to 1. */
  progress?: (share: number) => void;
}

export const STANDARD_DEMO: DemoOptions = { months: 14, batches: 68 };
/** About 250 batches and 1,200 roast loads a year. */
export const yearsOf = (years: number): DemoOptions => ({ months: years * 12, batches: years * 250 });

/** For so many of the planned batches the winnower has been drifting, by so much of its nib yield each. */
const DRIFTING = 22;
const DRIFT_A_BATCH = 0.0018;

/** What is more recent stands where it is wanted for now, and is not put off. */
const LATELY_MS = 3.5 * DAY;

/** Steps per transaction while generating. */
const COMMIT_EVERY = 400;

interface LotState {
  id: string;
  leftG: number;
  origin: Origin;
}

/** The hands of the demo workshop: everything it does goes through the same doors as the interface. */
export class Demo {
  readonly chance: Chance;
  readonly schedule = new Schedule();
  readonly beanStory = new BeanStory(this);
  readonly roastStory = new RoastStory(this);
  readonly now: number;
  private readonly settings: Settings;
  readonly doors: Doors;
  private readonly lots: LotState[] = [];
  private lotCount = 0;
  private readonly stock = new Map<string, { id: string; left: number }>();
  private open = 0;

  constructor(
    readonly workshop: Workshop,
    readonly options: DemoOptions,
  ) {
    this.chance = new Chance(options.seed ?? 20_261);
    this.now = workshop.now();
    this.settings = settingsAt(this.now);
    this.doors = new Doors(this.settings);
  }

  /** Work that is going on at this moment. @param minutes since when, and until it is due */
  underWay(
    station: Station,
    sources: { holdingId: string; massG: number }[],
    hands: { machineId: string; personId: string },
    [since, left]: readonly [since: number, left: number],
  ): Work {
    const at = new Date(this.now - since * MINUTE).toISOString();
    const dueAt = new Date(this.now + left * MINUTE).toISOString();
    return this.workshop.startWork({ station, sources, ...hands, at, dueAt, note: '' });
  }

  /** When the workshop began. */
  get began(): number {
    return this.now - this.options.months * 30.4 * DAY;
  }

  record(command: Command, at: number, personId: string, extra: Partial<EntryHead> = {}): Step {
    this.open += 1;
    return this.workshop.record(command, {
      personId,
      machineId: null,
      minutes: 0,
      energyKwh: 0,
      ...extra,
      at: new Date(at).toISOString(),
    });
  }

  person(): string {
    return this.chance.pick(PEOPLE).id;
  }

  /** Takes beans of an origin from the oldest open lot; buys a new one when it runs short. */
  beans(origin: Origin, grams: number, at: number, flat = false): string {
    const open = this.lots.filter((row) => row.origin === origin && row.leftG >= grams);
    let lot = flat ? undefined : open[0];
    if (!lot) {
      lot = this.receive(origin, this.doors.beforeClosing(at - this.chance.between(2, 9) * DAY));
      this.lots.push(lot);
      if (flat) this.beanStory.makeFlat(lot.id);
    }
    lot.leftG -= grams;
    if (lot.leftG < 9_000) this.useUp(lot, at);
    return lot.id;
  }

  /** What is too little for a batch goes into test roasts some days later. */
  private useUp(lot: LotState, at: number): void {
    const grams = lot.leftG;
    lot.leftG = 0;
    if (grams <= 0) return;
    const tested = this.hours(at + 10 * DAY);
    this.schedule.add(tested, () =>
      this.record(
        {
          kind: 'adjust',
          holdingId: lot.id,
          countedG: 0,
          cause: 'sample',
          note: 'Too little for a batch: test roasts.',
        },
        tested,
        'ilse',
      ),
    );
  }

  receive(origin: Origin, at: number, moth = false): LotState {
    this.lotCount += 1;
    const large = this.options.months > 30;
    const sacks = Math.round(this.chance.between(large ? 30 : 3, large ? 44 : 7));
    const netG = Math.round(sacks * this.chance.around(62_300, 400));
    const year = new Date(at).getUTCFullYear();
    const step = this.record(
      {
        kind: 'receive',
        ...origin.lot,
        name: `${origin.lot.country}, ${origin.lot.producer}`,
        harvest: `${year}, ${this.chance.pick(['main crop', 'mid crop'])}`,
        sacks,
        netG,
        pricePerKg: Math.round(origin.lot.pricePerKg * this.chance.between(0.94, 1.09) * 100) / 100,
        freight: Math.round(origin.lot.freight * (sacks / 5)),
        moisturePct: Math.round(this.chance.around(7, 0.35) * 10) / 10,
        invoiceSacks: sacks,
        invoiceNetG: Math.round((netG * this.chance.between(0.9985, 1.004)) / 500) * 500,
        note: '',
      },
      at,
      this.person(),
      { minutes: 25 },
    );
    const id = step.slots['good'] ?? '';
    this.beanStory.arrive(id, origin, at, sacks, netG, { moth });
    return { id, leftG: netG, origin };
  }

  /** Something from the pantry, bought when it runs short. @returns the holding to take it from */
  pantry(key: string, amount: number, at: number): string {
    const supply = SUPPLIES[key];
    if (!supply) throw new RangeError(`no supply ${key}`);
    const held = this.stock.get(key);
    if (held && held.left >= amount) {
      held.left -= amount;
      return held.id;
    }
    const times = this.options.months > 30 ? 6 : 1;
    const quantity = Math.max((supply.massG ?? supply.pieces ?? 0) * times, amount);
    const step = this.record(
      {
        kind: 'buy',
        materialId: supply.materialId,
        supplier: supply.supplier,
        supplierBatch: `${key.slice(0, 2).toUpperCase()}${new Date(at).toISOString().slice(2, 10).replaceAll('-', '')}`,
        ...(supply.pieces === undefined ? { massG: quantity } : { pieces: quantity }),
        price: Math.round(supply.price * (quantity / (supply.massG ?? supply.pieces ?? 1)) * 100) / 100,
        note: '',
      },
      this.doors.beforeClosing(at - this.chance.between(1, 4) * DAY),
      this.person(),
      { minutes: 10 },
    );
    const id = step.slots['good'] ?? '';
    this.stock.set(key, { id, left: quantity - amount });
    return id;
  }

  /** Once a month sugar and butter are weighed: a little is always gone. */
  private count(at: number): void {
    for (const key of ['sugar', 'butter', 'milk']) {
      const held = this.stock.get(key);
      const there = held ? this.workshop.book.balanceAt(held.id, at).massMg / 1000 : 0;
      if (!held || there < 500 || held.left < 500) continue;
      const gone = Math.round(there * this.chance.between(0, 0.008));
      held.left -= gone;
      this.record(
        { kind: 'adjust', holdingId: held.id, countedG: there - gone, cause: 'unaccounted', note: 'Monthly count' },
        at,
        'perpetua',
      );
    }
    const next = this.hours(at + 30 * DAY);
    if (next < this.now) this.schedule.add(next, () => this.count(next));
  }

  /** Plays everything up to now. */
  async run(): Promise<void> {
    const { workshop } = this;
    if (workshop.routes.size === 0)
      for (const route of ROUTE_TEMPLATES) workshop.putRoute({ ...route, stations: [...route.stations] });
    workshop.putSettings(this.settings);
    for (const row of PEOPLE) workshop.putPerson(row);
    for (const row of MACHINES) workshop.putMachine(row);
    for (const row of MATERIALS) workshop.putMaterial(row);
    await workshop.commit();
    this.roastStory.programs();
    writeRecipes(workshop, this.now - this.options.months * 30.4 * DAY, this.now);
    describeProducts(workshop, this.began);
    this.planBatches();
    this.schedule.add(this.now - 9 * DAY, () => planLadder(workshop, this.now - 9 * DAY));
    const moths = this.hours(this.now - 17 * DAY);
    this.schedule.add(moths, () => {
      const origin = ORIGINS[2];
      if (origin) this.receive(origin, moths, true);
    });
    this.schedule.add(this.now - 32 * DAY, () => offerSamples(this.beanStory));
    this.schedule.add(this.now - 9.5 * DAY, () => ownHarvest(this.beanStory));
    const trialAt = this.mornings(this.now - 26 * DAY) + 2 * HOUR;
    this.schedule.add(trialAt, () => {
      const fiji = ORIGINS[3];
      if (fiji) this.roastStory.trial(this.beans(fiji, 5 * 800, trialAt), trialAt);
    });
    this.beanStory.traps();
    const first = this.hours(this.began + 40 * DAY);
    this.schedule.add(first, () => this.count(first));
    for (let act = this.schedule.take(this.now); act; act = this.schedule.take(this.now)) {
      act.run();
      if (this.open >= COMMIT_EVERY) {
        this.open = 0;
        await workshop.commit();
        this.options.progress?.(Math.min(1, (act.at - this.began) / (this.now - this.began)));
        // Let signals and requests through: a long generation must not look hung.
        await new Promise((resolve) => setImmediate(resolve));
      }
    }
    this.roastStory.catchUp();
    furnishBowls(this);
    complain(workshop, this.now);
    describeMoulds(workshop, this.began, this.now);
    takeOrders(workshop, this.began, this.now);
    writeTastings(workshop, this.began, this.now);
    holdSilk(workshop, this.pantry('butter', 600, this.now - 2 * DAY), 600, this.now);
    await workshop.commit();
    this.options.progress?.(1);
  }

  private planBatches(): void {
    const { batches } = this.options;
    const span = this.now - this.began - 34 * DAY;
    for (let i = 0; i < batches; i += 1) {
      const origin = this.originFor(i);
      // A quiet August, a busy autumn.
      const share = (i + 0.35 * Math.sin((2 * Math.PI * i) / 55)) / batches;
      const at = this.morning(this.began + 8 * DAY + span * share);
      this.begin({ origin, at, ...mishap(i, batches) });
    }
    this.planFlights();
  }

  private originFor(index: number): Origin {
    const origin = ORIGINS[(index * 7 + Math.floor(index / 9)) % ORIGINS.length];
    if (!origin) throw new RangeError('no origins');
    return origin;
  }

  /** Batches in flight: one halted before every station, at an hour counted back from now. */
  private planFlights(): void {
    const halts: { stop: NonNullable<Plan['stop']>; back: number }[] = [
      { stop: 'taste', back: 25.6 * DAY },
      { stop: 'pack', back: 24.5 * DAY },
      { stop: 'mould', back: 23.4 * DAY },
      { stop: 'temper', back: 23.4 * DAY },
      { stop: 'rest', back: 21.1 * DAY },
      { stop: 'rest', back: 15 * DAY },
      { stop: 'rest', back: 10 * DAY },
      { stop: 'grind', back: 72 * HOUR },
      { stop: 'grind', back: 55 * HOUR },
      { stop: 'charge', back: 50 * HOUR },
      { stop: 'winnow', back: 42 * HOUR },
      { stop: 'roast', back: 26 * HOUR },
      { stop: 'sort', back: 2.5 * HOUR },
    ];
    halts.forEach(({ stop, back }, index) => {
      // The winnower goes on drifting.
      const drift = DRIFT_A_BATCH * (DRIFTING + index);
      this.begin({ origin: this.originFor(index * 3 + 1), at: this.now - back, stop, drift, small: index % 5 === 2 });
    });
  }

  private begin(plan: Plan): void {
    const at = this.hours(plan.at);
    this.schedule.add(at, () => new BatchChain(this, { ...plan, at }).start());
  }

  /** Seven in the morning of that day, give or take. */
  morning(at: number): number {
    return this.doors.midnight(at) + (6.6 + this.chance.between(0, 1.6)) * HOUR;
  }

  /**
   * When something is done that would fall on a moment: while somebody is there, when the door is opened next; of the last
   * days before it was closed, as now is not to be passed.
   *
   * @param since what it follows: it is not before that
   */
  hours(at: number, since = 0): number {
    const next = this.doors.afterOpening(at);
    if (next <= this.now - LATELY_MS) return next;
    return Math.max(this.doors.beforeClosing(at), Math.min(at, since + 10 * MINUTE));
  }

  /** The same, in the first half of a day: for what takes the rest of it. */
  mornings(at: number, since = 0): number {
    const next = this.doors.inMorning(at);
    return next <= this.now - LATELY_MS ? next : this.hours(at, since);
  }

  after(at: number, run: () => void): void {
    this.schedule.add(at, run);
  }
}

/** The mistakes of the demo, at fixed batches counted from the end, so that they are always recent enough to find. */
function mishap(index: number, batches: number): Partial<Plan> {
  const fromEnd = batches - index;
  const drift = Math.max(0, DRIFTING - fromEnd) * DRIFT_A_BATCH;
  const special: Record<number, Partial<Plan>> = {
    46: { flatBeans: true },
    31: { burntLoad: true },
    26: { lateButter: true },
    19: { ranOver: true },
    14: { bloomed: true },
    9: { disagree: true },
    6: { twoLots: true },
  };
  return { drift, small: index % 4 === 3, ...special[fromEnd] };
}

const UNFINISHED = 'demo-unfinished';

/** Whether a demo was being made up in a directory when its server was ended. */
export const isUnfinished = (directory: string): boolean => existsSync(join(directory, UNFINISHED));

/** Fills an empty workshop with the demo. */
export async function makeDemo(workshop: Workshop, options: DemoOptions = STANDARD_DEMO): Promise<void> {
  const { directory } = workshop.store;
  const mark = directory === null ? null : join(directory, UNFINISHED);
  if (mark !== null) writeFileSync(mark, '', { mode: 0o600 });
  await new Demo(workshop, options).run();
  if (mark !== null) rmSync(mark);
}
