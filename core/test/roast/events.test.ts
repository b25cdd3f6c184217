import { clean, curveOf, smooth } from '../../src/roast/curve';
import { deviationFrom } from '../../src/roast/deviation';
import { jumpsIn, stallsIn } from '../../src/roast/events';
import { roastBeans } from '../../src/roast/model';
import { simulateProgram } from '../../src/roast/simulate';
import { seededNormal } from '../seeded';
import { AIR, FALLING, step } from './made';

const PARAMETERS = { warmingPerMin: 0.14, dryingPerMin: 0.07 };
const START = { beanC: 20, moisture: 0.07 };

function logged(beanC: ArrayLike<number>, airC: ArrayLike<number>, noise: number, seed: number) {
  const normal = seededNormal(seed);
  return smooth(
    clean(
      curveOf(
        Array.from(beanC, (tempC, s) => [s, tempC + noise * normal(), (airC[s] ?? 0) + noise * normal()] as const),
      ),
    ),
  );
}

describe('stalls and jumps', () => {
  const plans = [
    FALLING,
    [step(110, 12), step(125, 8), step(140, 12)],
    [step(135, 28)],
    [step(185, 5), step(165, 9)],
    [step(118, 45), step(112, 15)],
    [step(120, 6), step(170, 6), step(130, 8)],
  ];

  test.each(plans.map((steps, i) => [i, steps] as const))('plan %i, roasted cleanly, has none', (index, steps) => {
    for (let seed = 0; seed < 6; seed += 1) {
      const plan = simulateProgram({ steps, preheatC: 150 }, { air: AIR, beans: PARAMETERS }, START, 1);
      const curve = logged(plan.beanC, plan.airC, 0.5, 10 * index + seed);
      let second = 0;
      const settings = steps.map(({ setC, minutes }, i) => {
        const row = { second, setC, step: i };
        second += 60 * minutes;
        return row;
      });
      expect(stallsIn(curve, settings)).toEqual([]);
      expect(jumpsIn(curve, settings)).toEqual([]);
    }
  });

  test('beans that stand still in hot air are found, with when and how much warmer it was', () => {
    const plan = simulateProgram({ steps: [step(140, 25)], preheatC: 150 }, { air: AIR, beans: PARAMETERS }, START, 1);
    const beanC = Array.from({ length: 1501 }, (_, s) => plan.beanC[s < 500 ? s : s < 640 ? 500 : s - 140] ?? 0);
    const [stall, ...rest] = stallsIn(logged(beanC, plan.airC, 0.4, 3), [{ second: 0, setC: 140, step: 0 }]);
    expect(rest).toEqual([]);
    expect(Math.abs((stall?.fromS ?? 0) - 500)).toBeLessThan(25);
    expect(Math.abs((stall?.toS ?? 0) - 640)).toBeLessThan(25);
    expect(stall?.warmerC).toBeGreaterThan(25);
  });

  test('a flare is a jump; the same climb after the heat was raised is not', () => {
    // Air leaps by 70 °C at ten minutes, for a minute and a half.
    const minutes = Array.from({ length: 1501 }, (_, s) => s / 60);
    const flare = minutes.map((m) => (m > 10 && m < 11.5 ? 210 : 128));
    const run = roastBeans({ ...PARAMETERS, warmingPerMin: 0.16 }, START, { minutes, tempC: flare }, 25, 1);
    const curve = logged(run.beanC, flare, 0.4, 5);
    const found = jumpsIn(curve, [{ second: 0, setC: 128, step: 0 }]);
    expect(found).toHaveLength(1);
    expect(Math.abs((found[0]?.fromS ?? 0) - 605)).toBeLessThan(30);
    expect(found[0]?.perMin).toBeGreaterThan(2 * (found[0]?.beforePerMin ?? 99));
    expect(
      jumpsIn(curve, [
        { second: 0, setC: 128, step: 0 },
        { second: 590, setC: 210, step: 1 },
      ]),
    ).toEqual([]);
  });
});

describe('deviation from the plan', () => {
  const plan = { minutes: [0, 20], beanC: [20, 120] };
  const roast = (by: (s: number) => number, seconds = 1200) =>
    smooth(clean(curveOf(Array.from({ length: seconds + 1 }, (_, s) => [s, 20 + s / 12 + by(s), NaN] as const))));

  test('on the line it is nothing', () => {
    const deviation = deviationFrom(
      roast(() => 0),
      plan,
    );
    expect(deviation?.rmsC).toBeCloseTo(0, 6);
    expect(deviation?.minutes).toBeCloseTo(0, 6);
  });

  test('three degrees over all the way, and a minute longer', () => {
    const deviation = deviationFrom(
      roast(() => 3, 1260),
      plan,
    );
    expect(deviation?.meanC).toBeCloseTo(3, 6);
    expect(deviation?.endByC).toBeCloseTo(3, 6);
    expect(deviation?.minutes).toBeCloseTo(1, 6);
  });

  test('where it was worst', () => {
    const deviation = deviationFrom(
      roast((s) => -6 * Math.exp(-(((s - 700) / 120) ** 2))),
      plan,
    );
    expect(deviation?.most.byC).toBeCloseTo(-6, 0);
    expect(Math.abs((deviation?.most.second ?? 0) - 700)).toBeLessThan(10);
  });

  test('a roast of a minute has nothing to compare', () => {
    expect(
      deviationFrom(
        roast(() => 0, 60),
        plan,
      ),
    ).toBeNull();
  });
});
