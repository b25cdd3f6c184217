import type { CommandOf } from '@wunsch/core/commands';
import type { RejectReason } from '@wunsch/core/ledger/types';
import type { Station } from '@wunsch/core/work/stations';
import { grindSizes, readGauge } from '@wunsch/core/grind/simulated-stones';
import { normals, seeded } from '@wunsch/core/stats/chance';
import { seedOf, simulatedGrind } from '../devices/gauge';
import type { Demo } from './generator';
import { spillIfTooFull, tasteAtRest, tasteOnTheStones } from './grinds';
import { DAY, HOUR, MINUTE } from './schedule';
import { DEARER_DAY, productId } from './goods';
import { recipeAt, recipeId } from './recipes';
import { fillMoulds, looksAtBars, moulded } from './moulds';
import { demoPour, followPour, keepPourLog } from './pours';
import { BUYERS, ORIGINS, PEOPLE, TASTING_WORDS, type Origin } from './scenario';

/** Running hours after which the nibs run smooth and the sugar goes in. */
const SUGAR_AFTER_H = 9;

/** What happens to one batch, and where it stops for now. */
export interface Plan {
  origin: Origin;
  at: number;
  /** Halts with work under way (or goods waiting) at this station. */
  stop?: Station | 'charge';
  small?: boolean;
  /** Nib yield lost to a winnower that has drifted. */
  drift?: number;
  flatBeans?: boolean;
  burntLoad?: boolean;
  lateButter?: boolean;
  ranOver?: boolean;
  bloomed?: boolean;
  disagree?: boolean;
  twoLots?: boolean;
}

const BAR_G = 70;
const USUAL_REST_DAYS = 16.5;
const round = (value: number, step = 5): number => Math.round(value / step) * step;

/** One batch from sack to shelf, acted out step by step. Masses are grams. */
export class BatchChain {
  private readonly greenG: number;
  private sorted: { id: string; g: number }[] = [];
  private roasted: { id: string; g: number }[] = [];
  private nibs: { id: string; g: number }[] = [];
  private batch = { id: '', code: '', g: 0 };
  private restedDays = USUAL_REST_DAYS;

  constructor(
    private readonly demo: Demo,
    private readonly plan: Plan,
  ) {
    this.greenG = plan.small ? 12_000 : 25_500 + Math.round(demo.chance.between(-1500, 1500));
  }

  start(): void {
    this.sort(this.plan.at);
  }

  private sort(at: number): void {
    const { demo, plan } = this;
    const { chance } = demo;
    const shares: [string, number][] = plan.twoLots
      ? [
          [demo.beans(plan.origin, this.greenG * 0.6, at), 0.6],
          [demo.beans(this.other(), this.greenG * 0.4, at), 0.4],
        ]
      : [[demo.beans(plan.origin, this.greenG, at, plan.flatBeans), 1]];
    let clock = at;
    for (const [lot, share] of shares) {
      const inG = Math.round(this.greenG * share);
      if (plan.stop === 'sort') {
        demo.workshop.startWork({
          station: 'sort',
          sources: [{ holdingId: lot, massG: inG }],
          machineId: 'sorting-table',
          personId: 'danso',
          at: new Date(demo.now - 38 * MINUTE).toISOString(),
          dueAt: new Date(demo.now + 55 * MINUTE).toISOString(),
          note: '',
        });
        return;
      }
      const minutes = (inG / 1000) * chance.between(3.6, 4.6);
      clock += minutes * MINUTE;
      const claimed = demo.beanStory.isFlat(lot);
      const flat = demo.beanStory.flatShare(lot);
      const goodShare = Math.min(0.985, chance.around(plan.origin.sortYield, 0.007)) - (claimed ? 0.05 : 0);
      const good = round(inG * goodShare);
      const rejectG = inG - good - Math.round(chance.between(5, 60));
      const step = demo.record(
        {
          kind: 'sort',
          sources: [{ holdingId: lot, massG: inG }],
          rejects: rejectShares(flat / (1 - goodShare), chance.between(0.25, 0.35)).map(([reason, part]) => ({
            reason,
            massG: Math.round(rejectG * part),
          })),
          goodG: good,
          note: claimed ? 'Far more flat beans than the sample had.' : '',
        },
        clock,
        demo.person(),
        { minutes: Math.round(minutes), machineId: 'sorting-table' },
      );
      this.sorted.push({ id: step.slots['good'] ?? '', g: good });
      if (claimed) demo.beanStory.claim(lot, clock + HOUR);
    }
    const first = demo.mornings(clock + 19 * HOUR, clock);
    const loads = this.sorted.reduce((sum, { g }) => sum + loadsOf(g), 0);
    const last = first + loads * (plan.origin.roastMinutes + 12) * MINUTE + 30 * MINUTE;
    demo.after(plan.stop === 'roast' ? demo.now : last, () => this.roast(first));
  }

