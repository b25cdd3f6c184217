import { formatDegrees, formatTemperature, type TemperatureUnit } from '../units/temperature';
import type { PourMark } from '../work/tempering';
import type { TemperReading } from './judge';
import { holdOf, type Windows } from './windows';

/** Where a pour stands, and what is to be done next. */
export interface PourNow {
  phase: 'melting' | 'cooling' | 'low' | 'warming' | 'working' | 'thick' | 'cold' | 'hot' | 'lost';
  sentence: string;
  todo: string;
  /** °C that are still missing to the next window; null where it is in one. */
  missingC: number | null;
  /** Minutes until it leaves the working window, as it goes now; null: it stays, or is not in it. */
  leavesMin: number | null;
  /** Minutes in the working window so far. */
  heldMin: number;
}

/** Over it seed melts out, °C over the working window; and after so many minutes there it is gone. */
const LOST_C = 2;
const LOST_MIN = 3;
/** That it thickens counts so long, minutes, unless it was warmed since. */
const THICK_MIN = 10;
/** Minutes at the low point that most bowls want. */
const LOW_MIN = 3;
/** The line through so many minutes says where it goes. */
const TREND_MIN = 4;
const STEADY_C_MIN = 0.04;
/** A probe is off by so much, °C: that close to the work it counts as there. */
const NEAR_C = 0.3;

/**
 * What a pour wants next, from its temperatures so far.
 *
 * @param seeded seed or silk is in: no low point is waited for; @param unit that temperatures are said in;
 *   @param marks what was marked by one press
 * @returns null without a reading
 */
