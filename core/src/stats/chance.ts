const { imul } = Math;

/** A small seeded generator (mulberry32): the same seed gives the same readings. */
export function seeded(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = state;
    t = imul(t ^ (t >>> 15), t | 1);
    t ^= t + imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/** Standard normal deviates from a source of chance (Box and Muller). */
export const normals =
  (chance: () => number): (() => number) =>
  () =>
    Math.sqrt(-2 * Math.log(Math.max(1e-12, chance()))) * Math.cos(2 * Math.PI * chance());