  private other(): Origin {
    return this.demo.chance.pick(ORIGINS.filter((origin) => origin !== this.plan.origin));
  }

  private roast(at: number): void {
    const { demo, plan } = this;
    let clock = at;
    let load = 0;
    for (const tub of this.sorted) {
      const loads = loadsOf(tub.g);
      let left = tub.g;
      for (let i = 0; i < loads; i += 1) {
        load += 1;
        const inG = i === loads - 1 ? left : round(tub.g / loads);
        left -= inG;
        if (plan.stop === 'roast' && i === 2) {
          demo.roastStory.begin(plan.origin, tub.id, inG, 11);
          return;
        }
        if (plan.stop === 'roast') clock = demo.now - (3 - i) * 40 * MINUTE;
        clock += (plan.origin.roastMinutes + 12) * MINUTE;
        this.roastLoad(tub.id, inG, clock, load);
      }
    }
    const cool = demo.mornings(clock + 15 * HOUR, clock);
    demo.after(cool, () => this.winnow(cool));
  }

  private roastLoad(tub: string, inG: number, at: number, load: number): void {
    const { demo, plan } = this;
    const { chance } = demo;
    const burnt = plan.burntLoad === true && load === 2;
    const roasted = demo.roastStory.load(plan.origin, inG, burnt);
    const outG = round(inG * roasted.weightLeft);
    const step = demo.record(
      {
        kind: 'roast',
        sources: [{ holdingId: tub, massG: inG }],
        program: roasted.program,
        endBeanC: roasted.endBeanC,
        outG,
        how: roasted.how,
        note: burnt ? 'Door alarm not heard: smoke, bitter, black edges. Written off.' : '',
      },
      at,
      demo.person(),
      { minutes: 12, energyKwh: Math.round(chance.between(1.3, 1.7) * 100) / 100, machineId: 'convection-oven' },
    );
    const id = step.slots['good'] ?? '';
    demo.roastStory.keep(id, roasted, at);
    if (burnt) {
      demo.record(
        { kind: 'adjust', holdingId: id, countedG: 0, cause: 'write-off', note: 'Burnt load' },
        at + 20 * MINUTE,
        'ilse',
      );
      return;
    }
    this.roasted.push({ id, g: outG });
    if (chance.yes(0.012)) {
      const fixed = { ...(step.command as CommandOf<'roast'>), outG: round(outG - 40) };
      demo.workshop.record(
        fixed,
        {
          personId: 'tomo',
          machineId: step.machineId,
          minutes: step.minutes,
          energyKwh: step.energyKwh,
          at: new Date(at).toISOString(),
        },
        { supersedes: step.id, reason: 'The tray was on the scale: tare was wrong.' },
      );
      this.roasted[this.roasted.length - 1] = { id, g: round(outG - 40) };
    }
  }

  private winnow(at: number): void {
    const { demo, plan } = this;
    const { chance } = demo;
    const inG = this.roasted.reduce((sum, { g }) => sum + g, 0);
    const sources = this.roasted.map(({ id, g }) => ({ holdingId: id, massG: g }));
    if (plan.stop === 'winnow') {
      demo.workshop.startWork({
        station: 'winnow',
        sources: sources.slice(0, 2),
        machineId: 'cracker-column',
        personId: 'tomo',
        at: new Date(demo.now - 21 * MINUTE).toISOString(),
        dueAt: new Date(demo.now + 34 * MINUTE).toISOString(),
        note: '',
      });
      return;
    }
    // The best air is 4; what is off it throws nib away or leaves shell in.
    const air = chance.pick([3.5, 4, 4, 4.5, 5]);
    const nibShare = chance.around(plan.origin.nibYield - (plan.drift ?? 0) - 0.006 * (air - 4) ** 2, 0.005);
    const nibsG = round(inG * nibShare);
    const huskG = round(
      inG * Math.min(1 - nibShare - 0.012, chance.around(plan.origin.huskShare + (plan.drift ?? 0), 0.005)),
    );
    const step = demo.record(
      {
        kind: 'winnow',
        sources,
        nibsG,
        huskG,
        dustG: Math.round(inG * chance.between(0.004, 0.009)),
        setting: '',
        method: 'column',
        settings: { gapMm: 6, air, feedKgPerHour: 30, passes: 1 },
        shellSamples: this.samples(0.011 - 0.004 * (air - 4), 0.0015),
        nibSamples: this.samples(0.022 + 0.5 * (plan.drift ?? 0) + 0.008 * (air - 4), 0.002),
        note: '',
      },
      at,
      demo.person(),
      {
        minutes: Math.round((inG / 1000) * 3.1),
        energyKwh: Math.round((inG / 1000) * 0.06 * 100) / 100,
        machineId: 'cracker-column',
      },
    );
    this.nibs.push({ id: step.slots['good'] ?? '', g: nibsG });
    this.sellHusk(step.slots['husk'], huskG, at);
    if (plan.stop === 'charge') return;
    const start = demo.mornings(at + (plan.stop === 'grind' ? 2 : 17) * HOUR, at);
    demo.after(start, () => this.charge(start));
  }

