import type { Demo } from './generator';
import { DEARER_DAY, productId } from './goods';
import { fillMoulds, looksAtBars, moulded } from './moulds';
import type { Plan } from './plan';
import { demoPour, followPour, keepPourLog } from './pours';
import { BUYERS, PEOPLE, round, TASTING_WORDS } from './scenario';
import { DAY, HOUR, MINUTE } from './schedule';

const BAR_G = 70;
const USUAL_REST_DAYS = 16.5;

/** Blocks of one batch, acted out from the shelf to packed bars. Masses are grams. */
export class BarChain {
  constructor(
    private readonly demo: Demo,
    private readonly plan: Plan,
    private readonly batch: { id: string; code: string; g: number },
    private readonly restedDays: number,
  ) {}

  rest(blocks: { id: string; g: number }[], at: number): void {
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
      const work = demo.underWay(
        'temper',
        sources.slice(0, 1),
        { machineId: 'temper-machine', personId: 'perpetua' },
        [24, 19],
      );
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
      const work = demo.underWay(
        'mould',
        [{ holdingId: tub, massG: grams }],
        { machineId: 'cabinet', personId: 'tomo' },
        [64, 8],
      );
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
