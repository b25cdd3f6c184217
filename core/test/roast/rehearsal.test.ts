import fc from 'fast-check';
import { Rehearsal } from '../../src/roast/rehearsal';
import { plannedSettings } from '../../src/roast/program';
import { simulateProgram, type Roaster } from '../../src/roast/simulate';

const START = { beanC: 21, moisture: 0.07 };
const PROGRAM = {
  preheatC: 170,
  steps: [
    { setC: 150, minutes: 6, until: null, note: '' },
    { setC: 135, minutes: 9, until: null, note: '' },
  ],
};
const SETTINGS = plannedSettings(PROGRAM);
const AIR_MINUTES = [0, 2.3, 7, 15];
const load = (): Rehearsal => new Rehearsal(SETTINGS, PROGRAM.preheatC, START, 15, 10, AIR_MINUTES);

const USUAL = {
  lagMin: 3,
  dipC: 25,
  underC: 4,
  warmingPerMin: 0.17,
  dryingPerMin: 0.09,
  fade: 0.15,
  share: 0.04,
  late: 0.4,
};
type Figures = typeof USUAL;
const roaster = ({ lagMin, dipC, underC, warmingPerMin, dryingPerMin, fade, share, late }: Figures): Roaster => ({
  air: { lagMin, dipC, underC },
  beans: { warmingPerMin, dryingPerMin, fade },
  probe: { airShare: share, lagMin: late },
});

test('a load in its settings goes as the program does that planned them', () => {
  const { readC, weightLeft } = load().run(roaster(USUAL));
  const planned = simulateProgram(PROGRAM, roaster(USUAL), START, 10);
  expect(planned.beanC).toHaveLength(readC.length);
  readC.forEach((c, i) => expect(c).toBeCloseTo(planned.beanC[i] ?? NaN, 9));
  expect(weightLeft).toBeCloseTo(planned.weightLeft, 12);
});

test('whatever was tried before it, a roaster does what it does', () => {
  const names = Object.keys(USUAL) as (keyof Figures)[];
  const tries = fc.array(fc.tuple(fc.constantFrom(...names), fc.constantFrom(0.9, 1, 1.1)), { maxLength: 30 });
  fc.assert(
    fc.property(tries, (changes) => {
      const often = load();
      for (const [name, by] of changes) {
        const tried = roaster({ ...USUAL, [name]: USUAL[name] * by });
        expect(often.run(tried)).toEqual(load().run(tried));
      }
    }),
    { seed: 12, numRuns: 40 },
  );
});

test('air is told where it was read, and no time is too short', () => {
  const { airC } = load().run(roaster(USUAL));
  expect(airC[0]).toBe(170 - 4 - 25);
  expect(airC[2]).toBeLessThan(airC[1] ?? 0);
  // After 6 min on the way from 141 to 146 °C, and 9 on the way from there to 131, each with its e-fold of 3 min.
  const turned = 146 - 5 * Math.exp(-2);
  expect(airC[3]).toBeCloseTo(131 + (turned - 131) * Math.exp(-3), 9);
  const short = new Rehearsal(SETTINGS, 170, START, 0.01);
  expect(Array.from(short.minutes)).toEqual([0, 0.01]);
  expect(short.run(roaster(USUAL)).readC[1]).toBeGreaterThan(21);
});