  /** Two or three samples picked through, grams. */
  private samples(share: number, spread: number): { sampleG: number; foundG: number }[] {
    const { chance } = this.demo;
    return Array.from({ length: chance.yes(0.5) ? 2 : 3 }, () => ({
      sampleG: 100,
      foundG: Math.round(Math.max(0, 100 * chance.around(share, spread)) * 10) / 10,
    }));
  }

  private sellHusk(husk: string | undefined, grams: number, at: number): void {
    const { demo } = this;
    if (husk === undefined || grams <= 0 || !demo.chance.yes(0.7)) return;
    const day = demo.hours(at + demo.chance.between(5, 25) * DAY);
    demo.after(day, () => {
      demo.record(
        {
          kind: 'sell',
          sources: [{ holdingId: husk, massG: grams }],
          takings: Math.round(grams * 0.0021 * 100) / 100,
          to: 'Gull Street Gardens',
          note: 'Mulch',
        },
        day,
        'perpetua',
      );
    });
  }

  private charge(at: number): void {
    const { demo, plan } = this;
    const nibsG = this.nibs.reduce((sum, { g }) => sum + g, 0);
    const target = plan.origin.cocoaPct / 100;
    const { butterShare, version } = recipeAt(plan.origin, at, demo.now);
    const butterG = round(nibsG * butterShare);
    const sugarG = round((nibsG + butterG) / target - nibsG - butterG);
    const personId = demo.person();
    const first = demo.record(
      {
        kind: 'charge',
        batch: {
          name: `${plan.origin.bar} ${plan.origin.cocoaPct} %`,
          routeId: 'whole-bean',
          targetMicron: 19,
          cocoaTargetPct: plan.origin.cocoaPct,
          recipe: { id: recipeId(plan.origin), version },
        },
        sources: [
          ...(plan.lateButter ? [] : [{ holdingId: demo.pantry('butter', butterG, at), massG: butterG }]),
          ...this.nibs.map(({ id, g }) => ({ holdingId: id, massG: g })),
        ],
        note: '',
      },
      at,
      personId,
      { minutes: 55, machineId: plan.small ? 'stone-small' : 'stone-large' },
    );
    this.batch = {
      id: first.batchId ?? '',
      code: demo.workshop.batches.get(first.batchId ?? '')?.code ?? '',
      g: nibsG + sugarG + butterG,
    };
    const sweet = demo.hours(at + SUGAR_AFTER_H * HOUR, at);
    demo.after(sweet, () => {
      demo.record(
        {
          kind: 'charge',
          batchId: this.batch.id,
          sources: [{ holdingId: demo.pantry('sugar', sugarG, sweet), massG: sugarG }],
          note: 'After the nibs ran smooth',
        },
        sweet,
        personId,
        { minutes: 8 },
      );
    });
    if (plan.lateButter) {
      const late = demo.hours(at + 30 * HOUR, sweet);
      const extra = round(butterG * 1.6);
      this.batch.g += extra - butterG;
      demo.after(late, () => {
        demo.record(
          {
            kind: 'charge',
            batchId: this.batch.id,
            sources: [{ holdingId: demo.pantry('butter', extra, late), massG: extra }],
            note: 'Too thick to pour: more butter than planned, so the percent moved',
          },
          late,
          'ilse',
          { minutes: 5 },
        );
      });
    }
    if (plan.small) spillIfTooFull(demo, this.batch, sweet + HOUR, personId);
    this.readings(at, (sweet - at) / HOUR, personId);
  }

