const { exp, max, ceil } = Math;

/**
 * The bean as one lump: heat comes in from the air, water leaves and takes heat with it.
 *
 *   dT/dt = k_h f(X) (T_air − T) − (λ/c) r,   dX/dt = −r,   r = k_d(T) · max(0, X − X_e),
 *   f(X) = 1 − fade · (1 − X/X_usual)
 *   k_d(T) = k_ref · exp(−E/R · (1/T_K − 1/T_ref,K))
 *
 * T °C, X g water per g dry bean, t minutes. It knows nothing of the shell, of colour or of taste; see
 * docs/architecture.md#roast.
 */
export interface BeanParameters {
  /** How fast beans take on the warmth of the air, 1/min. */
  warmingPerMin: number;
  /** How fast water leaves at 120 °C, 1/min. */
  dryingPerMin: number;
  /** By how much less warmth they take on once they are dry, share; left out, none. */
  fade?: number;
}

export interface BeanStart {
  /** Bean temperature as it goes in, °C. */
  beanC: number;
  /** Water, share of the wet weight, 0 to 1. */
  moisture: number;
}

/** Air around the beans over time: minutes rising from 0, °C; a straight line between, level after the last. */
export interface AirCurve {
  minutes: ArrayLike<number>;
  tempC: ArrayLike<number>;
}

export interface BeanCurve {
  minutes: Float64Array;
  beanC: Float64Array;
  airC: Float64Array;
  /** g water per g dry bean. */
  water: Float64Array;
}

/** Specific heat of a cacao bean, J/(g·K). */
export const BEAN_HEAT = 1.9;
/** Heat that leaves with a gram of water, J/g. */
export const WATER_HEAT = 2400;
/** Activation energy of drying, J/mol; the literature has 30 to 45 kJ/mol. */
export const ACTIVATION = 38_000;
const GAS = 8.314;
const REFERENCE_K = 120 + 273.15;
/** Water that stays however long it is roasted, g per g dry. */
export const BOUND_WATER = 0.008;
/** Acids and other volatiles that leave with the water, share of the dry weight. */
export const VOLATILES = 0.006;
/** Water of beans as they usually go in, g per g dry: there the fading of heat transfer begins. */
const USUAL_WATER = 0.075;
/** Seconds from one step of the integration to the next. */
export const STEP_S = 5;

/** Speed of drying at a temperature, 1/min. */
export const dryingAt = (tempC: number, dryingPerMin: number): number =>
  dryingPerMin * exp((-ACTIVATION / GAS) * (1 / (max(tempC, -200) + 273.15) - 1 / REFERENCE_K));

/** g water per g dry from the share of the wet weight. */
export const dryBasis = (moisture: number): number => moisture / (1 - moisture);

/** Weight out over weight in, when so much water is left. @param water g per g dry; @param moisture share of wet, before */
export const weightLeft = (water: number, moisture: number, volatiles = VOLATILES): number =>
  (1 - moisture) * (1 + water - volatiles);

/** Reads a line at a moment, a little faster each time it is asked in rising order. */
export function follower({ minutes, tempC }: AirCurve): (minute: number) => number {
  let i = 0;
  const last = minutes.length - 1;
  return (minute) => {
    if (last < 0) return NaN;
    if (i > 0 && (minutes[i] ?? 0) > minute) i = 0;
    while (i < last && (minutes[i + 1] ?? 0) <= minute) i += 1;
    const [x0, y0] = [minutes[i] ?? 0, tempC[i] ?? 0];
    if (i === last || minute <= x0) return y0;
    const [x1, y1] = [minutes[i + 1] ?? 0, tempC[i + 1] ?? 0];
    return y0 + ((y1 - y0) * (minute - x0)) / (x1 - x0);
  };
}

/** What a probe among the beans says: partly the air between them, and a little late. */
export interface ProbeParameters {
  /** Share of the air in what it feels, 0 to 1. */
  airShare: number;
  lagMin: number;
}

/** A probe that says just what the beans are. */
export const PERFECT_PROBE: ProbeParameters = { airShare: 0, lagMin: 0 };

/** What the probe feels before it lags. */
export const feltC = (beanC: number, airC: number, { airShare }: ProbeParameters): number =>
  beanC + airShare * (airC - beanC);

/** What a lagging probe says after `h` minutes in which what it feels went straight from one value to another. */
export function lagged(readC: number, from: number, to: number, h: number, lagMin: number): number {
  if (lagMin <= 1e-6) return to;
  const behind = ((to - from) / h) * lagMin;
  return to - behind + (readC - from + behind) * exp(-h / lagMin);
}

/**
 * A step of the classical fourth-order Runge–Kutta with the air at its beginning, its middle and its end, written
 * into `to`: a fit takes millions of them.
 *
 * @param to receives bean temperature and water
 */
export function advanceIn(
  to: Float64Array,
  beanC: number,
  water: number,
  h: number,
  a0: number,
  a1: number,
  a2: number,
  { warmingPerMin, dryingPerMin, fade = 0 }: BeanParameters,
): void {
  let [sumT, sumW, dT, dW] = [0, 0, 0, 0];
  for (let k = 0; k < 4; k += 1) {
    const share = k === 0 ? 0 : k === 3 ? h : h / 2;
    const tempC = beanC + share * dT;
    const wet = water + share * dW;
    const drying = dryingAt(tempC, dryingPerMin) * max(0, wet - BOUND_WATER);
    const warming = warmingPerMin * max(0.1, 1 - fade * (1 - wet / USUAL_WATER));
    dT = warming * ((k === 0 ? a0 : k === 3 ? a2 : a1) - tempC) - (WATER_HEAT / BEAN_HEAT) * drying;
    dW = -drying;
    const weight = k === 0 || k === 3 ? 1 : 2;
    sumT += weight * dT;
    sumW += weight * dW;
  }
  to[0] = beanC + (h / 6) * sumT;
  to[1] = water + (h / 6) * sumW;
}

const scratch = new Float64Array(2);

/** The same, from the air as a function of time. */
export function advance(
  beanC: number,
  water: number,
  minute: number,
  h: number,
  air: (minute: number) => number,
  parameters: BeanParameters,
): [beanC: number, water: number] {
  advanceIn(scratch, beanC, water, h, air(minute), air(minute + h / 2), air(minute + h), parameters);
  return [scratch[0] ?? NaN, scratch[1] ?? NaN];
}

/**
 * Roasts by arithmetic.
 *
 * @param untilMin how long, minutes
 * @param stepS seconds between steps; what is asked for is reached exactly
 * @returns the curve, one entry each step, the start included
 */
export function roastBeans(
  parameters: BeanParameters,
  start: BeanStart,
  air: AirCurve,
  untilMin: number,
  stepS = STEP_S,
): BeanCurve {
  const n = max(1, ceil((untilMin * 60) / stepS - 1e-9));
  const h = untilMin / n;
  const at = follower(air);
  const curve: BeanCurve = {
    minutes: new Float64Array(n + 1),
    beanC: new Float64Array(n + 1),
    airC: new Float64Array(n + 1),
    water: new Float64Array(n + 1),
  };
  let [beanC, water] = [start.beanC, dryBasis(start.moisture)];
  for (let i = 0; i <= n; i += 1) {
    curve.minutes[i] = i * h;
    curve.beanC[i] = beanC;
    curve.water[i] = water;
    curve.airC[i] = at(i * h);
    if (i < n) [beanC, water] = advance(beanC, water, i * h, h, at, parameters);
  }
  return curve;
}
