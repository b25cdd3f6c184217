import { studyRoast, type StudyInput } from '../../src/roast/study';
import type { LoadFacts, Program } from '../../src/roast/records';
import { AIR, FALLING, madeLoad, normals, step } from './made';

const PARAMETERS = { warmingPerMin: 0.17, dryingPerMin: 0.1 };
const PLAN: Program = {
  name: 'House',
  kind: 'bean',
  school: 'steps',
  reason: '',
  roasterId: null,
  loadG: 5000,
  preheatC: 160,
  stirEveryMin: null,
  coolMin: 60,
  steps: FALLING,
  suits: [],
  note: '',
};
const random = normals(11);
/** Eight loads of the same oven, each a little different. */
const OTHERS = Array.from({ length: 8 }, (_, i) =>
  madeLoad({
    parameters: {
      warmingPerMin: 0.17 * Math.exp(0.04 * random()),
      dryingPerMin: 0.1 * Math.exp(0.05 * random()),
    },
    random,
    code: `T10${i}`,
  }),
);

function input(steps = FALLING, part: Partial<StudyInput> = {}, how: Partial<LoadFacts> = {}): StudyInput {
  const load = madeLoad({ parameters: PARAMETERS, steps, random, code: 'T200' });
  return {
    code: 'T200',
    kind: 'oven',
    massG: 5000,
    moisture: 0.07,
    weightLeft: load.weightLeft ?? 0.94,
    how: {
      programId: 'p',
      version: 1,
      plan: PLAN,
      moisturePct: null,
      layerMm: null,
      beanStartC: 20,
      probe: 'sent',
      seconds: 60 * (load.minutes[load.minutes.length - 1] ?? 0),
      settings: [...load.settings],
      signs: [],
      stirs: [],
      ...how,
    },
    preheatC: 160,
    curve: {
      seconds: Float64Array.from(load.minutes, (minute) => 60 * minute),
      beanC: Float64Array.from(load.beanC),
      airC: Float64Array.from(load.airC),
    },
    past: null,
    kill: null,
    others: OTHERS,
    ...part,
  };
}

describe('one load looked at from all sides', () => {
  test('roasted as planned it says so, with the model about the scale', () => {
    const study = studyRoast(input());
    expect(study.judgement).toMatchObject({ tone: 'good', headline: 'As planned.' });
    expect(Math.abs(study.deviation?.meanC ?? 99)).toBeLessThan(3);
    const { low, high } = study.expectedWeight ?? { low: 0, high: 0 };
    const left = input().weightLeft;
    expect(left).toBeGreaterThan(low);
    expect(left).toBeLessThan(high);
    expect(study.fit.loads).toHaveLength(8);
    expect(study.stalls).toEqual([]);
    expect(study.jumps).toEqual([]);
  });

  test('left in too hot it is held against the plan, not against what was set', () => {
    const hot = [step(160, 6), step(170, 8), step(175, 16)];
    const study = studyRoast(input(hot));
    expect(study.judgement).toMatchObject({ tone: 'watch', headline: 'Roasted further than planned.' });
    expect(study.deviation?.endByC).toBeGreaterThan(10);
    expect(study.plan?.middle.totalMin).toBeCloseTo(24, 6);
  });

  test('a load is left out of the fit that it is held against', () => {
    const own = madeLoad({ parameters: { warmingPerMin: 0.6, dryingPerMin: 0.3 }, code: 'T200' });
    const with_ = studyRoast(input(FALLING, { others: [...OTHERS, own] }));
    expect(with_.fit.loads.map(({ code }) => code)).toEqual(OTHERS.map(({ code }) => code));
  });

  test('a gap and a slip of the probe are told and change little', () => {
    const clean = studyRoast(input());
    const broken = input();
    const { seconds, beanC } = broken.curve ?? { seconds: new Float64Array(), beanC: new Float64Array() };
    seconds.forEach((second, i) => {
      if (second > 500 && second < 620) beanC[i] = NaN;
      if (i === 40) beanC[i] = (beanC[i] ?? 0) + 60;
    });
    const study = studyRoast(broken);
    expect(study.clean?.gaps).toHaveLength(1);
    expect(study.clean?.slips).toHaveLength(1);
    expect(study.figures?.peak?.tempC).toBeCloseTo(clean.figures?.peak?.tempC ?? 0, -0.5);
    expect(study.judgement.why.join(' ')).toContain('Nothing was read for');
  });

  test('without a curve the weight alone speaks; without anything it does not know', () => {
    const past = { n: 20, mean: 0.94, meanRange: 0.003, lower: 0.932, upper: 0.948 };
    const light = studyRoast(input(FALLING, { curve: null, past, weightLeft: 0.9 }));
    expect(light).toMatchObject({ figures: null, deviation: null, expectedWeight: null });
    expect(light.judgement.headline).toBe('On the line, but it lost more weight than it should.');
    expect(studyRoast(input(FALLING, { curve: null, how: null })).judgement.tone).toBe('unknown');
  });

  test('eleven readings are no curve', () => {
    const curve = { seconds: new Float64Array(11), beanC: new Float64Array(11).fill(100), airC: new Float64Array(11) };
    curve.seconds.forEach((_, i) => (curve.seconds[i] = 10 * i));
    expect(studyRoast(input(FALLING, { curve })).figures).toBeNull();
  });

  test('a kill figure only from validated values', () => {
    expect(studyRoast(input()).killReductions).toBeNull();
    const kill = { dMin: 2, zC: 10, refC: 120, wanted: 3, source: 'own study' };
    const study = studyRoast(input(FALLING, { kill }));
    expect(study.killReductions).toBeGreaterThan(0);
    expect(study.judgement.why.join(' ')).toContain('own study');
  });

  test('in °F every temperature of the paragraph is in °F', () => {
    const text = studyRoast(input(), 'F').judgement.why.join(' ');
    expect(text).toContain('°F');
    expect(text).not.toContain('°C');
    expect(text).toContain('above 212 °F');
  });

  test('the air of the roaster is read from its loads', () => {
    const { air, airRead } = studyRoast(input()).fit;
    expect(airRead).toBe(true);
    expect(air.lagMin).toBeCloseTo(AIR.lagMin, 0);
    expect(Math.abs(air.dipC - AIR.dipC)).toBeLessThan(3);
  });
});
