import type { SmoothCurve } from './curve';
import type { Span } from '../run/gaps';
import { median, MEDIAN_TO_SD } from '../stats/spread';
import { DEFAULTS, USUAL_MOISTURE } from './fit';
import { BEAN_HEAT, BOUND_WATER, dryBasis, dryingAt, WATER_HEAT } from './model';
import { airFromSettings, type AirParameters } from './simulate';
import type { Setting } from './records';

const { max, min, round, abs, sqrt, floor } = Math;

export interface Stall extends Span {
  /** How much warmer the air (or the setting) was than the beans, °C, on the mean. */
  warmerC: number;
}

export interface Jump extends Span {
  /** Fastest climb in it, °C/min, and the climb a minute before it. */
  perMin: number;
  beforePerMin: number;
}

/** The first minutes are the load's own: a probe between cold beans and hot air says little. */
const SETTLED_S = 150;
/** A climb is taken over so long, for a stall: a logger of whole degrees says nothing in less. */
const CLIMB_OVER_S = 90;
/** A stall lasts so long, */
const STILL_S = 45;
/** takes this much off the climb, °C/min, and this share of it. */
const MISSING_PER_MIN = 2.2;
const MISSING_SHARE = 0.7;
/** What beans usually take on is read off so long a time, up to so long ago. */
const USUAL_FROM_S = 600;
const USUAL_TO_S = 75;
/** Beans that dry take on less and less: so much is no stall. */
const FADING = 0.85;
/** Air that falls so far under what its settings give, for so long, is a door or an element. Stirring does less. */
const AIR_FELL_C = 26;
const AIR_FELL_S = 50;
const JUMP_TIMES = 1.8;
const JUMP_PER_MIN = 4;
const JUMP_S = 12;
const BEFORE_S = 60;
/** A setting that was raised explains a faster climb for so long. */
const RAISED_S = 300;

/** Runs of points for which something holds, as stretches of at least `leastS` seconds. */
function runs(seconds: ArrayLike<number>, holds: (index: number) => boolean, leastS: number): [number, number][] {
  const found: [number, number][] = [];
  let from = -1;
  for (let i = 0; i <= seconds.length; i += 1) {
    if (i < seconds.length && holds(i)) {
      if (from < 0) from = i;
    } else if (from >= 0) {
      if ((seconds[i - 1] ?? 0) - (seconds[from] ?? 0) >= leastS) found.push([from, i - 1]);
      from = -1;
    }
  }
  return found;
}

/**
 * Where the beans stopped climbing as they had, though nothing was turned down: a door left open, an element that
 * failed, a load that was wet in the middle.
 *
 * What a degree between air and beans brings a minute changes slowly through a roast, whatever the setting: the air
 * is followed from the settings, the heat that water takes is added, and where less than a little over half of the
 * usual arrives for three quarters of a minute, it is a stall. With an air probe, air that falls far under what its
 * settings give is one too.
 *
 * @param air how the roaster's air follows its settings; left out, as ovens do
 */
export function stallsIn(
  curve: SmoothCurve,
  settings: readonly Setting[],
  air: AirParameters = DEFAULTS.oven.air,
): Stall[] {
  const { seconds } = curve;
  const n = seconds.length;
  if (n < 3) return [];
  const around = airAround(curve, settings, air);
  const climb = slopes(seconds, curve.beanC, CLIMB_OVER_S);
  const { missing, wanted } = missingClimb(curve, around, climb);
  const fell = airFell(curve, settings, air);
  const starved = (i: number): boolean => (missing[i] ?? 0) > 0;
  const found = [
    ...runs(seconds, starved, STILL_S),
    ...runs(seconds, (i) => (fell[i] ?? 0) >= AIR_FELL_C, AIR_FELL_S),
  ].sort((a, b) => a[0] - b[0]);
  // The wide window blurs the ends: there the quicker one says where the climb broke off and came back.
  const low = (i: number): boolean => (curve.climb[i] ?? NaN) < 0.5 * (wanted[i] ?? NaN);
  const blur = stepsIn(seconds, CLIMB_OVER_S / 2);
  return merged(found, stepsIn(seconds, STILL_S)).map(([began, ended]) => {
    let [from, to] = [began, ended];
    while (from > 0 && began - from < blur && low(from - 1)) from -= 1;
    while (to < n - 1 && to - ended < blur && low(to + 1)) to += 1;
    let [sum, count] = [0, 0];
    for (let i = from; i <= to; i += 1) {
      const by = (around[i] ?? NaN) - (curve.beanC[i] ?? NaN);
      if (!Number.isFinite(by)) continue;
      sum += by;
      count += 1;
    }
    return { fromS: seconds[from] ?? 0, toS: seconds[to] ?? 0, warmerC: count > 0 ? sum / count : 0 };
  });
}

