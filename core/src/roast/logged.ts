import { follower, type AirCurve } from './model';
import type { RoasterFacts, Setting } from './records';
import { Rehearsal } from './rehearsal';
import { airFromSettings, type AirParameters, type Roaster } from './simulate';

const { exp, max, min, log, sqrt, ceil } = Math;

/** A logged load as the fit wants it. Times in minutes since the load went in, °C, NaN where nothing was read. */
export interface LoggedLoad {
  code: string;
  massG: number;
  layerMm: number | null;
  /** Water, share of the wet weight. */
  moisture: number;
  beanStartC: number | null;
  /** Weight out over weight in; null where it was not weighed. */
  weightLeft: number | null;
  settings: readonly Setting[];
  preheatC: number;
  minutes: ArrayLike<number>;
  beanC: ArrayLike<number>;
  airC: ArrayLike<number>;
}

interface Defaults {
  warmingPerMin: number;
  dryingPerMin: number;
  air: AirParameters;
}

/** Where a roaster of a kind begins before anything was logged on it. */
export const DEFAULTS: Record<RoasterFacts['kind'], Defaults> = {
  oven: { warmingPerMin: 0.17, dryingPerMin: 0.09, air: { lagMin: 3, dipC: 25, underC: 4 } },
  drum: { warmingPerMin: 0.24, dryingPerMin: 0.09, air: { lagMin: 2.5, dipC: 45, underC: 4 } },
  pan: { warmingPerMin: 0.3, dryingPerMin: 0.09, air: { lagMin: 1.5, dipC: 30, underC: 4 } },
  other: { warmingPerMin: 0.18, dryingPerMin: 0.09, air: { lagMin: 3, dipC: 30, underC: 4 } },
};

/** Dried beans as they are stored, when nobody measured. */
export const USUAL_MOISTURE = 0.07;

const ROOM_C = 20;

/** A reading says something new every half minute: neighbours share their error. */
const FRESH_MIN = 0.5;

const BEAN_ERROR_C = 1.5;

const AIR_ERROR_C = 5;

export const WEIGHT_ERROR = 0.003;

const FEWEST_READINGS = 12;

/** Readings of one load that the fit looks at. */
const LOOKS = 60;

const FIT_STEP_S = 30;

/* What is the same for every load of a roaster, in the order of the vectors below. */
export const NAMES = ['warming', 'slope', 'drying', 'under', 'lag', 'dip', 'fade', 'airShare', 'probeLag'] as const;

export type Common = number[];

export const at = Object.fromEntries(NAMES.map((name, i) => [name, i])) as Record<(typeof NAMES)[number], number>;

/** How far common figures may be from where they begin, as a standard deviation. */
export const PRIOR_SD = [0.4, 0.3, 0.5, 4, 0.4, 15, 0.2, 0.06, 0.6];

const FADE = 0.15;

const AIR_SHARE = 0.04;

const PROBE_LAG_MIN = 0.4;

/** Steps of the numeric derivatives. */
export const NUDGE = [1e-3, 1e-3, 1e-3, 0.05, 1e-3, 0.05, 1e-3, 1e-3, 1e-2];

export const priorOf = (kind: RoasterFacts['kind']): Common => {
  const { warmingPerMin, dryingPerMin, air } = DEFAULTS[kind];
  return [
    log(warmingPerMin),
    -0.5,
    log(dryingPerMin),
    air.underC,
    log(air.lagMin),
    air.dipC,
    FADE,
    AIR_SHARE,
    log(PROBE_LAG_MIN),
  ];
};

export const value = (common: Common, name: keyof typeof at): number => common[at[name]] ?? 0;

/** The roaster that common figures stand for, with one load's own deviations. @param x logarithm of its size */
export const roasterOf = (common: Common, x: number, own: readonly [number, number]): Roaster => ({
  air: { lagMin: exp(value(common, 'lag')), dipC: value(common, 'dip'), underC: value(common, 'under') },
  probe: {
    airShare: min(0.6, max(0, value(common, 'airShare'))),
    lagMin: exp(value(common, 'probeLag')),
  },
  beans: {
    warmingPerMin: exp(value(common, 'warming') + value(common, 'slope') * x + own[0]),
    dryingPerMin: exp(value(common, 'drying') + own[1]),
    fade: min(0.8, max(-0.3, value(common, 'fade'))),
  },
});