export function pourNow(
  readings: readonly TemperReading[],
  windows: Windows,
  seeded: boolean,
  unit: TemperatureUnit = 'C',
  marks: readonly PourMark[] = [],
): PourNow | null {
  const { melt, cool, work } = windows;
  const hold = holdOf(windows);
  const show = (c: number): string => formatTemperature(c, unit);
  const degrees = (c: number): string => formatDegrees(c, unit);
  const rows = [...readings].sort((a, b) => a.second - b.second);
  const last = rows.at(-1);
  if (!last) return null;
  const t = last.tempC;
  const lostAt = meltedOutAt(rows, windows, seeded);
  const lost = rows[lostAt];
  if (lost) {
    const reseeded = marks.some(({ what, second }) => second >= lost.second && (what === 'seed' || what === 'silk'));
    const since = rows.slice(lostAt).map((row) => ({ ...row }));
    // What went on before counts no more: it is melted out again, warm enough or not.
    const again =
      reseeded || since.some(({ tempC }) => tempC <= cool.to + 0.5)
        ? pourNow(
            [{ second: lost.second - 1, tempC: melt.from }, ...since.filter(({ tempC }) => tempC < work.to + LOST_C)],
            windows,
            reseeded,
            unit,
            marks,
          )
        : null;
    return (
      again ?? {
        phase: 'lost',
        missingC: Math.max(0, t - cool.to),
        leavesMin: null,
        heldMin: 0,
        sentence: `It was over ${show(work.to + LOST_C)} for ${LOST_MIN} min: its crystal has melted out.`,
        todo: `Seed or silk in under ${show(work.to + LOST_C)}, stirred; or cool it to ${show(cool.to)} again.`,
      }
    );
  }
  const melted = rows.findIndex(({ tempC }) => tempC >= melt.from - 1);
  // A bowl that is cold because nobody warmed it yet is at no low point.
  const warm = melted >= 0 ? melted : rows.findIndex(({ tempC }) => tempC >= cool.to + 3);
  const lowAt = warm < 0 ? -1 : rows.findIndex(({ tempC }, i) => i >= warm && tempC <= cool.to + 0.5);
  const low = seeded || lowAt >= 0;
  const lowMin = minutesWhere(rows, ({ tempC }) => tempC <= cool.to + 0.8, Math.max(0, lowAt));
  const slope = slopeOf(rows.filter(({ second }) => second >= last.second - 60 * TREND_MIN));
  // On its way up it only passes through the window.
  const fresh = melted < 0 && t < melt.from - 1 && slope >= -0.05;
  const since = seeded ? Math.max(0, melted) : lowAt;
  const back =
    low && !fresh ? rows.findIndex(({ tempC }, i) => i > since && tempC >= work.from - 0.2 && tempC <= hold.to) : -1;
  const heldMin = back >= 0 ? minutesWhere(rows, ({ tempC }) => tempC >= hold.from && tempC <= hold.to, back) : 0;
  const base = { missingC: null, leavesMin: null, heldMin };
  const gap = (c: number): string => show(Math.round(10 * c) / 10);
  if (fresh && (seeded || !low))
    return {
      ...base,
      phase: 'melting',
      missingC: melt.from - t,
      sentence: `${degrees(melt.from - t)} to go until it is melted out.`,
      todo: `All of it to ${gap(melt.from)}, stirred, for ten minutes: old crystal has to go.`,
    };
  if (low && back >= 0 && t > work.to + LOST_C)
    return {
      ...base,
      phase: 'hot',
      missingC: t - work.to,
      sentence: `${show(t)}: so warm the crystal melts out within ${LOST_MIN} min.`,
      todo: `Off the heat, stir it over cold water down to ${gap(work.to)}.`,
    };
  if (low && back >= 0 && t < hold.from)
    return {
      ...base,
      phase: 'cold',
      missingC: work.from - t,
      sentence: `${degrees(work.from - t)} under the work: it thickens.`,
      todo: `Warm it gently to ${gap(work.from)}, stirring.`,
    };
  // Brought back it may stand a little beside the work; on its way there it may not.
  const [from, to] = back >= 0 ? [hold.from, hold.to] : [work.from - NEAR_C, work.to + NEAR_C];
  if (low && t >= from && t <= to) {
    const edge = slope > 0 ? hold.to : hold.from;
    const leavesMin = Math.abs(slope) < STEADY_C_MIN ? null : Math.max(0, (edge - t) / slope);
    const soon = leavesMin !== null && leavesMin < 8;
    const thickAt = marks.findLast(({ what }) => what === 'thick' || what === 'warmed');
    if (thickAt?.what === 'thick' && last.second - thickAt.second <= 60 * THICK_MIN)
      return {
        ...base,
        phase: 'thick',
        leavesMin,
        sentence: `It thickens at ${show(t)}, within its window: too much crystal, not too cold.`,
        todo:
          t < work.to - 0.2
            ? `Warm it by ${degrees(Math.min(0.5, work.to - t))}, to ${gap(work.to)} at the most, and stir some minutes; or stir a little fresh melted chocolate in.`
            : `It is as warm as it may be: stir fresh melted chocolate in, a tenth of the bowl at ${gap(melt.from)}.`,
      };
    if (heldMin > hold.minutes)
      return {
        ...base,
        phase: 'thick',
        leavesMin,
        sentence: `${heldMin.toFixed(0)} min in temper: over the ${hold.minutes} that it bears.`,
        todo: `Pour what is left now; or stir fresh melted chocolate in, a tenth of the bowl at ${gap(melt.from)}.`,
      };
    return {
      ...base,
      phase: 'working',
      leavesMin,
      sentence: soon
        ? `In its window; leaves it in ${Math.max(1, Math.round(leavesMin))} min: ${slope < 0 ? `warm it by ${degrees(0.5)}` : 'take the heat away'}.`
        : 'In its window.',
      todo: 'Test it, then pour: keep it moving, and warm it a little now and then.',
    };
  }
  if (!low) {
    return {
      ...base,
      phase: 'cooling',
      missingC: Math.max(0, t - cool.to),
      sentence: `${degrees(Math.max(0, t - cool.to))} to go to the low point: keep it moving.`,
      todo: `Cool it to ${gap(cool.from)} to ${gap(cool.to)}; scrape the sides.`,
    };
  }
  if (!seeded && t <= cool.to + 0.8 && lowMin < LOW_MIN)
    return {
      ...base,
      phase: 'low',
      sentence: `At its low point: ${Math.max(1, Math.ceil(LOW_MIN - lowMin))} more min, stirred.`,
      todo: t < cool.from - 1 ? `Colder than ${gap(cool.from)}: stop cooling.` : 'Stir: that makes the seed.',
    };
  return t > work.to
    ? {
        ...base,
        phase: seeded ? 'cooling' : 'warming',
        missingC: t - work.to,
        sentence: `${degrees(t - work.to)} over the working window.`,
        todo: `Let it come down to ${gap(work.to)}, stirring.`,
      }
    : {
        ...base,
        phase: 'warming',
        missingC: work.from - t,
        sentence: `${degrees(work.from - t)} to go to the working window.`,
        todo: `Warm it gently to ${gap(work.from)} to ${gap(work.to)}: past ${gap(work.to + LOST_C)} the seed is lost.`,
      };
}

