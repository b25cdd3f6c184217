import { changeRoast } from '../roast/work';
import { curveOf, roastReadings, type Curve } from '@wunsch/core/roast/curve';
import { curveRow } from '../store/curves';
import { plannedSettings, layerOf } from '@wunsch/core/roast/program';
import type { LoadFacts, Program, ProgramStep, SignMark } from '@wunsch/core/roast/records';
import {
  loadedOven,
  ovenWeightLeft,
  secondLater,
  someLoad,
  type OvenLoad,
  type OvenState,
  type SimulatedOven,
} from '@wunsch/core/roast/simulated-oven';
import { SIMULATED_DRUM, SIMULATED_OVEN, SimulatedRoastProbe } from '../devices/roast-probe';
import type { Demo } from './generator';
import { OVEN, ORIGINS, type Origin } from './scenario';
import { DAY, HOUR } from './schedule';

const MINUTE = 60_000;

/** What a load went through, for the book. */
export interface RoastedLoad {
  how: LoadFacts;
  program: { setC: number; minutes: number; note: string }[];
  endBeanC: number;
  weightLeft: number;
  curve: Curve;
}

/** Bean temperatures at which the demo's noses and ears notice something. */
const NOTICED: [what: string, beanC: number][] = [
  ['vinegar', 74],
  ['bread', 97],
  ['brownie', 108],
  ['shell rubs off', 112],
  ['popping', 116],
];

const step = (setC: number, minutes: number, note = ''): ProgramStep => ({ setC, minutes, until: null, note });

/** What goes up in smoke with a burnt load, beside its water, share of the weight. */
const CHARRED = 0.015;

const REASONS: Record<string, string> = {
  'Viet Nam': 'Bright and sour by nature: a steady end takes the edge off without baking the fruit.',
  'São Tomé': 'Dense, small beans: they want the heat early, and can take it.',
  Uganda: 'Uneven in size. A gentle middle, so that the small ones wait for the large.',
  Fiji: 'Soft and buttery; anything over 122 °C at the end tasted flat in the trials.',
};

const TRIAL_G = 800;
const trialSteps = (setC: number, minutes: number): ProgramStep[] => [
  step(setC + 8, minutes / 2),
  step(setC - 2, minutes / 2),
];

/** A load in an oven, second by second. @param stirs at which seconds it is stirred @returns its state at each second */
function roast(
  oven: SimulatedOven,
  load: OvenLoad,
  steps: readonly ProgramStep[],
  stirs: readonly number[],
): OvenState[] {
  const states = [loadedOven(oven, load)];
  let endS = 0;
  for (const { setC, minutes } of steps) {
    endS += 60 * minutes;
    for (let second = states.length - 1; second < endS - 0.5; second += 1) {
      const now = states.at(-1) as OvenState;
      states.push(secondLater(oven, load, now, { setC, stirred: stirs.includes(second) }));
    }
  }
  return states;
}

/** The setting at which the small drum brings the beans to a temperature: found by halving, as Ilse did by trying. */
function settingFor(peakC: number, minutes: number): number {
  let [low, high] = [peakC - 20, peakC + 80];
  while (high - low > 0.5) {
    const setC = (low + high) / 2;
    const own = { warming: 1, drying: 1, underC: 0 };
    const load = { massG: TRIAL_G, moisture: 0.07, beanStartC: 19, preheatC: setC + 10, own };
    const end = roast(SIMULATED_DRUM, load, trialSteps(setC, minutes), []).at(-1);
    if ((end?.probeC ?? 0) < peakC) low = setC;
    else high = setC;
  }
  return Math.round((low + high) / 2);
}

/** What the hands of the demo write down about roasting: programs, loads with their curves, a trial, one load live. */
export class RoastStory {
  constructor(private readonly demo: Demo) {}

  private readonly idOf = (origin: Origin): string => `falling-${ORIGINS.indexOf(origin) + 1}`;

  private write(value: Parameters<Demo['workshop']['addRoastRecord']>[0], at: number, personId = 'ilse'): void {
    const when = this.demo.doors.beforeClosing(at);
    this.demo.workshop.addRoastRecord(value, { personId, at: new Date(when).toISOString() });
  }

  /** The house programs, each with a first version that was found too short. */
  programs(): void {
    for (const origin of ORIGINS) {
      const programId = this.idOf(origin);
      const now = this.programOf(origin);
      const first = { ...now, steps: now.steps.map((s, i) => (i === 2 ? { ...s, minutes: s.minutes - 2 } : s)) };
      this.write({ kind: 'program', programId, version: 1, program: first }, this.demo.began - 3 * DAY);
      this.write({ kind: 'program', programId, version: 2, program: now }, this.demo.began - DAY);
    }
  }