/** Readings of one kind that the fit looks at. */
function readings(load: LoggedLoad, of: ArrayLike<number>, most = LOOKS): { minutes: number[]; tempC: number[] } {
  const rows: [number, number][] = [];
  for (let i = 0; i < load.minutes.length; i += 1) {
    const tempC = of[i];
    if (tempC !== undefined && Number.isFinite(tempC)) rows.push([load.minutes[i] ?? 0, tempC]);
  }
  const every = max(1, ceil(rows.length / most));
  const some = rows.filter((_, i) => i % every === 0);
  return { minutes: some.map(([m]) => m), tempC: some.map(([, c]) => c) };
}

/** Air as it was read, gaps bridged; from the settings where there was no air probe. */
export function airOf(load: LoggedLoad, air: AirParameters): AirCurve {
  const kept: [number, number][] = [];
  for (let i = 0; i < load.minutes.length; i += 1) {
    const tempC = load.airC[i];
    if (tempC !== undefined && Number.isFinite(tempC)) kept.push([load.minutes[i] ?? 0, tempC]);
  }
  if (kept.length >= FEWEST_READINGS) return { minutes: kept.map(([m]) => m), tempC: kept.map(([, c]) => c) };
  return { minutes: load.minutes, tempC: airFromSettings(load.settings, load.preheatC, air, load.minutes) };
}

/** One load, made ready: what was read of it, how much each reading counts, and its own deviations so far. */
export interface Ready {
  load: LoggedLoad;
  x: number;
  bean: { minutes: number[]; tempC: number[] };
  air: { minutes: number[]; tempC: number[] };
  startC: number;
  endMin: number;
  rehearsal: Rehearsal;
  beanWeight: number;
  airWeight: number;
  /** All that was read and weighed, weighted, in the order of `said`. */
  heard: Float64Array;
  own: [number, number];
}

const freshness = (minutes: readonly number[]): number => {
  const span = (minutes.at(-1) ?? 0) - (minutes[0] ?? 0);
  return sqrt(min(1, span / FRESH_MIN / max(1, minutes.length)));
};

export function makeReady(load: LoggedLoad): Ready | null {
  const bean = readings(load, load.beanC);
  if (bean.minutes.length < FEWEST_READINGS) return null;
  const ofAir = readings(load, load.airC);
  const air = ofAir.minutes.length >= FEWEST_READINGS && load.settings.length > 0 ? ofAir : { minutes: [], tempC: [] };
  const beanWeight = freshness(bean.minutes) / BEAN_ERROR_C;
  const airWeight = freshness(air.minutes) / AIR_ERROR_C;
  const endMin = max(0.1, load.minutes[load.minutes.length - 1] ?? 0);
  const startC = load.beanStartC ?? ((bean.minutes[0] ?? 1) < 0.25 ? (bean.tempC[0] ?? ROOM_C) : ROOM_C);
  const start = { beanC: startC, moisture: load.moisture };
  return {
    load,
    x: 0,
    bean,
    air,
    startC,
    endMin,
    rehearsal: new Rehearsal(load.settings, load.preheatC, start, endMin, FIT_STEP_S, air.minutes),
    beanWeight,
    airWeight,
    heard: Float64Array.from([
      ...bean.tempC.map((c) => c * beanWeight),
      ...air.tempC.map((c) => c * airWeight),
      ...(load.weightLeft === null ? [] : [load.weightLeft / WEIGHT_ERROR]),
    ]),
    own: [0, 0],
  };
}

/** Everything that a roaster of these figures would have made the probes and the scale say of a load, weighted. */
export function said(ready: Ready, common: Common, own: readonly [number, number]): Float64Array {
  const { load, bean, air, rehearsal } = ready;
  const roaster = roasterOf(common, ready.x, own);
  const { readC, airC, weightLeft } = rehearsal.run(roaster);
  const out = new Float64Array(bean.minutes.length + air.minutes.length + (load.weightLeft === null ? 0 : 1));
  const beanAt = follower({ minutes: rehearsal.minutes, tempC: readC });
  bean.minutes.forEach((minute, i) => (out[i] = beanAt(minute) * ready.beanWeight));
  air.minutes.forEach((_, i) => (out[bean.minutes.length + i] = (airC[i] ?? 0) * ready.airWeight));
  if (load.weightLeft !== null) out[out.length - 1] = weightLeft / WEIGHT_ERROR;
  return out;
}
