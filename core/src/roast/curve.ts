import { sgg } from 'ml-savitzky-golay-generalized';
import { gapsOf, usualEvery, type Span } from '../run/gaps';
import { channelOf, type Channel, type Readings } from '../run/readings';
import { median, MEDIAN_TO_SD } from '../stats/spread';

/**
 * A logged roast: seconds since the load went in, rising; bean and air temperature in °C, NaN where a probe was silent.
 */
export interface Curve {
  seconds: Float64Array;
  beanC: Float64Array;
  airC: Float64Array;
}

export interface CleanCurve extends Curve {
  /** Nothing was heard for so long. */
  gaps: Span[];
  /** Readings that no bean can do, taken out: the probe slipped or was knocked. */
  slips: { second: number; readC: number }[];
  /** The probe said the very same for so long. */
  stuck: Span[];
}

/** What is read of a roast: the beans, and the air around them. */
export const ROAST_CHANNELS: readonly Channel[] = [
  { name: 'bean', unit: '°C' },
  { name: 'air', unit: '°C' },
];

/** A run's readings as those of a roast. */
export const roastCurve = (readings: Readings): Curve => ({
  seconds: readings.seconds,
  beanC: channelOf(readings, 'bean'),
  airC: channelOf(readings, 'air'),
});

/** A roast's curve as the readings of a run. */
export const roastReadings = ({ seconds, beanC, airC }: Curve): Readings => ({
  channels: ROAST_CHANNELS,
  seconds,
  values: [beanC, airC],
});

export const emptyCurve = (): Curve => ({
  seconds: new Float64Array(0),
  beanC: new Float64Array(0),
  airC: new Float64Array(0),
});

export function curveOf(rows: readonly (readonly [second: number, beanC: number, airC: number])[]): Curve {
  return {
    seconds: Float64Array.from(rows, ([second]) => second),
    beanC: Float64Array.from(rows, ([, beanC]) => beanC),
    airC: Float64Array.from(rows, ([, , airC]) => airC),
  };
}

const WINDOW = 5;
/** A reading so far from the middle of its neighbours was no bean. */
const SLIP_C = 4;
const SLIP_TIMES = 6;
const STUCK_S = 45;
const STUCK_READINGS = 20;
/** Readings that mostly differ from the one before cannot be the same twenty times by chance. */
const RESTLESS = 0.5;
/** A logger of whole degrees says the same for long: only one that leaps on by more than its own step was stuck. */
const LEAP_STEPS = 2.5;
const LEAP_C = 1;
const BEFORE_S = 120;
const FAST_PER_S = 3 / 60;

/**
 * Takes out what no bean can do (Hampel's rule: further from the middle of eleven neighbours than 4 °C and six times
 * their median deviation), and names gaps and stretches in which the probe was stuck.
 */
export function clean(curve: Curve): CleanCurve {
  const { seconds } = curve;
  const n = seconds.length;
  const beanC = Float64Array.from(curve.beanC);
  const slips: CleanCurve['slips'] = [];
  for (let i = 0; i < n; i += 1) {
    const value = curve.beanC[i] ?? NaN;
    if (!Number.isFinite(value)) continue;
    const near: number[] = [];
    for (let j = Math.max(0, i - WINDOW); j <= Math.min(n - 1, i + WINDOW); j += 1)
      if (Number.isFinite(curve.beanC[j])) near.push(curve.beanC[j] ?? 0);
    if (near.length < 5) continue;
    const middle = median(near);
    if (Math.abs(value - middle) <= SLIP_C) continue;
    const deviation = MEDIAN_TO_SD * median(near.map((c) => Math.abs(c - middle)));
    if (Math.abs(value - middle) > SLIP_TIMES * deviation) {
      slips.push({ second: seconds[i] ?? 0, readC: value });
      beanC[i] = NaN;
    }
  }
  return { seconds, beanC, airC: curve.airC, slips, gaps: gapsOf(seconds, beanC), stuck: stuckOf(seconds, beanC) };
}

/** Stretches in which a probe said the very same for longer than its beans, and the steps of its logger, explain. */
function stuckOf(seconds: ArrayLike<number>, beanC: ArrayLike<number>): Span[] {
  const same: [from: number, to: number][] = [];
  let from = 0;
  for (let i = 1; i <= seconds.length; i += 1) {
    if (i < seconds.length && beanC[i] === beanC[from]) continue;
    const lasted = (seconds[i - 1] ?? 0) - (seconds[from] ?? 0);
    if (Number.isFinite(beanC[from]) && lasted >= STUCK_S && i - from >= STUCK_READINGS) same.push([from, i - 1]);
    from = i;
  }
  if (same.length === 0) return [];
  const inside = new Set(same.flatMap(([a, b]) => Array.from({ length: b - a }, (_, k) => a + 1 + k)));
  let [moved, of, stepC] = [0, 0, Infinity];
  for (let i = 1; i < seconds.length; i += 1) {
    const by = Math.abs((beanC[i] ?? NaN) - (beanC[i - 1] ?? NaN));
    if (!Number.isFinite(by) || inside.has(i)) continue;
    of += 1;
    if (by > 1e-9) [moved, stepC] = [moved + 1, Math.min(stepC, by)];
  }
  const restless = of >= STUCK_READINGS && moved / of >= RESTLESS;
  return same
    .filter(([a, b]) => restless || leapt(seconds, beanC, a, b) >= Math.max(LEAP_STEPS * stepC, LEAP_C))
    .map(([a, b]) => ({ fromS: seconds[a] ?? 0, toS: seconds[b] ?? 0 }));
}

