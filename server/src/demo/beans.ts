import type { BeanRecordValue, ContractLimits, Papers } from '@wunsch/core/beans/records';
import { contractLimits } from '@wunsch/core/beans/records';
import { NO_BEANS, type Tally } from '@wunsch/core/beans/cut-test';
import { USUAL_HOLD } from '@wunsch/core/beans/hold';
import type { Demo } from './generator';
import { trayPicture } from './picture';
import { DAY, HOUR } from './schedule';
import type { Origin } from './scenario';

/** Growing and curing of the made-up producers, by country. */
const CURING: Record<string, Partial<Papers>> = {
  'Viet Nam': {
    people: 'Mrs Thảo, for 41 households',
    altitudeM: 12,
    location: { lat: 10.1, lon: 106.3 },
    vessel: 'box',
    fermentDays: 6,
    turns: 3,
    dryingBy: 'sun',
    dryingDays: 8,
  },
  'São Tomé': {
    people: 'Amaro, overseer',
    altitudeM: 240,
    location: { lat: 0.35, lon: 6.6 },
    vessel: 'box',
    fermentDays: 5.5,
    turns: 3,
    dryingBy: 'sun and dryer',
    dryingDays: 7,
    certificates: ['organic, as claimed'],
  },
  Uganda: {
    people: 'Kasule family and neighbours',
    altitudeM: 980,
    location: { lat: 0.7, lon: 30.1 },
    vessel: 'basket',
    fermentDays: 6,
    turns: 2,
    dryingBy: 'sun',
    dryingDays: 9,
  },
  Fiji: {
    people: 'Litia and the women’s group',
    altitudeM: 60,
    location: { lat: -16.6, lon: 179.4 },
    vessel: 'box',
    fermentDays: 6.5,
    turns: 4,
    dryingBy: 'sun',
    dryingDays: 10,
    certificates: ['fair trade, as claimed'],
  },
};

const LIMITS: ContractLimits = { ...contractLimits.parse({}), flatPct: 4, rejectPct: 8 };
const PLACES = ['rack A', 'rack B', 'rack C', 'by the door'];
const FLAT_SHARE = 0.062;

/** What the hands of the demo write down about beans, beside the grams. */
export class BeanStory {
  /** Lots of which far too many beans are flat. */
  private readonly flat = new Set<string>();

  constructor(readonly demo: Demo) {}

  /** Writes something down, if it has happened yet. */
  write(lotId: string | null, at: number, value: BeanRecordValue, personId = this.demo.person()): void {
    if (at > this.demo.now) return;
    // A probe reads at night too.
    const when = value.kind === 'core' && value.by === 'probe' ? at : this.demo.doors.beforeClosing(at);
    this.demo.workshop.addBeanRecord(lotId, value, { personId, at: new Date(when).toISOString() });
  }

  /** A lot at the door: papers, sacks, inspection, decision, and looks while it lasts. */
  arrive(lotId: string, origin: Origin, at: number, sacks: number, netG: number, story: { moth?: boolean } = {}): void {
    this.write(lotId, at, papersFor(origin));
    this.write(lotId, at + 20 * 60_000, { kind: 'sacks', sacks: weighed(this.demo, sacks, netG) });
    this.write(lotId, at + 50 * 60_000, this.inspect(origin, story.moth === true));
    if (story.moth) return this.mothHold(lotId, at + HOUR);
    this.write(lotId, at + 60 * 60_000, {
      kind: 'decision',
      action: 'take-in',
      proposed: null,
      allowance: 0,
      word: '',
    });
    this.lookLater(lotId, at);
  }

  /** Looks at the sacks while there are any. */
  private lookLater(lotId: string, at: number): void {
    const { chance, workshop, options, now, schedule } = this.demo;
    const next = this.demo.hours(at + (options.months > 30 ? 28 : 14) * DAY + chance.between(-2, 1) * DAY);
    if (next > now) return;
    schedule.add(next, () => {
      if (!workshop.book.live.has(lotId)) return;
      this.write(lotId, next, { kind: 'look', moved: [], signs: false, note: '' });
      this.lookLater(lotId, next);
    });
  }

  private inspect(origin: Origin, moth: boolean): BeanRecordValue {
    const { chance } = this.demo;
    const moisture = (): number => Math.round(chance.around(7, 0.2) * 10) / 10;
    const size = origin.lot.country === 'Uganda' ? 104 : 93;
    const signs = {
      webbing: moth,
      droppings: false,
      larvae: moth ? 2 : 0,
      moths: 0,
      wetSacks: 0,
      tornSacks: 0,
      rodents: false,
      looked: true,
    };
    return {
      kind: 'inspection',
      smells: chance.yes(0.5) ? ['clean cocoa', 'fruity'] : ['clean cocoa', 'vinegar'],
      moisturePct: [moisture(), moisture(), moisture(), moisture()],
      per100g: [0, 1, 2].map(() => Math.round(chance.around(size, 2))),
      signs,
      cut: {
        planned: 300,
        beyond: false,
        tally: this.tally({
          partly: 0.11,
          purple: 0.03,
          slaty: 0.006,
          mouldy: 0.004,
          insect: moth ? 0.014 : 0.002,
          germinated: 0.002,
          flat: 0.005,
        }),
      },
      note: moth ? 'Webbing along the seam of sack 3, two larvae.' : '',
    };
  }