  /** Size falls towards what the stones can do; the gauge is a couple of microns out. */
  private readings(at: number, sugarH: number, personId: string): void {
    const { demo, plan } = this;
    const wanted = plan.origin.grindHours * (plan.ranOver ? 1.55 : plan.stop ? 1 : demo.chance.between(0.93, 1.08));
    // The stones are stopped when somebody is there.
    const stopped = demo.hours(at + wanted * HOUR, at);
    const end = plan.stop === 'grind' ? Math.max(stopped, demo.now + 5 * HOUR) : stopped;
    const hours = (end - at) / HOUR;
    const machine = plan.small ? 'stone-small' : 'stone-large';
    const populations = [
      { solid: 'cocoa' as const, atH: 0 },
      { solid: 'sugar' as const, atH: sugarH },
    ];
    // As long as this origin usually takes, from stones of another law than the one that is fitted to them.
    const usual = grindSizes(simulatedGrind(machine, this.batch.id, this.batch.g, populations), 300);
    const usualH =
      Math.max(
        1,
        usual.findIndex((size, index) => index > 100 && size <= 18.8),
      ) / 10;
    const grind = simulatedGrind(
      machine,
      this.batch.id,
      this.batch.g,
      populations,
      (usualH / plan.origin.grindHours) * demo.chance.between(0.93, 1.08),
    );
    const sizes = grindSizes(grind, hours + 1);
    const normal = normals(seeded(seedOf(this.batch.code)));
    let read = at;
    for (let hour = 14; hour < hours; hour += 10 + demo.chance.between(-1, 3)) {
      const when = demo.hours(at + hour * HOUR, read);
      // Two that fall on one night are one.
      if (when - read < 2 * HOUR || when >= end) continue;
      read = when;
      const micron = readGauge(grind.stones, sizes[Math.round(((when - at) / HOUR) * 10)] ?? 18, normal);
      demo.after(when, () => {
        demo.record(
          { kind: 'reading', batchId: this.batch.id, what: 'micron', value: micron, note: '' },
          when,
          personId,
          // A gauge reads off by a scratch now and then.
          { overrides: [{ gate: 'grind/coarser', word: 'Drawn down twice, and read so both times' }] },
        );
      });
    }
    tasteOnTheStones(demo, this.batch, { startedAt: at, hours, personId });
    demo.after(end, () => this.discharge(end, hours));
  }

  private discharge(at: number, hours: number): void {
    const { demo, plan } = this;
    const { chance } = demo;
    const holdUpG = round(chance.between(110, 240));
    const outG = this.batch.g - holdUpG - Math.round(chance.between(10, 90));
    const count = outG > 14_000 ? 3 : 2;
    const each = Math.floor(outG / count);
    const outsG = Array.from({ length: count }, (_, i) => (i === count - 1 ? outG - each * (count - 1) : each));
    const step = demo.record(
      {
        kind: 'discharge',
        batchId: this.batch.id,
        outsG,
        holdUpG,
        micron: plan.ranOver ? 13 : 18,
        note: plan.ranOver ? 'Forgot it over the feast day: ran over, thick and a little gummy' : '',
      },
      at,
      demo.person(),
      {
        minutes: 35,
        energyKwh: Math.round(hours * (plan.small ? 0.37 : 0.75) * 10) / 10,
        machineId: plan.small ? 'stone-small' : 'stone-large',
      },
    );
    const blocks = Object.values(step.slots).map((id, index) => ({ id, g: outsG[index] ?? 0 }));
    tasteAtRest(demo, this.batch, at);
    // One was wanted for a fair before its days were over.
    this.restedDays = plan.disagree ? 9.2 : plan.stop ? 14.3 : demo.chance.between(14, 19);
    const rested = demo.mornings(at + this.restedDays * DAY, at);
    if (plan.stop === 'rest') return;
    demo.after(rested, () => this.rest(blocks, rested));
  }

  private rest(blocks: { id: string; g: number }[], at: number): void {
    const { demo, plan } = this;
    const ready = blocks.map(({ id, g }) => {
      const step = demo.record({ kind: 'rest', sources: [{ holdingId: id, massG: g }], note: '' }, at, demo.person(), {
        minutes: 4,
        ...(plan.disagree
          ? { overrides: [{ gate: 'rest/too-young', word: 'Promised for the harbour fair, so it goes early' }] }
          : {}),
      });
      return { id: step.slots['good'] ?? '', g };
    });
    demo.after(at + 3 * HOUR, () => this.temper(ready, at + HOUR));
  }

