import { fitRoaster } from '../../src/roast/fit';
import { isDue, lookAhead, nextAct, nextSetting, nextStirS, whereIn } from '../../src/roast/live';
import { elapsedS } from '../../src/run/clock';
import {
  checkProgram,
  layerOf,
  plannedSettings,
  programMinutes,
  without,
  withEnd,
  withSetting,
  withSplit,
} from '../../src/roast/program';
import { READY_MADE } from '../../src/roast/ready-made';
import { program } from '../../src/roast/records';
import { SCHOOLS } from '../../src/work/roasting-words';
import { airFromSettings } from '../../src/roast/simulate';
import { FALLING, madeLoad, normals, step } from './made';

const plan = program.parse({ name: 'Test', loadG: 5000, preheatC: 160, steps: FALLING });
const first = [{ second: 0, setC: 160, step: 0 }];

describe('a roast under way', () => {
  test('the clock runs at its speed and stands still once the load is out', () => {
    const clock = { startedAt: 1000, speed: 1, seconds: null };
    expect(elapsedS(clock, 61_000)).toBe(60);
    expect(elapsedS({ ...clock, speed: 60 }, 61_000)).toBe(3600);
    expect(elapsedS({ ...clock, speed: 60, seconds: 1400 }, 9_000_000)).toBe(1400);
    expect(elapsedS({ ...clock, startedAt: 5000 }, 1000)).toBe(0);
  });

  test('where it stands and what is next', () => {
    expect(whereIn(plan, first)).toEqual({ step: 0, beganS: 0, setC: 160, endsS: 360 });
    expect(nextAct(plan, first)).toEqual({ act: { what: 'set', setC: 145, note: '' }, atS: 360, sooner: null });
    const second = [...first, { second: 400, setC: 145, step: 1 }];
    // It was lowered forty seconds late: its eight minutes count from then.
    expect(nextAct(plan, second)?.atS).toBe(400 + 480);
    const last = [...second, { second: 880, setC: 132, step: 2 }];
    expect(nextAct(plan, last)).toMatchObject({ act: { what: 'out' }, atS: 880 + 600 });
    expect(nextAct(null, first)).toBeNull();
  });

  test('a setting changed by hand within a step does not begin it again', () => {
    const changed = [...first, { second: 200, setC: 150, step: 0 }];
    expect(whereIn(plan, changed)).toEqual({ step: 0, beganS: 0, setC: 150, endsS: 360 });
  });

  test('a step is over after its minutes, at its bean temperature, or with its sign', () => {
    const live = { plan, settings: first, signs: [] };
    expect(isDue(live, 359, null)).toBe(false);
    expect(isDue(live, 360, null)).toBe(true);
    const bean = { ...plan, steps: [step(160, 20, { what: 'bean', beanC: 110 }), step(130, 5)] };
    expect(isDue({ ...live, plan: bean }, 300, 109)).toBe(false);
    expect(isDue({ ...live, plan: bean }, 300, 110)).toBe(true);
    const sign = { ...plan, steps: [step(160, 20, { what: 'sign', sign: 'popping' }), step(130, 5)] };
    expect(isDue({ ...live, plan: sign }, 300, 140)).toBe(false);
    expect(isDue({ ...live, plan: sign, signs: [{ second: 290, what: 'popping', word: '' }] }, 300, 140)).toBe(true);
    expect(nextSetting({ plan, settings: first }, 372)).toEqual({ second: 372, setC: 145, step: 1 });
    expect(nextSetting({ plan, settings: [{ second: 900, setC: 132, step: 2 }] }, 1500)).toBeNull();
  });

  test('the next stirring counts from the last', () => {
    expect(nextStirS(8, [])).toBe(480);
    expect(nextStirS(8, [500])).toBe(980);
    expect(nextStirS(null, [])).toBeNull();
  });

  test('looking ahead from the middle comes close to how it goes on', () => {
    const parameters = { warmingPerMin: 0.13, dryingPerMin: 0.07 };
    const fit = fitRoaster(
      'oven',
      [1, 2, 3, 4].map((seed) => madeLoad({ parameters, random: normals(seed) })),
    );
    const load = madeLoad({ parameters, noise: 0 });
    const half = Array.from(load.minutes).findIndex((m) => m >= 10);
    const read = {
      seconds: Array.from(load.minutes)
        .slice(0, half)
        .map((m) => m * 60),
      beanC: Array.from(load.beanC).slice(0, half),
    };
    const settings = [...first, { second: 360, setC: 145, step: 1 }];
    const ahead = lookAhead(
      { plan, settings, layerMm: null, moisturePct: 7 },
      5000,
      fit,
      read,
      load.airC[half - 1] ?? null,
    );
    expect(ahead?.stepEndsS).toBeCloseTo(840, 0);
    expect(ahead?.outS).toBeCloseTo(1440, 0);
    expect(Math.abs((ahead?.endC ?? 0) - (load.beanC[load.beanC.length - 1] ?? 0))).toBeLessThan(2);
    expect(lookAhead({ plan: null, settings, layerMm: null, moisturePct: 7 }, 5000, fit, read, null)).toBeNull();
  });
});

