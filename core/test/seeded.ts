import { seeded } from '../src/stats/chance';

/** Uniform chance from a seed, for simulations that must come out the same every time. */
export const seededChance = seeded;

/** Standard normal draws (Box and Muller). */
export function seededNormal(seed: number): () => number {
  const chance = seededChance(seed);
  return () => Math.sqrt(-2 * Math.log(Math.max(1e-12, chance()))) * Math.cos(2 * Math.PI * chance());
}