  private temper(blocks: { id: string; g: number }[], at: number, again = false): void {
    const { demo, plan } = this;
    const chocolateG = blocks.reduce((sum, { g }) => sum + g, 0);
    const sources = blocks.map(({ id, g }) => ({ holdingId: id, massG: g }));
    if (plan.stop === 'temper') {
      const work = demo.workshop.startWork({
        station: 'temper',
        sources: sources.slice(0, 1),
        machineId: 'temper-machine',
        personId: 'perpetua',
        at: new Date(demo.now - 24 * MINUTE).toISOString(),
        dueAt: new Date(demo.now + 19 * MINUTE).toISOString(),
        note: '',
      });
      followPour(demo.workshop, work.id, sources[0]?.massG ?? 0, demo.now);
      return;
    }
    const bad = plan.bloomed === true && !again;
    const pour = demoPour(
      `${this.batch.code}${again ? ' again' : ''}`,
      plan.small === true,
      at < demo.began + 200 * DAY,
    );
    if (bad) Object.assign(pour, { meltC: 41, test: 'slow' });
    const silkG = pour.school === 'silk' ? round(chocolateG * 0.01) : 0;
    const step = demo.record(
      {
        kind: 'temper',
        sources: silkG === 0 ? sources : [...sources, { holdingId: demo.pantry('silk', silkG, at), massG: silkG }],
        method: pour.school,
        meltC: pour.meltC,
        coolC: pour.coolC,
        workC: pour.workC,
        test: pour.test,
        note: bad ? 'In a hurry: melt cut short' : '',
      },
      at,
      demo.person(),
      { minutes: 50, energyKwh: 1.6, machineId: silkG === 0 ? 'temper-machine' : null },
    );
    keepPourLog(demo.workshop, pour, { made: step.slots['good'] ?? '', code: this.batch.code, at }, demo.now);
    this.mould(step.slots['good'] ?? '', chocolateG + silkG, at + 90 * MINUTE, again);
  }

  private mould(tub: string, grams: number, at: number, again: boolean): void {
    const { demo, plan } = this;
    const { chance } = demo;
    if (plan.stop === 'mould') {
      const work = demo.workshop.startWork({
        station: 'mould',
        sources: [{ holdingId: tub, massG: grams }],
        machineId: 'cabinet',
        personId: 'tomo',
        at: new Date(demo.now - 64 * MINUTE).toISOString(),
        dueAt: new Date(demo.now + 8 * MINUTE).toISOString(),
        note: '',
      });
      fillMoulds(demo.workshop, work.id, demo.now);
      return;
    }
    const holdUpG = round(chance.between(120, 330));
    const meanG = chance.around(70.5, 0.25);
    const bars = Math.floor((grams - holdUpG) / meanG);
    const seconds = Math.round(chance.between(0, 7));
    const good = bars - seconds;
    const goodG = Math.round(good * meanG);
    const rest = Math.max(0, grams - holdUpG - goodG - seconds * BAR_G);
    const step = demo.record(
      {
        kind: 'mould',
        sources: [{ holdingId: tub, massG: grams }],
        barG: BAR_G,
        cavities: 120,
        goodPieces: good,
        goodG,
        secondsPieces: seconds,
        remeltG: 0,
        trimmingsG: Math.max(0, rest - Math.round(chance.between(0, Math.min(40, rest)))),
        holdUpG,
        mouldC: 22.5,
        setC: 14,
        air: { tempC: 20.5, humidityPct: 50 },
        ...moulded(`${this.batch.code}${again ? ' again' : ''}`, meanG, seconds),
        note: '',
      },
      at,
      demo.person(),
      { minutes: Math.round(40 + bars * 0.25), energyKwh: 1.1, machineId: 'cabinet' },
    );
    const barsId = step.slots['good'] ?? '';
    if (plan.bloomed && !again) {
      const grey = demo.mornings(at + 3 * DAY, at);
      demo.after(grey, () => {
        demo.record(
          {
            kind: 'reading',
            batchId: this.batch.id,
            what: 'seen',
            value: null,
            seen: ['veil', 'streaks'],
            bloom: 'fat',
            note: '',
          },
          grey - 0.5 * HOUR,
          'ilse',
        );
        const back = demo.record(
          {
            kind: 'remelt',
            sources: [{ holdingId: barsId, pieces: good }],
            why: 'bloom',
            note: 'Grey streaks on day three',
          },
          grey,
          'ilse',
          { minutes: 30 },
        );
        const again = demo.mornings(grey + 20 * HOUR, grey);
        demo.after(again + 3 * HOUR, () => this.temper([{ id: back.slots['good'] ?? '', g: goodG }], again, true));
      });
      return;
    }
    for (const { day, seen } of looksAtBars(this.batch.code)) {
      const looked = demo.hours(at + day * DAY, at);
      demo.after(looked, () => {
        const command = { kind: 'reading', batchId: this.batch.id, what: 'seen', value: null, seen, note: '' } as const;
        demo.record(command, looked, demo.person());
      });
    }
    if (plan.stop === 'pack') return;
    const set = demo.mornings(at + 16 * HOUR, at);
    demo.after(set, () => this.pack(barsId, good, set));
  }