describe('a program as it is drawn', () => {
  test('dragged up it is warmer, to the degree; dragged to the right it lasts longer, and the rest moves along', () => {
    expect(withSetting(FALLING, 1, 151.4)[1]?.setC).toBe(151);
    expect(withSetting(FALLING, 1, 900)[1]?.setC).toBe(300);
    const longer = withEnd(FALLING, 0, 7.4);
    expect(longer.map(({ minutes }) => minutes)).toEqual([7.5, 8, 10]);
    expect(withEnd(FALLING, 1, 2)[1]?.minutes).toBe(0.25);
    expect(programMinutes(longer)).toBe(25.5);
  });

  test('in °F whole degrees are whole °F', () => {
    const [first] = withSetting(FALLING, 0, 160.3, 'F');
    expect(((first?.setC ?? 0) * 9) / 5 + 32).toBeCloseTo(321, 9);
  });

  test('a step in two halves lasts as long; the last step stays', () => {
    const split = withSplit(FALLING, 1);
    expect(split).toHaveLength(4);
    expect(programMinutes(split)).toBe(24);
    expect(without(split, 2)).toHaveLength(3);
    expect(without([step(130, 10)], 0)).toHaveLength(1);
  });

  test('the planned settings begin where the steps do', () => {
    expect(plannedSettings(plan)).toEqual([
      { second: 0, setC: 160, step: 0 },
      { second: 360, setC: 145, step: 1 },
      { second: 840, setC: 132, step: 2 },
    ]);
    const air = airFromSettings(plannedSettings(plan), 160, { lagMin: 0.001, dipC: 0, underC: 0 }, [1, 7, 20]);
    expect([...air].map(Math.round)).toEqual([160, 145, 132]);
  });

  test('depth of the layer from load and trays', () => {
    // 5 kg on four trays of 2,400 cm² at 0.6 g/cm³: 8.7 mm.
    expect(layerOf(5000, { trays: 4, trayCm2: 2400 })).toBeCloseTo(8.68, 2);
    expect(layerOf(5000, { trays: null, trayCm2: 2400 })).toBeNull();
    expect(layerOf(5000, null)).toBeNull();
  });

  test('what a roaster cannot do is said', () => {
    const oven = { name: 'Oven', minG: 2000, maxG: 8000 };
    expect(checkProgram(plan, oven)).toEqual([]);
    expect(checkProgram({ ...plan, loadG: 9000 }, oven)[0]).toContain(
      'more than Oven really carries (8\u00a0000\u00a0g)',
    );
    expect(checkProgram({ ...plan, loadG: 1000 }, oven)[0]).toContain('less than Oven roasts evenly');
    expect(checkProgram({ ...plan, steps: [step(230, 4)] }, null)[0]).toContain('catches fire');
    expect(checkProgram({ ...plan, preheatC: 20 }, null)[0]).toContain('cold');
  });

  test.each(READY_MADE.map((row) => [row.name, row] as const))(
    'the ready-made “%s” is a program like any other',
    (_, row) => {
      expect(program.parse(row)).toEqual(row);
      expect(row.reason.length).toBeGreaterThan(40);
    },
  );

  test('there is one for every school', () => {
    const schools = new Set(READY_MADE.map(({ school }) => school));
    expect(SCHOOLS.filter((school) => school !== 'own' && !schools.has(school))).toEqual([]);
  });

  test('a program without steps, or with a step of no minutes, is refused', () => {
    expect(program.safeParse({ name: 'x', loadG: 100, preheatC: 150, steps: [] }).success).toBe(false);
    expect(program.safeParse({ name: 'x', loadG: 100, preheatC: 150, steps: [step(150, 0)] }).success).toBe(false);
  });
});
