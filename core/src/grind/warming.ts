import type { Channel } from '../run/readings';

/** What is read of a bowl that grinds. */
export const BOWL_CHANNELS: readonly Channel[] = [{ name: 'bowl', unit: '°C' }];

/** A temperature of the mass at a moment, UTC ms. */
export interface BowlTemp {
  at: number;
  tempC: number;
}

const HOUR_MS = 3_600_000;
/** Readings older than this say nothing of where it is going. */
const RECENT_MS = 3 * HOUR_MS;
/** A trend that gets there later than this is none to warn of. */
const AHEAD_MS = 3 * HOUR_MS;
/** Degrees an hour below which a bowl is steady. */
const STEADY = 0.4;

/** Unroasted makers keep their mass at it, °C; ceilings up to the second are theirs. */
const KEPT_C = 42;
const COOL_C = 50;

export interface Warming {
  tone: 'stop' | 'watch' | 'good';
  sentence: string;
  todo: string | null;
  /** When it will be at the ceiling, if it goes on like this; null: not soon. */
  reachesAt: number | null;
}

/**
 * Whether a mass that has a ceiling nears it: the straight line through its last readings.
 *
 * @param ceilingC what the route keeps it under; @param temps oldest first
 * @returns null without a reading
 */
export function judgeWarming(
  temps: readonly BowlTemp[],
  ceilingC: number,
  show: (tempC: number) => string,
): Warming | null {
  const last = temps.at(-1);
  if (!last) return null;
  const todo =
    'Lid off, fan on, less tension; stop the stones for a while if it goes on. Read again in a quarter of an hour.';
  if (last.tempC > ceilingC)
    return {
      tone: 'stop',
      sentence: `${show(last.tempC)}: over the ${show(ceilingC)} that this route keeps it under.`,
      todo,
      reachesAt: last.at,
    };
  const keepC = ceilingC > KEPT_C && ceilingC <= COOL_C ? KEPT_C : null;
  const recent = temps.filter(({ at }) => at >= last.at - RECENT_MS);
  const steady: Warming = {
    tone: 'good',
    sentence: `${show(last.tempC)}, ceiling ${show(ceilingC)}.`,
    todo: null,
    reachesAt: null,
  };
  if (keepC !== null && last.tempC > keepC) {
    steady.tone = 'watch';
    steady.sentence = `${show(last.tempC)}: over the ${show(keepC)} that such a mass is kept at, ceiling ${show(ceilingC)}.`;
    steady.todo = todo;
  }
  if (recent.length < 2) return steady;
  const meanAt = recent.reduce((sum, { at }) => sum + at, 0) / recent.length;
  const meanC = recent.reduce((sum, { tempC }) => sum + tempC, 0) / recent.length;
  const squares = recent.reduce((sum, { at }) => sum + (at - meanAt) ** 2, 0);
  const slope =
    squares > 0 ? recent.reduce((sum, { at, tempC }) => sum + (at - meanAt) * (tempC - meanC), 0) / squares : 0;
  if (slope * HOUR_MS < STEADY) return steady;
  const reachesAt = last.at + (ceilingC - last.tempC) / slope;
  if (reachesAt > last.at + AHEAD_MS) return steady;
  const minutes = Math.round((reachesAt - last.at) / 60_000 / 5) * 5;
  return {
    tone: 'watch',
    sentence: `${show(last.tempC)} and rising ${(slope * HOUR_MS).toFixed(1)} °C an hour: at its ceiling of ${show(ceilingC)} about ${minutes} min after that reading.`,
    todo,
    reachesAt,
  };
}

/** Milk proteins and lactose take on a cooked taste over it; skimmed solids from which it counts, %. */
const MILK_C = 60;
const SOME_MILK_PCT = 3;

/** What keeps a mass under a temperature: its route, or the milk in it. @returns null where nothing does */
export function hottestFor(ceilingC: number | null, milkPct: number): { tempC: number; why: string } | null {
  const milk = milkPct >= SOME_MILK_PCT;
  if (ceilingC !== null && (!milk || ceilingC <= MILK_C)) return { tempC: ceilingC, why: 'Its route' };
  return milk ? { tempC: MILK_C, why: 'The milk in it, which tastes cooked from there on,' } : null;
}