  programOf(origin: Origin): Program {
    const { roastC, roastMinutes } = origin;
    const middle = Math.round((roastMinutes - 6) / 2);
    return {
      name: `${origin.bar}, falling`,
      kind: 'bean',
      school: 'steps',
      reason: REASONS[origin.bar] ?? '',
      roasterId: OVEN.id,
      loadG: 5000,
      preheatC: roastC + 24,
      stirEveryMin: 9,
      coolMin: 90,
      steps: [
        step(roastC + 24, 6, 'load cold beans'),
        step(roastC + 12, middle, 'stir at nine minutes'),
        step(roastC + 2, roastMinutes - 6 - middle),
      ],
      suits: [{ family: `${origin.lot.country}, ${origin.lot.region}`, why: 'tasted best of the trials' }],
      note: '',
    };
  }

  /** One load in the oven, as it went. @param burnt left in, too hot, until the smoke */
  load(origin: Origin, inG: number, burnt: boolean): RoastedLoad {
    const { chance } = this.demo;
    const plan = this.programOf(origin);
    const late = (): number => Math.round(chance.between(-5, 25)) / 60;
    const steps = burnt
      ? [...plan.steps.slice(0, 2), step((plan.steps[1]?.setC ?? 150) + 22, 24)]
      : plan.steps.map((row) => ({ ...row, minutes: row.minutes + late() }));
    const load = this.roasted(
      plan,
      steps,
      inG,
      layerOf(inG, OVEN.roaster ?? null),
      this.idOf(origin),
      chance.yes(0.03),
    );
    return burnt ? { ...load, weightLeft: load.weightLeft - CHARRED } : load;
  }

  private roasted(
    plan: Program,
    steps: ProgramStep[],
    inG: number,
    layerMm: number | null,
    programId: string | null,
    gap: boolean,
  ): RoastedLoad {
    const { chance, options } = this.demo;
    const everyS = options.months > 30 ? 15 : 5;
    const moisture = Math.min(0.085, Math.max(0.06, chance.around(0.07, 0.0025)));
    const beanStartC = Math.round(10 * chance.around(19, 1.2)) / 10;
    const oven = plan.school === 'drum' ? SIMULATED_DRUM : SIMULATED_OVEN;
    const load = someLoad(oven, { massG: inG, moisture, beanStartC, preheatC: plan.preheatC }, () =>
      chance.around(0, 1),
    );
    const totalS = Math.round(60 * steps.reduce((sum, { minutes }) => sum + minutes, 0));
    const every = plan.stirEveryMin;
    const stirs =
      every === null
        ? []
        : Array.from({ length: Math.floor(totalS / 60 / every) }, (_, i) =>
            Math.round(60 * every * (i + 1) + chance.between(-10, 40)),
          ).filter((second) => second < totalS - 60);
    const made = roast(oven, load, steps, stirs);
    const silent = gap ? chance.between(0.3, 0.6) * totalS : Infinity;
    const tenth = (value: number): number => Math.round(10 * value) / 10;
    const curve = curveOf(
      made.flatMap(({ probeC, airC }, second) =>
        (second % everyS > 0 && second < made.length - 1) || (second > silent && second < silent + 95)
          ? []
          : [[second, tenth(probeC + chance.around(0, 0.35)), tenth(airC + chance.around(0, 0.6))] as const],
      ),
    );
    const signs: SignMark[] = NOTICED.flatMap(([what, beanC]) => {
      const noticed = beanC + chance.around(0, 1.2);
      const second = made.findIndex(({ probeC }) => probeC >= noticed);
      return second < 0 || chance.yes(0.25) ? [] : [{ second, what, word: '' }];
    });
    const end = made.at(-1) as OvenState;
    return {
      how: {
        programId,
        version: programId === null ? null : 2,
        plan,
        moisturePct: null,
        layerMm: layerMm === null ? null : tenth(layerMm),
        beanStartC,
        probe: 'sent',
        seconds: totalS,
        settings: plannedSettings({ steps }).map((row) => ({ ...row, second: Math.round(row.second) })),
        signs: signs.sort((a, b) => a.second - b.second),
        stirs,
      },
      program: steps.map(({ setC, minutes, note }) => ({ setC, minutes: tenth(minutes), note })),
      endBeanC: tenth(end.probeC),
      weightLeft: ovenWeightLeft(load, end, 0.006 + chance.around(0, 0.001)) + chance.around(0, 0.001),
      curve,
    };
  }

  /** Keeps the curve of a load that is in the book. */
  keep(loadId: string, { curve, how }: RoastedLoad, at: number): void {
    this.demo.workshop.addCurve(
      curveRow(
        {
          id: `curve-${loadId}`,
          loadId,
          name: '',
          source: 'sent',
          startedAt: Math.round(at - 1000 * (how.seconds ?? 0)),
        },
        roastReadings(curve),
      ),
    );
  }