/**
 * How far the beans had gone when a probe spoke again; at the end of a log, half of what they were on the way to
 * if they were climbing fast: beans that come to rest also say the same for minutes.
 */
function leapt(seconds: ArrayLike<number>, beanC: ArrayLike<number>, from: number, to: number): number {
  const value = beanC[from] ?? NaN;
  for (let i = to + 1; i < seconds.length; i += 1)
    if (Number.isFinite(beanC[i])) return Math.abs((beanC[i] ?? NaN) - value);
  const start = seconds[from] ?? 0;
  let first = from;
  while (first > 0 && start - (seconds[first - 1] ?? 0) <= BEFORE_S && Number.isFinite(beanC[first - 1])) first -= 1;
  const over = start - (seconds[first] ?? 0);
  const climb = over > 0 ? Math.abs(value - (beanC[first] ?? NaN)) / over : 0;
  return climb < FAST_PER_S ? 0 : 0.5 * climb * ((seconds[to] ?? 0) - start);
}

/** Temperature and climb on an even grid. */
export interface SmoothCurve {
  seconds: Float64Array;
  beanC: Float64Array;
  /** °C a minute. */
  climb: Float64Array;
  airC: Float64Array;
}

/** Seconds over which a climb is taken. */
export const CLIMB_WINDOW_S = 45;
const GRID_MOST = 4000;

/**
 * Savitzky–Golay smoothing (parabola over a sliding window; Savitzky & Golay 1964) of the bean curve and of its slope.
 * Gaps of the probe stay gaps: nothing is smoothed across them.
 *
 * @param windowS width of the window, seconds
 */
export function smooth(curve: CleanCurve, windowS = CLIMB_WINDOW_S): SmoothCurve {
  const { seconds } = curve;
  const n = seconds.length;
  const [first, last] = [seconds[0] ?? 0, seconds[n - 1] ?? 0];
  const every = Math.max(usualEvery(seconds), (last - first) / GRID_MOST, 0.2);
  const count = n === 0 ? 0 : Math.floor((last - first) / every + 1e-6) + 1;
  const grid = Float64Array.from({ length: count }, (_, i) => first + i * every);
  const beanC = onGrid(seconds, curve.beanC, grid, curve.gaps);
  const climb = new Float64Array(count).fill(NaN);
  const smoothed = new Float64Array(count).fill(NaN);
  for (let from = 0; from < count;) {
    if (!Number.isFinite(beanC[from])) {
      from += 1;
      continue;
    }
    let to = from;
    while (to < count && Number.isFinite(beanC[to])) to += 1;
    const part = beanC.slice(from, to);
    const windowSize = oddBetween(windowS / every, part.length);
    if (windowSize !== null) {
      smoothed.set(sgg(part, every, { windowSize, polynomial: 2, derivative: 0 }), from);
      const slope = sgg(part, every, { windowSize, polynomial: 2, derivative: 1 });
      for (let i = 0; i < slope.length; i += 1) climb[from + i] = 60 * (slope[i] ?? 0);
    } else smoothed.set(part, from);
    from = to;
  }
  return {
    seconds: grid,
    beanC: smoothed,
    climb,
    airC: onGrid(seconds, curve.airC, grid, gapsOf(seconds, curve.airC)),
  };
}

/** The nearest odd window of at least five points that fits; null where there are too few. */
function oddBetween(wanted: number, there: number): number | null {
  const most = there % 2 === 1 ? there : there - 1;
  if (most < 5) return null;
  const odd = 2 * Math.floor(wanted / 2) + 1;
  return Math.min(Math.max(5, odd), most);
}

function onGrid(
  seconds: ArrayLike<number>,
  values: ArrayLike<number>,
  grid: ArrayLike<number>,
  gaps: readonly Span[],
): Float64Array {
  const known: number[] = [];
  for (let i = 0; i < seconds.length; i += 1) if (Number.isFinite(values[i])) known.push(i);
  const result = new Float64Array(grid.length).fill(NaN);
  let [k, g] = [0, 0];
  for (let i = 0; i < grid.length; i += 1) {
    const second = grid[i] ?? 0;
    while (k + 1 < known.length && (seconds[known[k + 1] ?? 0] ?? 0) <= second) k += 1;
    while (g < gaps.length && (gaps[g]?.toS ?? 0) <= second) g += 1;
    const gap = gaps[g];
    if (known.length === 0 || (gap && second > gap.fromS && second < gap.toS)) continue;
    const [a, b] = [known[k] ?? 0, known[Math.min(k + 1, known.length - 1)] ?? 0];
    const [s0, s1] = [seconds[a] ?? 0, seconds[b] ?? 0];
    if (second < s0 - 1e-9 || (a === b && second > s0 + 1e-6)) continue;
    const share = s1 > s0 ? (second - s0) / (s1 - s0) : 0;
    result[i] = (values[a] ?? NaN) + share * ((values[b] ?? NaN) - (values[a] ?? NaN));
  }
  return result;
}

/** A curve as plain lists; null where a probe was silent. */
export function curveData({ seconds, beanC, airC }: Curve): {
  seconds: number[];
  beanC: (number | null)[];
  airC: (number | null)[];
} {
  const finite = (value: number): number | null => (Number.isFinite(value) ? value : null);
  return { seconds: Array.from(seconds), beanC: Array.from(beanC, finite), airC: Array.from(airC, finite) };
}
