import {
  loadedOven,
  ovenWeightLeft,
  secondLater,
  seededLoad,
  someOven,
  type OvenLoad,
  type OvenSecond,
  type OvenState,
  type SimulatedOven,
} from '../../src/roast/simulated-oven';

const FACTS = { massG: 4000, moisture: 0.07, beanStartC: 20, preheatC: 160 };
const SEEDS = [1, 2, 3, 4, 5, 6, 7, 8];

/** States of an oven, one a second. */
function roasted(
  oven: SimulatedOven,
  load: OvenLoad,
  minutes: number,
  done: (second: number) => OvenSecond = () => ({ setC: 150 }),
): OvenState[] {
  const states = [loadedOven(oven, load)];
  for (let second = 0; second < 60 * minutes; second += 1)
    states.push(secondLater(oven, load, states[second] as OvenState, done(second)));
  return states;
}
const last = (states: readonly OvenState[]): OvenState => states.at(-1) as OvenState;

test.each(SEEDS)('oven %i: beans warm towards the air, the shell before the kernel, and water only leaves', (seed) => {
  const oven = someOven(seed);
  const load = seededLoad(oven, FACTS, seed);
  const states = roasted(oven, load, 25);
  const warmest = Math.max(FACTS.preheatC, 150);
  states.forEach((state, second) => {
    expect(state.kernelC).toBeLessThan(warmest);
    expect(state.shellC).toBeLessThan(warmest);
    expect(state.water).toBeGreaterThan(0);
    if (second > 0) expect(state.water).toBeLessThanOrEqual((states[second - 1] as OvenState).water);
  });
  for (const second of [60, 240, 600]) {
    const { shellC, kernelC } = states[second] as OvenState;
    expect(shellC).toBeGreaterThan(kernelC);
  }
  // A load of an ordinary roast: done between 105 and 145 °C, 3 to 8 % lighter.
  expect(last(states).kernelC).toBeGreaterThan(100);
  const left = ovenWeightLeft(load, last(states), 0.006);
  expect(left).toBeGreaterThan(0.9);
  expect(left).toBeLessThan(0.985);
});

test('the air dips with the load and comes to rest under its setting', () => {
  const oven = someOven(3);
  const load = seededLoad(oven, FACTS, 3);
  const small = loadedOven(oven, { ...load, massG: 1000 });
  const large = loadedOven(oven, { ...load, massG: 8000 });
  expect(small.airC).toBeLessThan(FACTS.preheatC);
  expect(large.airC).toBeLessThan(small.airC);
  // Four lags of two to five minutes: what is left of the dip is under a degree.
  const { airC } = last(roasted(oven, load, 40));
  expect(airC).toBeCloseTo(150 - oven.underC - load.own.underC, 0);
});

test('stirring lets the air fall at once, by the oven’s own measure, and it recovers', () => {
  const oven = someOven(4);
  const load = seededLoad(oven, FACTS, 4);
  const still = roasted(oven, load, 15);
  const stirred = roasted(oven, load, 15, (second) => ({ setC: 150, stirred: second === 300 }));
  const apart = (second: number): number => (still[second] as OvenState).airC - (stirred[second] as OvenState).airC;
  expect(apart(300)).toBe(0);
  expect(apart(301)).toBeGreaterThan(0.9 * oven.stirDipC);
  expect(apart(301)).toBeLessThanOrEqual(oven.stirDipC);
  expect(apart(900)).toBeLessThan(0.25 * oven.stirDipC);
});

test('an open door cools the air much faster than an element that failed', () => {
  const oven = someOven(5);
  const load = seededLoad(oven, FACTS, 5);
  const after = (wrong: 'door' | 'element' | null): number =>
    last(roasted(oven, load, 11, (second) => ({ setC: 150, wrong: second < 600 ? null : wrong }))).airC;
  const [door, element, well] = [after('door'), after('element'), after(null)];
  expect(door).toBeLessThan(element - 20);
  expect(element).toBeLessThan(well - 2);
});

test('a larger load warms more slowly, and a wetter one loses more', () => {
  const oven = someOven(6);
  const own = { warming: 1, drying: 1, underC: 0 };
  const ten = (more: Partial<OvenLoad>): OvenState => last(roasted(oven, { ...FACTS, own, ...more }, 10));
  expect(ten({ massG: 7000 }).kernelC).toBeLessThan(ten({ massG: 2000 }).kernelC);
  const lost = (moisture: number): number => moisture / (1 - moisture) - ten({ moisture }).water;
  expect(lost(0.09)).toBeGreaterThan(lost(0.06));
});

test('the probe lags: while beans warm it says less than they are', () => {
  const oven = someOven(7);
  const load = seededLoad(oven, FACTS, 7);
  const states = roasted(oven, load, 6);
  for (const second of [30, 120, 300]) {
    const { shellC, kernelC, probeC } = states[second] as OvenState;
    const felt = oven.probeShell * shellC + (1 - oven.probeShell) * kernelC;
    expect(probeC).toBeLessThan(felt);
    expect(felt - probeC).toBeLessThan(20);
  }
});

test('a seed is one oven and one load; others are others', () => {
  expect(someOven(8)).toEqual(someOven(8));
  expect(someOven(8)).not.toEqual(someOven(9));
  const oven = someOven(8);
  expect(seededLoad(oven, FACTS, 1)).toEqual(seededLoad(oven, FACTS, 1));
  expect(seededLoad(oven, FACTS, 1).own).not.toEqual(seededLoad(oven, FACTS, 2).own);
  // A second on changes nothing of what was before.
  const before = loadedOven(oven, seededLoad(oven, FACTS, 1));
  const copy = { ...before };
  secondLater(oven, seededLoad(oven, FACTS, 1), before, { setC: 150 });
  expect(before).toEqual(copy);
});

test('the lightest that is left: dry beans without their volatiles', () => {
  const load: OvenLoad = { ...FACTS, moisture: 0.08, own: { warming: 1, drying: 1, underC: 0 } };
  const dry = { ...loadedOven(someOven(1), load), water: 0 };
  expect(ovenWeightLeft(load, dry, 0.006)).toBeCloseTo(0.92 * 0.994, 10);
  // As it went in, with nothing gone: all of it.
  expect(ovenWeightLeft(load, loadedOven(someOven(1), load), 0)).toBeCloseTo(1, 10);
});
