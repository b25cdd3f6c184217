import { diagonal, drawPosterior, rising, weightedQuantile, type NormalPrior } from '../stats/importance';

/** What a taster said of one thing at one time: 0 none of it, 10 all there can be. */
export interface ConcheTaste {
  /** Hours of conching. */
  atH: number;
  score: number;
}

/** Temperatures of the mass, oldest first; each holds until the next. */
export interface ConcheHeat {
  atH: number;
  tempC: number;
}

/** Rates are said at this temperature; ten degrees more make them so many times as fast. */
const AT_C = 60;
const Q10 = 1.8;
/** Where nobody measured: what stones usually warm a mass to. */
const USUAL_C = 50;

/**
 * Hours as if all had been at 60 °C: ∫ Q^((T − 60)/10) dt, Q = 1.8.
 *
 * @param heat what was measured; before the first of it, the first counts
 * @example hoursAt60([{ atH: 0, tempC: 60 }], 4) // 4
 */
export function hoursAt60(heat: readonly ConcheHeat[], hour: number): number {
  const rows = heat.length > 0 ? heat : [{ atH: 0, tempC: USUAL_C }];
  let sum = 0;
  rows.forEach(({ atH, tempC }, index) => {
    const from = index === 0 ? 0 : atH;
    const to = Math.min(hour, rows[index + 1]?.atH ?? hour);
    if (to > from) sum += (to - from) * Q10 ** ((tempC - AT_C) / 10);
  });
  return sum;
}

/** Logarithms of the rate at 60 °C, and the scores at the beginning and at the end. */
const PRIOR: NormalPrior = {
  mean: [Math.log(0.07), 7, 1.4],
  covariance: diagonal([0.5, 1.2, 0.6]),
};
/** Tasters score the same thing differently from hour to hour: standard deviation of a score. */
const TASTE_SD = 0.6;
const DRAWS = 1500;

export interface ConcheForecast {
  /** More hours at the temperature it has now until it tastes as wanted; Infinity: it levels off above. */
  more: { p10: number; p50: number; p90: number };
  neverShare: number;
  sentence: string;
}

/**
 * How long it has still to be conched for a score to come down: s(t) = s∞ + (s0 − s∞)·exp(−∫k(T) dt), fitted to what was
 * tasted. Seeded.
 *
 * @param wanted the score that is meant; @param nowH hours so far; @param learned of the last good batches of this bean
 */
export function forecastConche(
  tastes: readonly ConcheTaste[],
  heat: readonly ConcheHeat[],
  wanted: number,
  nowH: number,
  learned: NormalPrior = PRIOR,
  seed = 11,
): ConcheForecast {
  const at = tastes.map(({ atH, score }) => ({ hours: hoursAt60(heat, atH), score }));
  const draws = drawPosterior(
    learned,
    ([logRate = 0, start = 0, end = 0]) => {
      if (end < 0 || start > 11 || start < end) return -Infinity;
      const rate = Math.exp(logRate);
      return at.reduce((sum, { hours, score }) => {
        const off = (score - (end + (start - end) * Math.exp(-rate * hours))) / TASTE_SD;
        return sum - 3 * Math.log1p((off * off) / 5);
      }, 0);
    },
    DRAWS,
    seed,
  );
  const done = hoursAt60(heat, nowH);
  const tempC = heat.at(-1)?.tempC ?? USUAL_C;
  const pace = Q10 ** ((tempC - AT_C) / 10);
  const more = draws.values.map(([logRate = 0, start = 0, end = 0]) => {
    if (end >= wanted) return Infinity;
    if (start <= wanted) return 0;
    return Math.max(0, (Math.log((start - end) / (wanted - end)) / Math.exp(logRate) - done) / pace);
  });
  const order = rising(more);
  const [p10, p50, p90] = [0.1, 0.5, 0.9].map((share) => weightedQuantile(more, draws.weights, share, order)) as [
    number,
    number,
    number,
  ];
  const neverShare = more.reduce(
    (sum, hours, index) => (hours === Infinity ? sum + (draws.weights[index] ?? 0) : sum),
    0,
  );
  const hours = (value: number): string => (value < 10 ? value.toFixed(0) : `${Math.round(value / 2) * 2}`);
  const warmth = `at ${tempC.toFixed(0)} °C${heat.length === 0 ? ', which is assumed' : ''}`;
  const sentence =
    p90 <= 0.5
      ? 'It tastes as it was meant to: more only takes aroma away.'
      : neverShare > 0.5
        ? `It levels off above ${wanted}: warmer, or with the lid off, it would go on.`
        : Number.isFinite(p90)
          ? `${hours(p10)} to ${hours(p90)} more hours ${warmth}.`
          : `${hours(p10)} more hours or longer ${warmth}.`;
  return { more: { p10, p50, p90 }, neverShare, sentence };
}
