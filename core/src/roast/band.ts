import { studentQuantile } from '../stats/distributions';
import { beyondC, drawRoasters, expectedRoaster, meanSetting, type RoasterFit } from './fit';
import { plannedSettings, programMinutes } from './program';
import { minutesAbove } from './figures';
import { follower, type BeanStart } from './model';
import type { Program } from './records';
import { simulateProgram, type PlanCurve } from './simulate';

export interface Range {
  mid: number;
  low: number;
  high: number;
}

/** A program as it would go: the middle, and the band in which eight of ten such loads fall. */
export interface PlanBand {
  middle: PlanCurve;
  minutes: number[];
  low: number[];
  high: number[];
  totalMin: Range;
  endC: Range;
  /** Share of the wet weight. */
  moistureOut: Range;
  /** Weight out over weight in. */
  weightLeft: Range;
  above: { baseC: number; minutes: Range }[];
}

const DRAWS = 60;
const BAND_STEP_S = 10;

/** Value below which a share of sorted values lies. */
function quantile(sorted: readonly number[], share: number): number {
  const at = share * (sorted.length - 1);
  const [low, high] = [sorted[Math.floor(at)] ?? NaN, sorted[Math.ceil(at)] ?? NaN];
  return low + (high - low) * (at - Math.floor(at));
}

function range(mid: number, values: readonly number[], stretch = 1): Range {
  const sorted = [...values].sort((a, b) => a - b);
  return {
    mid,
    low: mid - stretch * Math.max(0, mid - quantile(sorted, 0.1)),
    high: mid + stretch * Math.max(0, quantile(sorted, 0.9) - mid),
  };
}

/** Half-width in standard deviations of a range that holds eight in ten. */
const EIGHT_IN_TEN = 1.2816;
/** How far a weight is missed as a rule, in shares, before a roaster's own loads have shown it. */
const USUAL_WEIGHT_MISS = 0.004;

/**
 * A range of weight left that is no narrower than loads have really been missed by: beside what the roaster does, the
 * water in beans that nobody measured, spilt beans and the scale are in it.
 */
export function weightRange({ mid, low, high }: Range, fit: Pick<RoasterFit, 'heldOut'>): Range {
  const least = EIGHT_IN_TEN * (fit.heldOut?.weight ?? USUAL_WEIGHT_MISS);
  return { mid, low: Math.min(low, mid - least), high: Math.max(high, mid + least) };
}

/** How far loads have really been missed, and what is not known of that. */
interface Miss {
  /** How far loads were missed for each unit of what the fit expected. */
  stretch: number;
  /** Missed so far at a share of the program's time, °C; null before any was held against the fit. */
  heldC: ((share: number) => number) | null;
  /** What no draw explains, °C. */
  restC: number;
  /** What nothing logged can tell of a load unlike any logged, °C. */
  beyondC: number;
  /** How much the loads that were held out count against the draws, 0 to 1. */
  trust: number;
  /** Few loads leave it open how far they are missed: Student's quantile over the normal one. */
  few: number;
}

/** What a reading is off by even within a load that the fit knows, before any was held against it, °C. */
const USUAL_REST_C = 1;
/** The draws count as much as so many loads held out. */
const DRAWS_WORTH = 3;

function missOf({ heldOut, warming, loads }: RoasterFit, beyond: number): Miss {
  const few = studentQuantile(0.9, warming.dof) / EIGHT_IN_TEN;
  if (!heldOut) return { stretch: 1, heldC: null, restC: USUAL_REST_C, beyondC: beyond, trust: 0, few };
  const heldC = follower({ minutes: [0.125, 0.375, 0.625, 0.875, 1], tempC: [...heldOut.quartersC, heldOut.endC] });
  const trust = loads.length / (loads.length + DRAWS_WORTH);
  return { stretch: heldOut.stretch, heldC, restC: heldOut.restC, beyondC: beyond, trust, few };
}

/**
 * The band of eight in ten about a middle: as far as loads held out were missed at that share of their time, and as far
 * as draws lie apart, by how many were held out; and what no load can have shown.
 */
function asMissed(mid: number, values: readonly number[], share: number, miss: Miss): [low: number, high: number] {
  const { low, high } = range(mid, values, miss.stretch);
  const rest = EIGHT_IN_TEN * miss.restC;
  const held = EIGHT_IN_TEN * (miss.heldC?.(share) ?? 0);
  const half = (drawn: number): number =>
    miss.few *
    Math.sqrt(
      miss.trust * held ** 2 + (1 - miss.trust) * (drawn ** 2 + rest ** 2) + (EIGHT_IN_TEN * miss.beyondC) ** 2,
    );
  return [mid - half(mid - low), mid + half(high - mid)];
}

const asMoisture = (water: number): number => water / (1 + water);

/**
 * A program run many times over with what the roaster may do (sixty draws from the fit).
 *
 * @param load grams, and the depth of their layer; @param bases °C above which minutes are counted
 */
export function simulateBand(
  program: Pick<Program, 'steps' | 'preheatC'>,
  load: { massG: number; layerMm: number | null },
  fit: RoasterFit,
  start: BeanStart,
  bases: readonly number[] = [],
): PlanBand {
  const roaster = expectedRoaster(fit, load);
  const middle = simulateProgram(program, roaster, start);
  const curves = drawRoasters(fit, load, DRAWS).map((drawn) => simulateProgram(program, drawn, start, BAND_STEP_S));
  const settings = plannedSettings(program);
  const setC = meanSetting(settings, 60 * programMinutes(program.steps));
  const miss = missOf(fit, beyondC(fit, load, setC));
  const middleAt = follower({ minutes: middle.minutes, tempC: middle.beanC });
  const minutes: number[] = [];
  const [low, high]: [number[], number[]] = [[], []];
  const cursors = curves.map(() => 0);
  for (let minute = 0; minute <= middle.totalMin + 1e-9; minute += 0.5) {
    const values = curves.flatMap((curve, c) => {
      let i = cursors[c] ?? 0;
      while (i + 1 < curve.minutes.length && (curve.minutes[i + 1] ?? 0) <= minute) i += 1;
      cursors[c] = i;
      return curve.totalMin + 1e-9 >= minute ? [curve.beanC[i] ?? 0] : [];
    });
    if (values.length < DRAWS / 3) break;
    const here = middleAt(minute);
    const [below, above] = asMissed(here, values, minute / Math.max(0.1, middle.totalMin), miss);
    minutes.push(minute);
    low.push(below);
    high.push(above);
  }
  const over = (pick: (curve: PlanCurve) => number): Range =>
    range(pick(middle), curves.map(pick), miss.few * miss.stretch);
  const [endLow, endHigh] = asMissed(
    middle.beanC.at(-1) ?? NaN,
    curves.map(({ beanC }) => beanC.at(-1) ?? NaN),
    1,
    miss,
  );
  return {
    middle,
    minutes,
    low,
    high,
    totalMin: over(({ totalMin }) => totalMin),
    endC: { mid: middle.beanC.at(-1) ?? NaN, low: endLow, high: endHigh },
    moistureOut: over(({ water }) => asMoisture(water.at(-1) ?? 0)),
    weightLeft: weightRange(
      over((curve) => curve.weightLeft),
      fit,
    ),
    above: bases.map((baseC) => ({ baseC, minutes: over((curve) => minutesAbove(curve.minutes, curve.beanC, baseC)) })),
  };
}
