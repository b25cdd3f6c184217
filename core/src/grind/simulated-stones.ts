import { normals, seeded } from '../stats/chance';
import type { Solid } from './fineness';

/*
 * Stones, a bowl and a gauge that are made up, for simulated instruments, the demo and the tests. Nothing is foretold
 * with them: they break grains by another law than the one that is fitted.
 */

/** A grinder, as nobody can see it. */
export interface SimulatedStones {
  /** Rate of the smallest steps, 1/h, at 50 °C and its usual fill. */
  pace: number;
  /** Coarse grains break sooner: power of size. */
  power: number;
  /** Where the stones stop, µm; they wear. */
  floorMicron: number;
  wearPerGrind: number;
  usualG: number;
  /** The bowl's usual temperature and how far the day moves it, °C. */
  bowlC: number;
  dayC: number;
  /** The gauge reads so many parts too much. */
  bias: number;
  /** What its reader rounds to, µm. */
  readTo: number;
}

/** A workshop's stones, by chance. */
export function someStones(seed: number): SimulatedStones {
  const chance = seeded(seed);
  const normal = normals(chance);
  return {
    pace: 0.047 * Math.exp(0.35 * normal()),
    power: 0.1 + 0.35 * chance(),
    floorMicron: 8.5 + 4 * chance(),
    wearPerGrind: 0.002 * chance(),
    usualG: 8000 + 22_000 * chance(),
    bowlC: 46 + 8 * chance(),
    dayC: 1 + 3 * chance(),
    bias: 0.04 * normal(),
    readTo: chance() < 0.5 ? 1 : 0.5,
  };
}

export interface Fed {
  solid: Solid;
  atH: number;
  share: number;
}

/** What a grind of them is like: its own pace, what went in when, when they stood still. */
export interface SimulatedGrind {
  stones: SimulatedStones;
  /** Which of its grinds: stones wear. */
  number: number;
  massG: number;
  fed: readonly Fed[];
  /** This one's own pace, about 1. */
  own: number;
  seed: number;
}

/** Microns as cracked nibs and sugar leave the first turns of the stones, once they can be read at all. */
const FED_MICRON: Record<Solid, number> = { cocoa: 130, sugar: 160, milk: 70 };
const STEP_H = 0.1;

/** Size by running hour, every tenth of an hour, as the coarse end of all solids together, µm. */
export function grindSizes({ stones, number, massG, fed, own, seed }: SimulatedGrind, hours: number): number[] {
  const normal = normals(seeded(seed));
  const worn = Math.exp(-stones.wearPerGrind * number);
  const floor = stones.floorMicron * (2 - worn);
  const rate = stones.pace * worn * own * (massG / stones.usualG) ** -0.45;
  const sizes = fed.map(({ solid }) => FED_MICRON[solid] * Math.exp(0.12 * normal()));
  const phase = 6.28 * seeded(seed + 9)();
  let drift = 0;
  const found: number[] = [];
  for (let n = 0; n * STEP_H <= hours; n += 1) {
    const hour = n * STEP_H;
    let [sum, weight] = [0, 0];
    fed.forEach(({ atH, share }, index) => {
      if (atH > hour) return;
      const size = sizes[index] ?? 0;
      sum += share * size ** 5;
      weight += share;
      drift += 0.004 * normal() * Math.sqrt(STEP_H) - 0.002 * drift * STEP_H;
      const bowlC = stones.bowlC + stones.dayC * Math.sin((6.28 * hour) / 24 + phase);
      const step = rate * Math.exp(drift) * (1 + 0.012 * (bowlC - 50)) * (size / 40) ** stones.power * (size - floor);
      sizes[index] = size - step * STEP_H;
    });
    found.push(weight > 0 ? (sum / weight) ** 0.2 : NaN);
  }
  return found;
}

/** What a gauge and its reader make of a size. @param normal standard normal deviates */
export function readGauge(stones: SimulatedStones, micron: number, normal: () => number): number {
  // Now and then the band is taken at a scratch.
  const wild = Math.abs(normal()) > 2.4 ? 3 : 1;
  const seen = micron * (1 + stones.bias) + wild * Math.max(1, 0.03 * micron) * normal();
  return Math.max(stones.readTo, Math.round(seen / stones.readTo) * stones.readTo);
}
