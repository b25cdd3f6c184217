import { falseAlarms, heldBeginnings } from '../calibrate/changes';

/* A quick share of `npm run calibrate`; the whole of it is in docs/calibration.md. */

describe('unchanged series', () => {
  test.each([
    [15, { correlation: 0.3, tails: Infinity }],
    [25, { correlation: 0.3, tails: 4 }],
    [40, { correlation: 0.3, tails: 4 }],
    [40, { correlation: 0, tails: Infinity }],
  ])('of %i values, %j: at most one in twenty is called changed, hardly one clearly', (n, noise) => {
    const alarms = falseAlarms(400, n, noise, 3, 2);
    expect(alarms.any).toBeLessThanOrEqual(0.05);
    expect(alarms.clear).toBeLessThanOrEqual(0.015);
  });
});

describe('the interval of the beginning holds it as often as it says', () => {
  test.each(['step', 'drift', 'drift that rests', 'two changes'] as const)('%s', (story) => {
    const { found, held } = heldBeginnings(60, 60, story, { correlation: 0.3, tails: 4 }, 11);
    expect(found).toBeGreaterThan(0.8);
    expect(held).toBeGreaterThanOrEqual(0.88);
  });
});
