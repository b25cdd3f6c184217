/* How fine the mass is, by running hours, and what a gauge or a tongue says of it. */

/** What went in, as far as its grains are concerned. */
export type Solid = 'cocoa' | 'sugar' | 'milk';

/** Solids that went in together and are ground from then on. */
export interface Population {
  solid: Solid;
  /** Running hours at which they were in. */
  atH: number;
}

/** What stones do to a mass: rate a running hour, the size they end at, and what the solids start from, µm. */
export interface GrindLaw {
  perH: number;
  endMicron: number;
  startMicron: Readonly<Record<Solid, number>>;
}

/**
 * Size of the coarsest of the solids, µm: each falls as d∞ + (d0 − d∞)·exp(−k t) in the running hours since it went in.
 * What goes in later starts coarse again, and a gauge sees the coarsest.
 *
 * @returns NaN before anything is in
 */
export function micronAt(
  { perH, endMicron, startMicron }: GrindLaw,
  populations: readonly Population[],
  hour: number,
): number {
  let coarsest = NaN;
  for (const { solid, atH } of populations) {
    if (atH > hour) continue;
    const size = endMicron + (startMicron[solid] - endMicron) * Math.exp(-perH * (hour - atH));
    if (!(size <= coarsest)) coarsest = size;
  }
  return coarsest;
}

/** Running hours at which the coarsest solids are at a size; Infinity where the stones never get there. */
export function hoursTo(
  { perH, endMicron, startMicron }: GrindLaw,
  populations: readonly Population[],
  targetMicron: number,
): number {
  if (endMicron >= targetMicron) return Infinity;
  let latest = -Infinity;
  for (const { solid, atH } of populations) {
    const start = startMicron[solid];
    const own = start <= targetMicron ? atH : atH + Math.log((start - endMicron) / (targetMicron - endMicron)) / perH;
    if (own > latest) latest = own;
  }
  return latest;
}

/**
 * Scale of what a gauge reading is off, µm. ISO 1524 gauges are read to about ±2 µm or 6 %, whichever is more: two
 * standard deviations of what this is the scale of, with a t distribution of five degrees of freedom.
 */
export const gaugeSd = (micron: number): number => Math.hypot(0.88, 0.0215 * micron);

/** How grain feels between tongue and palate, finest first; each word up to a size, µm. */
export const FELT = [
  { id: 'none', words: 'no grain at all', upTo: 17 },
  { id: 'hardly', words: 'hardly any', upTo: 23 },
  { id: 'little', words: 'a little grain', upTo: 31 },
  { id: 'grainy', words: 'grainy', upTo: 48 },
  { id: 'gritty', words: 'gritty', upTo: Infinity },
] as const;
/** Tongues differ in where one word ends and the next begins: standard deviation of the logarithm. */
export const TONGUE_SD = 0.25;
