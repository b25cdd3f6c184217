import { formatDegrees, formatTemperature, type TemperatureUnit } from '../units/temperature';
import type { TemperReading } from './judge';
import type { Windows } from './windows';

/** Where a pour stands, and what is to be done next. */
export interface PourNow {
  phase: 'melting' | 'cooling' | 'low' | 'warming' | 'working' | 'cold' | 'lost';
  sentence: string;
  todo: string;
  /** °C that are still missing to the next window; null where it is in one. */
  missingC: number | null;
  /** Minutes until it leaves the working window, as it goes now; null: it stays, or is not in it. */
  leavesMin: number | null;
  /** Minutes in the working window so far. */
  heldMin: number;
}

/** Over it seed melts out within minutes, °C over the working window. */
const LOST_C = 2;
/** Minutes at the low point that most bowls want. */
const LOW_MIN = 3;
/** The line through so many minutes says where it goes. */
const TREND_MIN = 4;
const STEADY_C_MIN = 0.04;

/**
 * What a pour wants next, from its temperatures so far.
 *
 * @param seeded seed or silk is in: no low point is waited for; @param unit that temperatures are said in
 * @returns null without a reading
 */
export function pourNow(
  readings: readonly TemperReading[],
  { melt, cool, work }: Windows,
  seeded: boolean,
  unit: TemperatureUnit = 'C',
): PourNow | null {
  const show = (c: number): string => formatTemperature(c, unit);
  const degrees = (c: number): string => formatDegrees(c, unit);
  const rows = [...readings].sort((a, b) => a.second - b.second);
  const last = rows.at(-1);
  if (!last) return null;
  const t = last.tempC;
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
    low && !fresh
      ? rows.findIndex(({ tempC }, i) => i > since && tempC >= work.from - 0.2 && tempC <= work.to + 0.5)
      : -1;
  const heldMin =
    back >= 0 ? minutesWhere(rows, ({ tempC }) => tempC >= work.from - 0.3 && tempC <= work.to + 0.3, back) : 0;
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
      phase: 'lost',
      sentence: `${show(t)}: so warm the seed melts out within minutes.`,
      todo: 'Off the heat, stir in seed or silk now; if it stays there, cool it again.',
    };
  if (low && back >= 0 && t < work.from - 0.3)
    return {
      ...base,
      phase: 'cold',
      missingC: work.from - t,
      sentence: `${degrees(work.from - t)} under the working window: it thickens.`,
      todo: `Warm it gently to ${gap(work.from)}, stirring.`,
    };
  if (low && t >= work.from - 0.3 && t <= work.to + 0.3) {
    const edge = slope > 0 ? work.to + 0.3 : work.from - 0.3;
    const leavesMin = Math.abs(slope) < STEADY_C_MIN ? null : Math.max(0, (edge - t) / slope);
    const soon = leavesMin !== null && leavesMin < 8;
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