  private pack(bars: string, count: number, at: number): void {
    const { demo, plan } = this;
    const best = new Date(at + 540 * DAY).toISOString().slice(0, 10);
    const step = demo.record(
      {
        kind: 'pack',
        holdingId: bars,
        pieces: count,
        labelCode: `${this.batch.code}-1`,
        bestBefore: best,
        packaging: [{ holdingId: demo.pantry('wrapper', count, at), pieces: count }],
        product: { id: productId(plan.origin), version: at < demo.began + DEARER_DAY * DAY ? 1 : 2 },
        note: '',
      },
      at,
      demo.person(),
      { minutes: Math.round(count * 0.42) },
    );
    const packed = step.slots['good'] ?? '';
    let left = count;
    if (plan.stop !== 'taste') {
      left -= 2;
      const tasted = demo.mornings(at + 3 * DAY, at);
      demo.after(tasted + HOUR, () => this.taste(packed, tasted));
    }
    for (let sale = 0; sale < 6; sale += 1) {
      const when = demo.hours(at + (4 + sale * 14 + demo.chance.between(0, 9)) * DAY);
      const pieces =
        sale === 5
          ? Math.max(0, left - (demo.chance.yes(0.25) ? 6 : 0))
          : Math.floor(left * demo.chance.between(0.15, 0.3));
      left -= pieces;
      if (pieces === 0) continue;
      demo.after(when, () => {
        const buyer = demo.chance.pick(BUYERS);
        demo.record(
          {
            kind: 'sell',
            sources: [{ holdingId: packed, pieces }],
            takings: Math.round(pieces * buyer.price * 100) / 100,
            to: buyer.name,
            channel: buyer.channel,
            note: '',
          },
          when,
          'perpetua',
          { minutes: 6 },
        );
      });
    }
  }

  private taste(packed: string, at: number): void {
    const { demo, plan } = this;
    const { chance } = demo;
    const tasters = plan.disagree ? PEOPLE : PEOPLE.slice(0, 2 + (chance.yes(0.4) ? 1 : 0));
    tasters.forEach((person, index) => {
      const off = plan.disagree ? ([2.1, -3, 0.4, -1.6][index % 4] ?? 0) : chance.around(0, 0.5);
      // A few days more on the shelf do these bars good.
      const rest = plan.disagree ? 0 : 0.3 * (this.restedDays - USUAL_REST_DAYS);
      const score =
        Math.round(Math.min(9.8, Math.max(1, plan.origin.score + rest + off - (plan.ranOver ? 0.7 : 0))) * 2) / 2;
      demo.record(
        {
          kind: 'taste',
          batchId: this.batch.id,
          holdingId: index < 2 ? packed : null,
          pieces: index < 2 ? 1 : 0,
          score,
          note:
            plan.disagree && off < -2
              ? 'Sour to me, as if conched too short. Taste again next week.'
              : chance.pick(TASTING_WORDS),
        },
        at + index * 6 * MINUTE,
        person.id,
        { minutes: 10 },
      );
    });
  }
}

/** Roast loads that a tub makes. */
const loadsOf = (grams: number): number => Math.max(1, Math.ceil(grams / 6000));

/** How a reject pile splits; the first share is what flat beans make of it. */
function rejectShares(flat: number, broken: number): [RejectReason, number][] {
  const first = Math.min(0.8, Math.max(0.1, flat));
  const rest = 1 - first;
  return [
    ['flat', first],
    ['broken', rest * broken * 1.4],
    ['clumped', rest * 0.16],
    ['shrivelled', rest * 0.14],
    ['mouldy', rest * 0.06],
    ['germinated', rest * 0.05],
    ['foreign', rest * 0.07],
  ];
}