  /** Six roasts planned on one lot; five are made, four are tasted. */
  trial(lotId: string, at: number): void {
    const { demo } = this;
    const cells = [114, 120, 126].flatMap((peakC) => [18, 28].map((minutes) => ({ peakC, minutes })));
    const trialId = 'fiji-trial';
    this.write(
      {
        kind: 'trial',
        trialId,
        trial: { name: 'Fiji, new crop', lotId, roasterId: 'test-drum', loadG: 800, cells, note: '' },
      },
      at,
    );
    const panel: Record<number, number[]> = { 0: [6.5, 6, 7], 1: [7.5, 7, 7.5], 2: [8, 7.5, 8], 3: [7.5, 8.5, 8] };
    [2, 0, 3, 1, 5].forEach((cell, index) => {
      const when = at + (index + 1) * 40 * MINUTE;
      const { peakC, minutes } = cells[cell] ?? { peakC: 120, minutes: 20 };
      const setC = settingFor(peakC, minutes);
      const plan: Program = {
        ...this.programOf(ORIGINS[3] as Origin),
        name: `Trial ${peakC} °C, ${minutes} min`,
        school: 'drum',
        roasterId: 'test-drum',
        loadG: 800,
        preheatC: setC + 10,
        stirEveryMin: null,
        steps: trialSteps(setC, minutes),
        suits: [],
      };
      const load = this.roasted(plan, plan.steps, 800, null, null, false);
      const made = demo.record(
        {
          kind: 'roast',
          sources: [{ holdingId: lotId, massG: 800 }],
          program: load.program,
          endBeanC: load.endBeanC,
          outG: Math.round(800 * load.weightLeft),
          how: load.how,
          note: `Trial, roast ${cell + 1} of the plan.`,
        },
        when,
        'ilse',
        { minutes: 8, energyKwh: 0.5, machineId: 'test-drum' },
      );
      const loadId = made.slots['good'] ?? '';
      this.keep(loadId, load, when);
      this.write({ kind: 'trial-load', trialId, cell, loadId }, when + MINUTE);
      (panel[cell] ?? []).forEach((score, i) =>
        this.write(
          { kind: 'score', loadId, score, note: '' },
          when + DAY + i * 4 * MINUTE,
          ['ilse', 'tomo', 'danso'][i] ?? 'ilse',
        ),
      );
      demo.record(
        { kind: 'adjust', holdingId: loadId, countedG: 0, cause: 'sample', note: 'Cracked by hand, tasted as nibs.' },
        when + DAY + HOUR / 2,
        'ilse',
      );
    });
  }

  /** A load in the oven now, followed by a simulated probe. */
  begin(origin: Origin, tubId: string, massG: number, minutesAgo: number): void {
    const { workshop, now } = this.demo;
    const plan = this.programOf(origin);
    const work = workshop.startWork({
      station: 'roast',
      sources: [{ holdingId: tubId, massG }],
      machineId: OVEN.id,
      personId: 'ilse',
      at: new Date(now - minutesAgo * MINUTE).toISOString(),
      dueAt: null,
      note: '',
      roast: {
        programId: this.idOf(origin),
        version: 2,
        plan,
        moisturePct: null,
        layerMm: layerOf(massG, OVEN.roaster ?? null),
        beanStartC: 19.5,
        probe: 'simulated',
      },
    });
    changeRoast(workshop, work.id, (roast) => ({
      ...roast,
      settings: plannedSettings({ steps: plan.steps }).slice(0, 2),
      signs: [{ second: 402, what: 'vinegar', word: '' }],
      stirs: [556],
    }));
    this.live = work.id;
  }

  private live: string | null = null;

  /** Reads the live load's probe up to this moment, as it would have been read all along. */
  catchUp(): void {
    const { workshop } = this.demo;
    const work = this.live === null ? undefined : workshop.works.get(this.live);
    if (!work?.roast) return;
    const probe = new SimulatedRoastProbe();
    const { roast, startedAt } = work;
    const massG = work.sources.reduce((sum, { massMg }) => sum + massMg, 0) / 1000;
    const seconds = Math.floor((workshop.now() - startedAt) / 1000);
    const curve = curveOf(
      Array.from({ length: seconds + 1 }, (_, second) => {
        const reading = probe.read(work.id, roast, massG, second);
        return [second, reading?.beanC ?? NaN, reading?.airC ?? NaN] as const;
      }),
    );
    workshop.addCurve(
      curveRow(
        {
          id: roast.curveId,
          loadId: null,
          name: '',
          source: 'simulated',
          startedAt,
        },
        roastReadings(curve),
      ),
    );
  }
}
