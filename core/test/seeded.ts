import { normals, seeded } from '../src/stats/chance';

/** Uniform chance from a seed, for simulations that must come out the same every time. */
export const seededChance = seeded;

/** Standard normal draws from a seed. */
export const seededNormal = (seed: number): (() => number) => normals(seeded(seed));