  /** A cut test of three hundred beans. */
  tally(shares: Partial<Record<keyof Tally, number>>): Tally {
    const tally = { ...NO_BEANS };
    for (let bean = 0; bean < 300; bean += 1) {
      let left = this.demo.chance.between(0, 1);
      const found = (Object.keys(shares) as (keyof Tally)[]).find((name) => (left -= shares[name] ?? 0) < 0) ?? 'brown';
      tally[found] += 1;
    }
    return tally;
  }

  /** Into the deep freeze, with a night in which the door stood open. */
  private mothHold(lotId: string, at: number): void {
    const { now } = this.demo;
    this.write(lotId, at, { kind: 'decision', action: 'hold', proposed: 'hold', allowance: 0, word: '' }, 'ilse');
    const began = this.demo.doors.beforeClosing(Math.max(at + DAY, now - 6.4 * DAY));
    this.write(
      lotId,
      began,
      {
        kind: 'hold',
        ...USUAL_HOLD.freeze,
        place: 'chest freezer, cold room',
        probe: true,
        toldBy: null,
        why: 'Webbing and two larvae in sack 3.',
      },
      'ilse',
    );
    const opened = began + 31 * HOUR;
    for (let time = began; time <= now; time += 2 * HOUR) {
      const cold = -23.4 + 40 * Math.exp(-(time - began) / HOUR / 9);
      const since = (time - opened) / HOUR;
      const warm = since > 0 && since < 40 ? 14 * Math.exp(-(((since - 9) / 6) ** 2)) : 0;
      this.write(
        lotId,
        time,
        { kind: 'core', tempC: Math.round((cold + warm + this.demo.chance.between(-0.3, 0.3)) * 10) / 10, by: 'probe' },
        'ilse',
      );
    }
  }

  isFlat(lotId: string): boolean {
    return this.flat.has(lotId);
  }

  /** Marks a lot as one that will be claimed for. */
  makeFlat(lotId: string): void {
    this.flat.add(lotId);
  }

  flatShare(lotId: string): number {
    return this.flat.has(lotId)
      ? FLAT_SHARE * this.demo.chance.between(0.9, 1.1)
      : this.demo.chance.between(0.006, 0.013);
  }

  /** After the first sack of a flat lot: photographed and claimed. */
  claim(lotId: string, at: number): void {
    const { workshop } = this.demo;
    if (workshop.beans.filesOf(lotId).length > 0) return;
    this.write(
      lotId,
      at,
      {
        kind: 'decision',
        action: 'allowance',
        proposed: 'allowance',
        allowance: 58,
        word: 'Flat beans, far more than the sample had. Claim sent with photographs.',
      },
      'perpetua',
    );
    for (const [index, caption] of ['Fifty beans from sack 1', 'Fifty beans from sack 2'].entries()) {
      const bytes = trayPicture(index + 4, 0.1);
      workshop.addFile(
        {
          lotId,
          subject: null,
          name: `tray-${index + 1}.png`,
          caption,
          type: 'image/png',
          width: 640,
          height: 400,
          personId: 'perpetua',
        },
        bytes,
      );
    }
  }

  /** Moth traps, counted on Mondays: few in winter, more in summer, and a jump since the last lot came. */
  traps(): void {
    const { demo } = this;
    const from = Math.max(demo.began, demo.now - 420 * DAY);
    for (let monday = from; monday < demo.now - DAY; monday += 7 * DAY) {
      const at = demo.hours(monday);
      const season = 1 + Math.cos((2 * Math.PI * (at - Date.UTC(2026, 7, 1))) / (365.25 * DAY));
      const lately = demo.now - at < 9 * DAY;
      for (const [trap, share] of [
        ['door', 1],
        ['rack B', 0.6],
      ] as const) {
        const usual = demo.chance.between(0, 1) * 1.6 * season * share;
        demo.schedule.add(at, () =>
          this.write(
            null,
            at,
            { kind: 'trap', trap, moths: Math.round(usual + (lately ? 6 * share + 3 : 0)), days: 7 },
            'danso',
          ),
        );
      }
    }
  }
}

/** What is known of a lot's growing and curing. */
export function papersFor(origin: Origin): Papers {
  return {
    kind: 'papers',
    people: '',
    altitudeM: null,
    location: null,
    vessel: '',
    fermentDays: null,
    turns: null,
    dryingBy: '',
    dryingDays: null,
    certificates: [],
    note: '',
    ...CURING[origin.lot.country],
    limits: LIMITS,
  };
}

/** Sacks that add up to the net weight. */
function weighed(
  demo: Demo,
  sacks: number,
  netG: number,
): { no: number; grossG: number; tareG: number; place: string }[] {
  const even = Math.round(netG / sacks);
  let left = netG;
  return Array.from({ length: sacks }, (_, index) => {
    const own = index === sacks - 1 ? left : Math.min(left, even + Math.round(demo.chance.between(-350, 350)));
    left -= own;
    const tareG = 540 + Math.round(demo.chance.between(0, 60));
    return { no: index + 1, grossG: own + tareG, tareG, place: PLACES[Math.floor(index / 4) % PLACES.length] ?? '' };
  });
}