/** What the air should be from the settings; without any, what the probe says. */
function airAround(curve: SmoothCurve, settings: readonly Setting[], air: AirParameters): Float64Array {
  if (settings.length === 0) return curve.airC;
  const minutes = curve.seconds.map((second) => second / 60);
  const preheatC = settings[0]?.setC ?? 0;
  return airFromSettings(settings, preheatC, air, minutes);
}

/** How much climb is missing against what the beans took on before, °C/min (0 where enough arrives), and what that was. */
function missingClimb(
  curve: SmoothCurve,
  around: Float64Array,
  climb: Float64Array,
): { missing: Float64Array; wanted: Float64Array } {
  const { seconds, beanC } = curve;
  const n = seconds.length;
  const missing = new Float64Array(n);
  const climbWanted = new Float64Array(n).fill(NaN);
  let water = dryBasis(USUAL_MOISTURE);
  const takesOn: number[] = [];
  const every = max(1, stepsIn(seconds, 10));
  const recent: { second: number; value: number }[] = [];
  const noise = 4 * slopeNoise(curve);
  let usual: number | null = null;
  const judge = (i: number, perDegree: number, drive: number, heat: number): void => {
    const wanted = perDegree * drive;
    const climbing = wanted - (heat - (climb[i] ?? NaN));
    const lacks = wanted - heat;
    climbWanted[i] = climbing;
    if (lacks >= max(MISSING_PER_MIN, MISSING_SHARE * climbing, noise)) missing[i] = lacks;
  };
  for (let i = 0; i < n; i += 1) {
    const [second, tempC] = [seconds[i] ?? 0, beanC[i] ?? NaN];
    const h = i === 0 ? 0 : (second - (seconds[i - 1] ?? 0)) / 60;
    const drying = Number.isFinite(tempC)
      ? dryingAt(tempC, DEFAULTS.oven.dryingPerMin) * max(0, water - BOUND_WATER)
      : 0;
    water -= h * drying;
    const heat = (climb[i] ?? NaN) + (WATER_HEAT / BEAN_HEAT) * drying;
    const drive = max(8, (around[i] ?? NaN) - tempC);
    const value = heat / drive;
    if (i % every === 0 && Number.isFinite(value) && second >= SETTLED_S / 2) recent.push({ second, value });
    if (second < SETTLED_S || !Number.isFinite(value)) continue;
    if (i % every !== 0 && usual !== null) {
      judge(i, usual, drive, heat);
      continue;
    }
    takesOn.length = 0;
    for (const row of recent)
      if (row.second >= second - USUAL_FROM_S && row.second <= second - USUAL_TO_S) takesOn.push(row.value);
    if (takesOn.length < 3) continue;
    takesOn.sort((a, b) => a - b);
    // The better quarter: what failed a while ago is not what is usual.
    usual = FADING * (takesOn[floor(0.7 * takesOn.length)] ?? 0);
    judge(i, usual, drive, heat);
  }
  return { missing, wanted: climbWanted };
}

/** How far air that was read is under what its settings give, against how far it usually is, °C. */
function airFell(curve: SmoothCurve, settings: readonly Setting[], air: AirParameters): Float64Array {
  const { seconds, airC } = curve;
  const fell = new Float64Array(seconds.length);
  if (settings.length === 0 || !airC.some((c) => Number.isFinite(c))) return fell;
  const should = airAround(curve, settings, air);
  const before: number[] = [];
  const wait = stepsIn(seconds, 60);
  const every = stepsIn(seconds, 10);
  let usual = 0;
  for (let i = 0; i < seconds.length; i += 1) {
    const under = (should[i] ?? NaN) - (airC[i] ?? NaN);
    const old = i - wait;
    if (old >= 0 && (seconds[old] ?? 0) >= SETTLED_S / 2) {
      const then = (should[old] ?? NaN) - (airC[old] ?? NaN);
      if (Number.isFinite(then) && (fell[old] ?? 0) < AIR_FELL_C) before.push(then);
    }
    if (!Number.isFinite(under) || (seconds[i] ?? 0) < SETTLED_S) continue;
    if (i % every === 0) usual = before.length === 0 ? 0 : median(before.slice(-stepsIn(seconds, 300)));
    fell[i] = under - max(-10, min(25, usual));
  }
  return fell;
}

