import { median } from '../stats/spread';

/** Slips that people make between grams and kilograms, and with a mark or a digit too many. */
const SLIPS = [1000, 1 / 1000, 100, 1 / 100, 10, 1 / 10] as const;
/** Off by ten, less what a yield takes, a figure is asked about. */
const TOO_FAR = 8;

/** A figure that is far from what it should be near. */
export interface Doubt {
  field: string;
  /** As typed, in the figure's own unit. */
  typed: number;
  /** What it was held against, and where that comes from. */
  near: number;
  of: string;
  /** What was probably meant: the slip that brings it nearest. */
  meant: number;
}

/**
 * Asks about a figure that is eight times or more away from what it should be near.
 *
 * @param near what went in, what the scale shows, what was usual: more than 0
 * @returns null where there is nothing to ask
 * @example doubt('goodG', 9.3, 10_000, 'what went in') // meant: 9300
 */
export function doubt(field: string, typed: number, near: number, of: string): Doubt | null {
  if (!(typed > 0) || !(near > 0)) return null;
  const ratio = typed / near;
  if (ratio < TOO_FAR && ratio > 1 / TOO_FAR) return null;
  const off = (factor: number): number => Math.abs(Math.log((typed * factor) / near));
  const factor = SLIPS.reduce((best, next) => (off(next) < off(best) ? next : best));
  // Rounded, so that 9.3 thousand is 9300 and nothing behind it.
  return { field, typed, near, of, meant: Number((typed * factor).toPrecision(12)) };
}

/** What figures of an entry should be near, by field. */
export type Nearby = Readonly<Record<string, { value: number; of: string } | undefined>>;

/**
 * Every figure of an entry that asks to be looked at again.
 *
 * @param figures as typed, by field; @param settled fields about which was said that they are meant so
 */
export function doubts(
  figures: Readonly<Record<string, number | undefined>>,
  nearby: Nearby,
  settled: ReadonlySet<string>,
): Doubt[] {
  return Object.entries(nearby).flatMap(([field, near]) => {
    const typed = figures[field];
    if (typed === undefined || near === undefined || settled.has(`${field} ${typed}`)) return [];
    return doubt(field, typed, near.value, near.of) ?? [];
  });
}

/** The middle of what was usual; null for fewer than three. @param past in any order */
export function usual(past: readonly number[]): number | null {
  const known = past.filter((value) => value > 0);
  return known.length < 3 ? null : median(known);
}
