import { expectedRoaster, fitRoaster } from '../../src/roast/fit';
import { simulateProgram } from '../../src/roast/simulate';
import { PREHEAT_OVER, steadySetting } from '../../src/roast/solve';
import { step } from './made';

const fit = fitRoaster('oven', []);
const load = { massG: 5000, layerMm: null };
const start = { beanC: 20, moisture: 0.07 };

describe('one steady setting for a bean temperature after so many minutes', () => {
  test.each([
    [112, 15],
    [120, 18],
    [120, 28],
    [126, 40],
  ])('%d °C after %d min: run, it comes there within a degree', (peakC, minutes) => {
    const setC = steadySetting({ peakC, minutes }, load, fit, start);
    const curve = simulateProgram(
      { steps: [step(setC ?? 0, minutes)], preheatC: (setC ?? 0) + PREHEAT_OVER },
      expectedRoaster(fit, load),
      start,
    );
    expect(Math.abs((curve.beanC.at(-1) ?? 0) - peakC)).toBeLessThan(1);
  });

  test('quicker needs it warmer', () => {
    const settings = [12, 18, 28, 45].map((minutes) => steadySetting({ peakC: 120, minutes }, load, fit, start) ?? 0);
    expect([...settings].sort((a, b) => b - a)).toEqual(settings);
    expect(new Set(settings).size).toBe(4);
  });

  test('what no roaster does has no answer', () => {
    expect(steadySetting({ peakC: 150, minutes: 1 }, load, fit, start)).toBeNull();
  });
});
