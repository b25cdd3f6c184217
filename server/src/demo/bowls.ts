import { grindSizes, readGauge } from '@wunsch/core/grind/simulated-stones';
import { normals, seeded } from '@wunsch/core/stats/chance';
import { seedOf, simulatedGrind } from '../devices/gauge';
import { BarChain } from './bars';
import type { Demo } from './generator';
import { spillIfTooFull, tasteAtRest, tasteOnTheStones } from './grinds';
import type { Plan } from './plan';
import { recipeAt, recipeId } from './recipes';
import { round } from './scenario';
import { DAY, HOUR } from './schedule';

/** Running hours after which the nibs run smooth and the sugar goes in. */
const SUGAR_AFTER_H = 9;

/** One bowl from nibs to blocks. Masses are grams. */
export class BowlChain {
  private batch = { id: '', code: '', g: 0 };

  constructor(
    private readonly demo: Demo,
    private readonly plan: Plan,
    private readonly nibs: readonly { id: string; g: number }[],
  ) {}

  charge(at: number): void {
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
