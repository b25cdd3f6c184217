import { diagonal, invert, times } from '../stats/importance';
import { median } from '../stats/spread';
import { micronAt, type Population } from './fineness';
import { gaugeWeight, lawOf, TRADE_PRIOR, type GrindPrior, type GrindReading } from './forecast';

/** A finished grind, as the next one learns from it. */
export interface PastGrind {
  populations: readonly Population[];
  readings: readonly GrindReading[];
  massG: number;
  /** Recipe, bean: grinds of the same word are more alike. */
  group: string;
}

/** What one grind says of its law, apart from what was thought before: information about the logarithms. */
export interface GrindEvidence {
  /** Precision matrix, and precision times value. */
  precision: number[][];
  weighed: number[];
  /** The logarithm of its rate as it was fitted, with what the trade thinks. */
  logRate: number;
  /** The last that was read; null without a reading. */
  last: { atH: number; micron: number } | null;
  populations: readonly Population[];
  massG: number;
  group: string;
}

/** Parameters that grinds teach; the pace beyond the last reading stays as the trade has it. */
const LEARNED = 5;
const OUTSET = {
  mean: TRADE_PRIOR.mean.slice(0, LEARNED),
  precision: invert(TRADE_PRIOR.covariance.slice(0, LEARNED).map((row) => row.slice(0, LEARNED))),
};

const STEP = 1e-4;
const NEWTON_ROUNDS = 12;

/**
 * What a finished grind says: its readings as a straight line around where they fit best with what the trade thinks
 * (Gauss and Newton, with the weights that a t distribution gives to readings that stand off).
 */
export function evidenceOf({ populations, readings, massG, group }: PastGrind): GrindEvidence {
  const gauge = readings.flatMap((row) => (row.kind === 'gauge' ? [row] : []));
  let at = [...OUTSET.mean];
  let found = linear(at, populations, gauge);
  for (let round = 0; round < NEWTON_ROUNDS; round += 1) {
    const precision = OUTSET.precision.map((row, i) => row.map((value, j) => value + (found.precision[i]?.[j] ?? 0)));
    const before = times(OUTSET.precision, OUTSET.mean);
    const next = times(
      invert(precision),
      before.map((value, i) => value + (found.weighed[i] ?? 0)),
    );
    // Half a step at most of what the trade leaves open: the line holds only nearby.
    at = next.map((value, i) => {
      const most = 0.5 * Math.sqrt(TRADE_PRIOR.covariance[i]?.[i] ?? 1);
      return (at[i] ?? 0) + Math.max(-most, Math.min(most, value - (at[i] ?? 0)));
    });
    found = linear(at, populations, gauge);
  }
  const last = gauge.reduce<GrindEvidence['last']>(
    (late, row) => (late === null || row.atH >= late.atH ? row : late),
    null,
  );
  return { ...found, logRate: at[0] ?? 0, last, populations, massG, group };
}

function linear(
  at: readonly number[],
  populations: readonly Population[],
  readings: readonly { atH: number; micron: number }[],
): { precision: number[][]; weighed: number[] } {
  const precision = at.map(() => at.map(() => 0));
  const weighed = at.map(() => 0);
  for (const { atH, micron } of readings) {
    const size = micronAt(lawOf(at), populations, atH);
    if (!Number.isFinite(size)) continue;
    const slope = at.map((value, i) => {
      const moved = at.map((own, j) => (i === j ? value + STEP : own));
      return (micronAt(lawOf(moved), populations, atH) - size) / STEP;
    });
    const weight = gaugeWeight(micron, size);
    const offset = micron - size + slope.reduce((sum, own, i) => sum + own * (at[i] ?? 0), 0);
    slope.forEach((own, i) => {
      weighed[i] = (weighed[i] ?? 0) + weight * own * offset;
      slope.forEach((other, j) => {
        const row = precision[i];
        if (row) row[j] = (row[j] ?? 0) + weight * own * other;
      });
    });
  }
  return { precision, weighed };
}

/** Logarithm of the rate for each of that of the fill: a fuller bowl takes longer. Learned around this. */
const FILL_SLOPE = { mean: -0.4, sd: 0.3 };
/** As much as grinds of one machine usually differ, as if learned from so many grinds. */
const USUAL_SPREAD = [0.12, 0.05, 0.1, 0.1, 0.1];
const SPREAD_WORTH = 6;
/** Grinds of the same recipe after which half of what sets it apart is believed. */
const GROUP_WORTH = 3;
const ROUNDS = 8;
/**
 * The next grind is on stones that wear and in other weather. After few grinds the doubt about their mean holds that
 * already; after many, so much of how they differ is added (chosen so that eight in ten hold, see the calibration).
 */
const WIDER = { share: 0.3, half: 4 };
/** What a grind is worth of the one after it. */
const FADING = 0.97;

/**
 * What to expect of the next grind on a machine, from its finished ones: a normal around their mean, as wide as they
 * differ (normal–normal hierarchy by expectation and maximisation; Gelman et al., Bayesian Data Analysis, ch. 5). A
 * fuller bowl grinds more slowly, grinds of the same recipe are more alike.
 *
 * @param past oldest first; @param massG in the bowl now; @param group its recipe or bean
 * @returns the trade's own range where there is none
 */
