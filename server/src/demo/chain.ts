import type { CommandOf } from '@wunsch/core/commands';
import type { RejectReason } from '@wunsch/core/ledger/types';
import { grindSizes, readGauge } from '@wunsch/core/grind/simulated-stones';
import { normals, seeded } from '@wunsch/core/stats/chance';
import { seedOf, simulatedGrind } from '../devices/gauge';
import type { Demo } from './generator';
import { spillIfTooFull, tasteAtRest, tasteOnTheStones } from './grinds';
import { BarChain } from './bars';
import { DAY, HOUR, MINUTE } from './schedule';
import { recipeAt, recipeId } from './recipes';
import type { Plan } from './plan';
import { ORIGINS, round, type Origin } from './scenario';

/** Running hours after which the nibs run smooth and the sugar goes in. */
const SUGAR_AFTER_H = 9;

/** One batch from sack to blocks, acted out step by step. Masses are grams. */
export class BatchChain {
  private readonly greenG: number;
  private sorted: { id: string; g: number }[] = [];
  private roasted: { id: string; g: number }[] = [];
  private nibs: { id: string; g: number }[] = [];
  private batch = { id: '', code: '', g: 0 };

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
    const restedDays = plan.disagree ? 9.2 : plan.stop ? 14.3 : demo.chance.between(14, 19);
    const rested = demo.mornings(at + restedDays * DAY, at);
    if (plan.stop === 'rest') return;
    demo.after(rested, () => new BarChain(demo, plan, this.batch, restedDays).rest(blocks, rested));
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