/** Slope over a sliding window by least squares, per minute; NaN near the ends of what was heard. */
function slopes(seconds: ArrayLike<number>, values: ArrayLike<number>, overS: number): Float64Array {
  const n = seconds.length;
  const half = max(1, round(stepsIn(seconds, overS) / 2));
  const out = new Float64Array(n).fill(NaN);
  for (let i = 0; i < n; i += 1) {
    // At the end the window looks back only: an open door is known before it is shut.
    const to = min(n - 1, i + half);
    const from = max(0, to - 2 * half);
    let [sx, sy, sxx, sxy, m] = [0, 0, 0, 0, 0];
    for (let j = from; j <= to; j += 1) {
      const y = values[j] ?? NaN;
      if (!Number.isFinite(y)) continue;
      const x = ((seconds[j] ?? 0) - (seconds[i] ?? 0)) / 60;
      sx += x;
      sy += y;
      sxx += x * x;
      sxy += x * y;
      m += 1;
    }
    const spread = m * sxx - sx * sx;
    if (m > half && spread > 1e-9) out[i] = (m * sxy - sx * sy) / spread;
  }
  return out;
}

/** How much a climb may be off by the steps and the noise of the logger, °C/min. */
function slopeNoise({ seconds, beanC }: SmoothCurve): number {
  const jumps: number[] = [];
  for (let i = 2; i < seconds.length; i += 1) {
    const bend = (beanC[i] ?? NaN) - 2 * (beanC[i - 1] ?? NaN) + (beanC[i - 2] ?? NaN);
    if (Number.isFinite(bend)) jumps.push(abs(bend));
  }
  const points = stepsIn(seconds, CLIMB_OVER_S);
  const sd = jumps.length === 0 ? 0 : (MEDIAN_TO_SD * median(jumps)) / sqrt(6);
  const every = ((seconds[1] ?? 1) - (seconds[0] ?? 0)) / 60;
  return (sd * sqrt(12 / max(1, points ** 3))) / every;
}

/** Stretches that touch, or nearly, as one. */
function merged(stretches: readonly [number, number][], apart: number): [number, number][] {
  const out: [number, number][] = [];
  for (const [from, to] of stretches) {
    const last = out.at(-1);
    if (last && from <= last[1] + apart) last[1] = max(last[1], to);
    else out.push([from, to]);
  }
  return out;
}

/** How many points of an even grid make so many seconds. */
const stepsIn = (seconds: ArrayLike<number>, span: number): number =>
  max(1, round(span / ((seconds[1] ?? 1) - (seconds[0] ?? 0))));

/** Where the beans warmed far faster than a minute before, and neither a raised setting nor the end of a stall explains it. */
export function jumpsIn(curve: SmoothCurve, settings: readonly Setting[], stalls: readonly Stall[] = []): Jump[] {
  const { seconds, climb } = curve;
  const back = stepsIn(seconds, BEFORE_S);
  const raised = settings.filter((row, i) => i > 0 && row.setC > (settings[i - 1]?.setC ?? row.setC));
  const explained = (second: number): boolean =>
    raised.some((row) => second >= row.second && second <= row.second + RAISED_S) ||
    stalls.some(({ fromS, toS }) => second >= fromS && second <= toS + RAISED_S);
  const before = (i: number): number => max(0, climb[i - back] ?? NaN);
  const jumps = (i: number): boolean => {
    const [now, then] = [climb[i] ?? NaN, before(i)];
    return (
      (seconds[i] ?? 0) >= SETTLED_S + BEFORE_S &&
      now - then >= JUMP_PER_MIN &&
      now >= JUMP_TIMES * then &&
      !explained(seconds[i] ?? 0)
    );
  };
  return runs(seconds, jumps, JUMP_S).map(([from, to]) => ({
    fromS: seconds[from] ?? 0,
    toS: seconds[to] ?? 0,
    perMin: max(...Array.from({ length: to - from + 1 }, (_, i) => climb[from + i] ?? 0)),
    beforePerMin: before(from),
  }));
}