export function priorFrom(past: readonly GrindEvidence[], massG: number, group: string): GrindPrior {
  if (past.length === 0) return TRADE_PRIOR;
  const slope = fillSlope(past);
  // Brought to this fill.
  const rows = past.map((row, index) => {
    // Stones wear: what they did long ago says less.
    const worth = FADING ** (past.length - 1 - index);
    const shift = slope * Math.log(row.massG / massG);
    return {
      ...row,
      precision: row.precision.map((own) => own.map((value) => value * worth)),
      weighed: row.weighed.map((value, i) => worth * (value - (row.precision[i]?.[0] ?? 0) * shift)),
    };
  });
  let spread: Matrix = USUAL;
  let found = fit(rows, spread);
  for (let round = 0; round < ROUNDS; round += 1) {
    spread = spreadOf(rows, found);
    found = fit(rows, spread);
  }
  const { mean, covariance, each } = found;
  const wider = (WIDER.share * past.length) / (past.length + WIDER.half);
  const mine = each.filter((_, index) => rows[index]?.group === group);
  const pull = mine.length / (mine.length + GROUP_WORTH);
  const learned = mean.map((value, i) => {
    const own = mine.reduce((sum, one) => sum + (one.mean[i] ?? 0) - value, 0) / Math.max(1, mine.length);
    return value + (mine.length < rows.length ? pull * own : 0);
  });
  return {
    mean: [...learned, ...TRADE_PRIOR.mean.slice(LEARNED)],
    covariance: TRADE_PRIOR.covariance.map((row, i) =>
      row.map((value, j) =>
        i < LEARNED && j < LEARNED ? (covariance[i]?.[j] ?? 0) + wider * (spread[i]?.[j] ?? 0) : value,
      ),
    ),
    grinds: past.length,
    getsUnder: median(past.map(({ last }) => last?.micron ?? Infinity)),
  };
}

type Matrix = number[][];
const USUAL: Matrix = diagonal(USUAL_SPREAD);
const combine = (a: Matrix, b: Matrix, factor: number): Matrix =>
  a.map((row, i) => row.map((value, j) => value + factor * (b[i]?.[j] ?? 0)));
const product = (a: Matrix, b: Matrix): Matrix =>
  a.map((row) => row.map((_, j) => row.reduce((sum, value, k) => sum + value * (b[k]?.[j] ?? 0), 0)));
const outer = (a: readonly number[]): Matrix => a.map((x) => a.map((y) => x * y));

interface Fitted {
  mean: number[];
  covariance: Matrix;
  each: { mean: number[]; covariance: Matrix }[];
}

/** How a machine's grinds differ from their mean, with what is usual counted as some more grinds. */
function spreadOf(rows: readonly GrindEvidence[], { mean, covariance, each }: Fitted): Matrix {
  let sum = USUAL.map((row) => row.map((value) => value * SPREAD_WORTH));
  each.forEach((one, index) => {
    const off = one.mean.map((value, i) => value - (mean[i] ?? 0));
    // As far as a grind speaks for itself, the doubt about the mean is one about its distance.
    const own = product(one.covariance, rows[index]?.precision ?? []);
    const doubt = product(product(own, covariance), transposed(own));
    sum = combine(combine(combine(sum, outer(off), 1), one.covariance, 1), doubt, 1);
  });
  return sum.map((row) => row.map((value) => value / (rows.length + SPREAD_WORTH)));
}
const transposed = (a: Matrix): Matrix => a.map((_, i) => a.map((row) => row[i] ?? 0));

/** Mean of a machine's grinds and each grind's own, where they differ by a known spread. */
function fit(rows: readonly GrindEvidence[], spread: Matrix): Fitted {
  const between = invert(spread);
  const inner = rows.map(({ precision }) => invert(combine(precision, between, 1)));
  let total: Matrix = OUTSET.precision;
  const weighed = times(OUTSET.precision, OUTSET.mean);
  inner.forEach((own, index) => {
    const through = product(between, own);
    total = combine(combine(total, between, 1), product(through, between), -1);
    times(through, rows[index]?.weighed ?? []).forEach((value, i) => (weighed[i] = (weighed[i] ?? 0) + value));
  });
  const covariance = invert(total);
  const mean = times(covariance, weighed);
  const pulled = times(between, mean);
  return {
    mean,
    covariance,
    each: inner.map((own, index) => ({
      mean: times(
        own,
        (rows[index]?.weighed ?? []).map((value, i) => value + (pulled[i] ?? 0)),
      ),
      covariance: own,
    })),
  };
}

/** How the rate falls with the fill, shrunken towards the usual slope. */
function fillSlope(past: readonly GrindEvidence[]): number {
  const centre = past.reduce((sum, row) => sum + Math.log(row.massG), 0) / past.length;
  const rate = past.reduce((sum, row) => sum + row.logRate, 0) / past.length;
  const own = 1 / (2 * (USUAL_SPREAD[0] ?? 0.2) ** 2);
  let weight = 1 / FILL_SLOPE.sd ** 2;
  let sum = FILL_SLOPE.mean / FILL_SLOPE.sd ** 2;
  for (const row of past) {
    const x = Math.log(row.massG) - centre;
    weight += own * x * x;
    sum += own * x * (row.logRate - rate);
  }
  return sum / weight;
}
