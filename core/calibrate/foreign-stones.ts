import type { GrindReading } from '../src/grind/forecast';
import type { Population } from '../src/grind/fineness';
import { evidenceOf, type GrindEvidence } from '../src/grind/prior';
import { grindSizes, readGauge, type SimulatedGrind, type SimulatedStones } from '../src/grind/simulated-stones';
import { normals, seeded } from '../src/stats/chance';

/* Grinds on stones of another law, read by a gauge that is off. */

export const TARGET = 20;

export interface ForeignGrind {
  grind: SimulatedGrind;
  populations: Population[];
  /** Running hours at which its own gauge would say the target, were there no scatter. */
  outcomeH: number;
  read: (hours: readonly number[]) => GrindReading[];
}

export function foreignGrind(stones: SimulatedStones, number: number, seed: number): ForeignGrind {
  const chance = seeded(seed);
  const normal = normals(chance);
  const sugarH = chance() < 0.7 ? 3 + 5 * chance() : 1;
  const fed = [
    { solid: 'cocoa' as const, atH: 0.7, share: 0.7 },
    { solid: 'sugar' as const, atH: sugarH, share: 0.3 },
  ];
  const grind: SimulatedGrind = {
    stones,
    number,
    massG: stones.usualG * (0.75 + 0.4 * chance()),
    fed,
    own: Math.exp(0.12 * normal()),
    seed,
  };
  const sizes = grindSizes(grind, 400);
  // What its reader would call the target, were there no noise: bar and gauge are of one workshop.
  const outcome = sizes.findIndex((size, index) => index * 0.1 > sugarH && size * (1 + stones.bias) <= TARGET);
  return {
    grind,
    populations: fed.map(({ solid, atH }) => ({ solid, atH })),
    outcomeH: outcome < 0 ? Infinity : outcome * 0.1,
    read: (hours) =>
      hours.map((atH) => ({
        kind: 'gauge',
        atH,
        micron: readGauge(stones, sizes[Math.round(atH * 10)] ?? TARGET, normal),
      })),
  };
}

/** Times at which people look: in the morning and the evening, not on the hour. */
export function lookTimes(count: number, typicalH: number, seed: number): number[] {
  const chance = seeded(seed);
  const gap = typicalH / (count + 1.3);
  return Array.from({ length: count }, (_, index) => gap * (index + 1) * (0.9 + 0.2 * chance()));
}

/** What finished grinds on the same stones teach, each with three to seven readings and one at its end. */
export function foreignPast(stones: SimulatedStones, count: number, seed: number): GrindEvidence[] {
  return Array.from({ length: count }, (_, index) => {
    const one = foreignGrind(stones, index, 7919 * seed + 104_729 * index);
    const ended = Math.min(one.outcomeH, 300) * 1.02;
    const times = [...lookTimes(3 + (index % 5), ended, seed + index), ended];
    return evidenceOf({ populations: one.populations, readings: one.read(times), massG: one.grind.massG, group: 'a' });
  });
}
