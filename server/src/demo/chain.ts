import type { CommandOf } from '@wunsch/core/commands';
import type { RejectReason } from '@wunsch/core/ledger/types';
import type { Demo } from './generator';
import { BowlChain } from './bowls';
import { DAY, HOUR, MINUTE } from './schedule';
import type { Plan } from './plan';
import { ORIGINS, round, type Origin } from './scenario';

/** One batch from sack to nibs, acted out step by step. Masses are grams. */
export class BatchChain {
  private readonly greenG: number;
  private sorted: { id: string; g: number }[] = [];
  private roasted: { id: string; g: number }[] = [];

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
        demo.underWay(
          'sort',
          [{ holdingId: lot, massG: inG }],
          { machineId: 'sorting-table', personId: 'danso' },
          [38, 55],
        );
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
      demo.underWay('winnow', sources.slice(0, 2), { machineId: 'cracker-column', personId: 'tomo' }, [21, 34]);
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
    const nibs = [{ id: step.slots['good'] ?? '', g: nibsG }];
    this.sellHusk(step.slots['husk'], huskG, at);
    if (plan.stop === 'charge') return;
    const start = demo.mornings(at + (plan.stop === 'grind' ? 2 : 17) * HOUR, at);
    demo.after(start, () => new BowlChain(demo, plan, nibs).charge(start));
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
