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

/** How far loads have really been missed: each unit of what the fit expects, and what it cannot follow at all. */
interface Miss {
  stretch: number;
  restC: number;
}

/** What a reading is off by even within a load that the fit knows, before any was held against it, °C. */
const USUAL_REST_C = 1;

function missOf({ heldOut, warming }: RoasterFit, beyond: number): Miss {
  const { stretch, restC } = heldOut ?? { stretch: 1, restC: USUAL_REST_C };
  // Few loads leave it open how far loads are missed: Student's quantile instead of the normal one.
  const few = studentQuantile(0.9, warming.dof) / EIGHT_IN_TEN;
  return { stretch: few * stretch, restC: few * Math.hypot(restC, beyond) };
}

/** The band of eight in ten about a middle: draws as far apart as loads really were, and what no draw explains. */
function asMissed(mid: number, values: readonly number[], { stretch, restC }: Miss): [low: number, high: number] {
  const { low, high } = range(mid, values, stretch);
  const rest = EIGHT_IN_TEN * restC;
  return [mid - Math.hypot(mid - low, rest), mid + Math.hypot(high - mid, rest)];
}

/** Half-width in standard deviations of a range that holds eight in ten. */
const EIGHT_IN_TEN = 1.28;
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
    const [below, above] = asMissed(here, values, miss);
    minutes.push(minute);
    low.push(below);
    high.push(above);
  }
  const over = (pick: (curve: PlanCurve) => number): Range => range(pick(middle), curves.map(pick), miss.stretch);
  const [endLow, endHigh] = asMissed(
    middle.beanC.at(-1) ?? NaN,
    curves.map(({ beanC }) => beanC.at(-1) ?? NaN),
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