/** Where its crystal had melted out after it was in its window; −1: it never was too warm for so long. */
function meltedOutAt(rows: readonly TemperReading[], { melt, cool, work }: Windows, seeded: boolean): number {
  let hasMelted = false;
  let wasLow = seeded;
  let isBack = false;
  let overS = 0;
  for (let i = 1; i < rows.length; i += 1) {
    const [before, now] = [rows[i - 1], rows[i]];
    if (!before || !now) continue;
    const { tempC } = now;
    // On its way up a seeded one only passes through its window.
    hasMelted ||= before.tempC >= melt.from - 1 || (!seeded && tempC >= cool.to + 3);
    wasLow ||= hasMelted && tempC <= cool.to + 0.5;
    isBack ||= hasMelted && wasLow && tempC <= work.to + 0.5 && tempC >= work.from - 0.5;
    if (isBack && tempC > work.to + LOST_C && before.tempC > work.to + LOST_C) overS += now.second - before.second;
    else if (tempC <= work.to + LOST_C) overS = 0;
    if (overS >= 60 * LOST_MIN) return i;
  }
  return -1;
}

/** Readings that say the very same for so long are no bowl's: seconds of them, and how many there have to be. */
const STUCK = { seconds: 90, readings: 30 };

/** Whether a probe has said the very same for a minute and a half: it hangs out, or is broken. */
export function isStuck(readings: readonly TemperReading[]): boolean {
  const last = readings.at(-1);
  if (!last) return false;
  const from = readings.findLastIndex(({ tempC }) => tempC !== last.tempC) + 1;
  const first = readings[from];
  return first !== undefined && readings.length - from >= STUCK.readings && last.second - first.second >= STUCK.seconds;
}

function minutesWhere(rows: readonly TemperReading[], is: (row: TemperReading) => boolean, from: number): number {
  let sum = 0;
  for (let i = Math.max(1, from + 1); i < rows.length; i += 1) {
    const [before, now] = [rows[i - 1], rows[i]];
    if (before && now && is(before) && is(now)) sum += (now.second - before.second) / 60;
  }
  return sum;
}

/** °C a minute of the line through readings; 0 for fewer than two moments. */
function slopeOf(rows: readonly TemperReading[]): number {
  const n = rows.length;
  const meanX = rows.reduce((sum, { second }) => sum + second / 60, 0) / n;
  const meanY = rows.reduce((sum, { tempC }) => sum + tempC, 0) / n;
  const squares = rows.reduce((sum, { second }) => sum + (second / 60 - meanX) ** 2, 0);
  if (squares < 1e-9) return 0;
  return rows.reduce((sum, { second, tempC }) => sum + (second / 60 - meanX) * (tempC - meanY), 0) / squares;
}
