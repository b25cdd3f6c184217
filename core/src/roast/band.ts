import { studentQuantile } from '../stats/distributions';
import { expectLoad, expectedParameters, type RoasterFit } from './fit';
import { minutesAbove } from './figures';
import type { BeanStart } from './model';
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

const DRAWS = 61;
const BAND_STEP_S = 10;

/** The first numbers of Halton's sequence: chance-like, evenly spread, the same every time. */
function halton(index: number, base: number): number {
  let [result, fraction, i] = [0, 1 / base, index];
  while (i > 0) {
    result += fraction * (i % base);
    i = Math.floor(i / base);
    fraction /= base;
  }
  return result;
}

/** Value below which a share of sorted values lies. */
function quantile(sorted: readonly number[], share: number): number {
  const at = share * (sorted.length - 1);
  const [low, high] = [sorted[Math.floor(at)] ?? NaN, sorted[Math.ceil(at)] ?? NaN];
  return low + (high - low) * (at - Math.floor(at));
}

function range(mid: number, values: readonly number[]): Range {
  const sorted = [...values].sort((a, b) => a - b);
  return { mid, low: Math.min(mid, quantile(sorted, 0.1)), high: Math.max(mid, quantile(sorted, 0.9)) };
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
 * A program run many times over with what the roaster may do (sixty draws of warming and drying from the fit).
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
  const middle = simulateProgram(program, fit.air, expectedParameters(fit, load), start);
  const { warming, drying } = expectLoad(fit, load);
  const curves = Array.from({ length: DRAWS }, (_, i) =>
    simulateProgram(
      program,
      fit.air,
      {
        warmingPerMin: Math.exp(warming.mean + warming.sd * studentQuantile(halton(i + 1, 2), fit.warming.dof)),
        dryingPerMin: Math.exp(drying.mean + drying.sd * studentQuantile(halton(i + 1, 3), fit.drying.dof)),
      },
      start,
      BAND_STEP_S,
    ),
  );
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
    values.sort((a, b) => a - b);
    minutes.push(minute);
    low.push(quantile(values, 0.1));
    high.push(quantile(values, 0.9));
  }
  const over = (pick: (curve: PlanCurve) => number): Range => range(pick(middle), curves.map(pick));
  return {
    middle,
    minutes,
    low,
    high,
    totalMin: over(({ totalMin }) => totalMin),
    endC: over(({ beanC }) => beanC.at(-1) ?? NaN),
    moistureOut: over(({ water }) => asMoisture(water.at(-1) ?? 0)),
    weightLeft: weightRange(
      over((curve) => curve.weightLeft),
      fit,
    ),
    above: bases.map((baseC) => ({ baseC, minutes: over((curve) => minutesAbove(curve.minutes, curve.beanC, baseC)) })),
  };
}
