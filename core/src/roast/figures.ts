import type { SmoothCurve } from './curve';
import { longestStep } from '../run/gaps';

/** A stretch of a piecewise straight line: [x0, y0] to [x1, y1]. */
type Piece = readonly [x0: number, y0: number, x1: number, y1: number];

/** Pieces between readings; nothing is known of a gap, so it has none. @param x minutes, or seconds */
function* pieces(x: ArrayLike<number>, y: ArrayLike<number>, perSecond: number): Iterable<Piece> {
  const longest = longestStep(x, perSecond);
  for (let i = 1; i < x.length; i += 1) {
    const [x0, y0, x1, y1] = [x[i - 1] ?? 0, y[i - 1] ?? NaN, x[i] ?? 0, y[i] ?? NaN];
    if (x1 - x0 <= longest && Number.isFinite(y0) && Number.isFinite(y1)) yield [x0, y0, x1, y1];
  }
}
const MINUTES = 1 / 60;
const SECONDS = 1;

/** The part of a piece that lies above a base, as its length and its mean height over it. */
function part([x0, y0, x1, y1]: Piece, baseC: number): [length: number, height: number] {
  const [a, b, dx] = [y0 - baseC, y1 - baseC, x1 - x0];
  if (a <= 0 && b <= 0) return [0, 0];
  if (a >= 0 && b >= 0) return [dx, (a + b) / 2];
  const top = Math.max(a, b);
  return [(dx * top) / Math.abs(a - b), top / 2];
}

/** Minutes above a temperature, straight lines between readings; gaps count for nothing. @param minutes rising */
export function minutesAbove(minutes: ArrayLike<number>, tempC: ArrayLike<number>, baseC: number): number {
  let sum = 0;
  for (const piece of pieces(minutes, tempC, MINUTES)) sum += part(piece, baseC)[0];
  return sum;
}

/** Area between a curve and a base where it lies above, °C·min. */
export function areaAbove(minutes: ArrayLike<number>, tempC: ArrayLike<number>, baseC: number): number {
  let sum = 0;
  for (const piece of pieces(minutes, tempC, MINUTES)) {
    const [length, height] = part(piece, baseC);
    sum += length * height;
  }
  return sum;
}

export interface KillValues {
  dMin: number;
  zC: number;
  refC: number;
}

/**
 * Decimal reductions by heat: ∫ 10^((T − T_ref)/z) / D_ref dt, exactly for straight lines between readings; gaps count
 * for nothing.
 *
 * Only with values that the maker validated for this load: it is their figure, never a promise of safety.
 *
 * @param minutes rising; @param values D at the reference, minutes; z and reference, °C
 */
export function killFigure(
  minutes: ArrayLike<number>,
  tempC: ArrayLike<number>,
  { dMin, zC, refC }: KillValues,
): number {
  let sum = 0;
  for (const [x0, y0, x1, y1] of pieces(minutes, tempC, MINUTES)) {
    const [a, b] = [10 ** ((y0 - refC) / zC), 10 ** ((y1 - refC) / zC)];
    const slope = ((y1 - y0) * Math.LN10) / zC;
    sum += (x1 - x0) * (Math.abs(slope) < 1e-9 ? a : (b - a) / slope);
  }
  return sum / dMin;
}

/** The second at which a curve first reaches a temperature for good measure (straight between readings); null if never. */
export function reaches(seconds: ArrayLike<number>, tempC: ArrayLike<number>, wantedC: number): number | null {
  for (const [x0, y0, x1, y1] of pieces(seconds, tempC, SECONDS)) {
    if (y0 >= wantedC) return x0;
    if (y1 >= wantedC) return x0 + ((x1 - x0) * (wantedC - y0)) / (y1 - y0);
  }
  return null;
}

/** Bean temperatures between which minutes are counted, °C. */
export const BANDS = [60, 90, 105, 115, 125, 135] as const;
/** Above this a roast is taken to develop; the area is measured over it. */
export const BASE_C = 100;

export interface RoastFigures {
  minutes: number;
  startC: number | null;
  endC: number | null;
  peak: { tempC: number; second: number } | null;
  /** Over `baseC`. */
  baseC: number;
  minutesAboveBase: number;
  areaAboveBase: number;
  bands: { fromC: number; toC: number | null; minutes: number }[];
  /** Fastest climb after the first two minutes, °C/min, and when. */
  climbMost: { perMin: number; second: number } | null;
  /** Mean climb of the last three minutes. */
  climbEnd: number | null;
}

const SETTLED_S = 120;
const END_S = 180;

/** The figures of one roast. @param bands rising bean temperatures, °C */
export function roastFigures(
  curve: SmoothCurve,
  { baseC = BASE_C, bands = BANDS }: { baseC?: number; bands?: readonly number[] } = {},
): RoastFigures {
  const { seconds, beanC, climb } = curve;
  const minutes = Float64Array.from(seconds, (second) => second / 60);
  let peak: RoastFigures['peak'] = null;
  let climbMost: RoastFigures['climbMost'] = null;
  let [first, last]: [number | null, number | null] = [null, null];
  const end = seconds.at(-1) ?? 0;
  const late: number[] = [];
  for (let i = 0; i < seconds.length; i += 1) {
    const [second, tempC, perMin] = [seconds[i] ?? 0, beanC[i] ?? NaN, climb[i] ?? NaN];
    if (!Number.isFinite(tempC)) continue;
    first ??= tempC;
    last = tempC;
    if (peak === null || tempC > peak.tempC) peak = { tempC, second };
    if (!Number.isFinite(perMin)) continue;
    if (second >= SETTLED_S && (climbMost === null || perMin > climbMost.perMin)) climbMost = { perMin, second };
    if (second >= end - END_S) late.push(perMin);
  }
  const above = bands.map((fromC) => minutesAbove(minutes, beanC, fromC));
  return {
    minutes: end / 60,
    startC: first,
    endC: last,
    peak,
    baseC,
    minutesAboveBase: minutesAbove(minutes, beanC, baseC),
    areaAboveBase: areaAbove(minutes, beanC, baseC),
    bands: bands.map((fromC, i) => ({
      fromC,
      toC: bands[i + 1] ?? null,
      minutes: (above[i] ?? 0) - (above[i + 1] ?? 0),
    })),
    climbMost,
    climbEnd: late.length === 0 ? null : late.reduce((sum, v) => sum + v, 0) / late.length,
  };
}
