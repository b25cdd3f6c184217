import { findEvents } from '../../calibrate/events';
import { meetPrograms } from '../../calibrate/roasts';

/* A quick share of `npm run calibrate`: few ovens, wide limits; the whole of it is in docs/calibration.md. */

const seeds = (from: number, n: number): number[] => Array.from({ length: n }, (_, i) => from + i);

describe('programs ahead on ovens that the model does not know', () => {
  test.each([
    [8, true, 'inside'],
    [3, false, 'inside'],
    [8, true, 'outside'],
  ] as const)('from %i loads, air probe %s, %s of what was roasted', (loads, air, where) => {
    const met = meetPrograms(seeds(300, 6), loads, air, where);
    expect(met.wayC).toBeLessThan(3);
    expect(met.endC).toBeLessThan(3);
    expect(met.weightPoints).toBeLessThan(0.5);
    expect(met.wayHeld).toBeGreaterThan(0.65);
    expect(met.wayHeld).toBeLessThan(0.97);
    // The page says what it really misses by.
    expect(met.saidC).toBeGreaterThan(0.5 * met.wayC);
  });
});

describe('what goes wrong in a roast', () => {
  test.each(['door', 'element'] as const)('%s: found early and late, without an air probe too', (what) => {
    for (const air of [true, false])
      for (const when of ['early', 'late'] as const)
        expect(findEvents(seeds(900, 15), what, air, when).stalls).toBeGreaterThanOrEqual(0.9);
  });

  test('nothing is found in clean roasts, nor in those of a logger of whole degrees', () => {
    for (const what of ['nothing', 'whole degrees'] as const) {
      const found = findEvents(seeds(1000, 30), what, false, 'early');
      expect(found.stalls).toBeLessThanOrEqual(0.05);
      expect(found.jumps).toBe(0);
      expect(found.stuck).toBe(0);
    }
  });
});
