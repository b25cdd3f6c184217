import { formatMass, type MassSystem } from '../units/mass';
import { degreesTo, formatDegrees, formatTemperature, type TemperatureUnit } from '../units/temperature';
import type { TemperReading } from './judge';

export interface MeterVerdict {
  /** Where the curve bends: °C, and °C a minute there. */
  tempC: number;
  slopeCperMin: number;
  verdict: 'under' | 'well' | 'over';
  sentence: string;
  todo: string;
}

/** Seconds on either side that the curve is fitted over. */
const HALF_S = 24;
const FEWEST = 8;
/** °C a minute at the bend: rising after it is too little seed, falling on without a stop too much. */
const RISING = 0.12;
const FALLING = -0.55;
/** Of a bowl: silk that mends too little seed, and fresh chocolate that thins out too much. */
const SILK_MORE = 0.005;
const FRESH_MORE = 0.1;
/** The last share of the way down is no bend: there the sample has set, and follows the well. */
const TAIL = 0.25;

/**
 * What a cooling-curve meter says: a sample cools in a cold well; where its own heat of setting holds it, the curve bends.
 * The bend is where the slope is highest on its way down, before it follows the well (local parabolas by least squares: Savitzky and
 * Golay 1964, for readings that need not be evenly apart).
 *
 * @param massG of the bowl, for grams of what is to be added; left out, shares are said
 * @param unit that temperatures are said in, @param massSystem that grams are
 * @returns null where there are too few readings, or it never slows down
 */
export function readMeter(
  readings: readonly TemperReading[],
  { massG, unit = 'C', massSystem }: { massG?: number; unit?: TemperatureUnit; massSystem?: MassSystem } = {},
): MeterVerdict | null {
  const rows = readings.filter(({ tempC }) => Number.isFinite(tempC)).sort((a, b) => a.second - b.second);
  const points = rows.flatMap(({ second }) => {
    const near = rows.filter((row) => Math.abs(row.second - second) <= HALF_S);
    // Both sides have to be there: at an end, and beside a gap, a slope is a guess.
    if (near.length < FEWEST || near[0]?.second === undefined) return [];
    const span = [second - near[0].second, (near.at(-1)?.second ?? second) - second];
    if (Math.min(...span) < HALF_S / 2) return [];
    const fit = parabola(near, second);
    return fit ? [{ second, ...fit }] : [];
  });
  if (points.length < 3) return null;
  const temps = rows.map(({ tempC }) => tempC);
  const [coldest, warmest] = [Math.min(...temps), Math.max(...temps)];
  // Not the flat tail at the well's own temperature.
  const tail = coldest + TAIL * (warmest - coldest);
  const inside = points.filter(({ tempC }) => tempC > tail);
  const humps = inside.filter(({ slope }, i) => {
    const [before, after] = [inside[i - 1]?.slope ?? -Infinity, inside[i + 1]?.slope ?? Infinity];
    return slope >= before && slope > after;
  });
  const found = humps.reduce<(typeof points)[number] | null>(
    (high, row) => (high === null || row.slope > high.slope ? row : high),
    null,
  );
  const steepest = Math.min(...inside.map(({ slope }) => slope));
  if (!found || found.slope - steepest < 0.3) return null;
  const slope = found.slope;
  const verdict = slope > RISING ? 'under' : slope < FALLING ? 'over' : 'well';
  const speed = Math.abs(degreesTo(slope, unit)).toFixed(2);
  const at = `bend at ${formatTemperature(Math.round(10 * found.tempC) / 10, unit)}, ${slope < 0 ? '−' : '+'}${speed} °${unit} a minute there`;
  const half = formatDegrees(0.5, unit);
  const some = (share: number, words: string): string =>
    massG === undefined
      ? `${100 * share} % of ${words}`
      : `${formatMass(Math.round(1000 * massG * share), massSystem)} of ${words}`;
  return {
    tempC: found.tempC,
    slopeCperMin: slope,
    verdict,
    sentence: {
      under: `Under-tempered: it warms itself again after the ${at}.`,
      well: `Well tempered: it holds, ${at}.`,
      over: `Over-tempered: it falls on with hardly a stop, ${at}.`,
    }[verdict],
    todo: {
      under: `${half} colder for 3 min, stirring, or ${some(SILK_MORE, 'silk')}; then draw again. Rising fast after it: begin the cooling again.`,
      well: 'Pour it, and keep it within its window.',
      over: `Warm it by ${half} and stir for 5 min, or stir ${some(FRESH_MORE, 'fresh melted chocolate')} in; then draw again.`,
    }[verdict],
  };
}

/** Value and slope, °C a minute, of the parabola through readings near a moment. */
function parabola(near: readonly TemperReading[], at: number): { tempC: number; slope: number } | null {
  let [s0, s1, s2, s3, s4, y0, y1, y2] = [0, 0, 0, 0, 0, 0, 0, 0];
  for (const { second, tempC } of near) {
    const x = (second - at) / 60;
    s0 += 1;
    s1 += x;
    s2 += x * x;
    s3 += x ** 3;
    s4 += x ** 4;
    y0 += tempC;
    y1 += x * tempC;
    y2 += x * x * tempC;
  }
  // Cramer's rule for the three normal equations.
  const det = s0 * (s2 * s4 - s3 * s3) - s1 * (s1 * s4 - s2 * s3) + s2 * (s1 * s3 - s2 * s2);
  if (Math.abs(det) < 1e-12) return null;
  const tempC = (y0 * (s2 * s4 - s3 * s3) - s1 * (y1 * s4 - y2 * s3) + s2 * (y1 * s3 - y2 * s2)) / det;
  const slope = (s0 * (y1 * s4 - y2 * s3) - y0 * (s1 * s4 - s2 * s3) + s2 * (s1 * y2 - s2 * y1)) / det;
  return { tempC, slope };
}
