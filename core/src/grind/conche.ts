import { diagonal, drawPosterior, momentsOf, rising, weightedQuantile, type NormalPrior } from '../stats/importance';
import { fixedTemperature, type TemperatureUnit } from '../units/temperature';

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

/** Logarithm of the rate at 60 °C, and the scores at the beginning and at the end, for a mass of which nothing is known. */
export const CONCHE_PRIOR: NormalPrior = {
  mean: [Math.log(0.07), 7, 1.4],
  covariance: diagonal([0.5, 1.2, 0.6]),
};
/** Tasters score the same thing differently from hour to hour: standard deviation of a score. */
const TASTE_SD = 0.6;
const DRAWS = 1500;
/** Nobody plans further ahead: beyond it only the sooner end says anything. */
const MOST_HOURS = 150;

export interface ConcheForecast {
  /** More hours at the temperature it has now until it tastes as wanted; Infinity: it levels off above. */
  more: { p10: number; p50: number; p90: number };
  neverShare: number;
  sentence: string;
}

/** Laws that fit what was tasted. */
function drawConche(
  tastes: readonly ConcheTaste[],
  heat: readonly ConcheHeat[],
  prior: NormalPrior,
  seed: number,
): ReturnType<typeof drawPosterior> {
  const at = tastes.map(({ atH, score }) => ({ hours: hoursAt60(heat, atH), score }));
  return drawPosterior(
    prior,
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
}

/** Batches of a bean that are worth as much as what is thought of all beans; and what one says of the next. */
const PAST_WORTH = 2;
/** Tastings from which on a batch teaches anything. */
const LEAST_TASTES = 2;
const MOST_PAST = 8;

/**
 * What the last batches of a bean teach of the next: their laws around their mean, as wide as they differ, drawn towards
 * what is thought of all beans.
 *
 * @param past oldest first
 */
export function conchePriorFrom(
  past: readonly { tastes: readonly ConcheTaste[]; heat: readonly ConcheHeat[] }[],
): NormalPrior {
  const rows = past
    .filter(({ tastes }) => tastes.length >= LEAST_TASTES)
    .slice(-MOST_PAST)
    .map(({ tastes, heat }) => momentsOf(drawConche(tastes, heat, CONCHE_PRIOR, 5)));
  if (rows.length === 0) return CONCHE_PRIOR;
  const share = PAST_WORTH / (rows.length + PAST_WORTH);
  const mean = CONCHE_PRIOR.mean.map(
    (trade, i) => share * trade + (1 - share) * (rows.reduce((sum, row) => sum + (row.mean[i] ?? 0), 0) / rows.length),
  );
  return {
    mean,
    covariance: CONCHE_PRIOR.covariance.map((line, i) =>
      line.map((trade, j) => {
        const within = rows.reduce((sum, row) => sum + (row.covariance[i]?.[j] ?? 0), 0) / rows.length;
        const between =
          rows.reduce(
            (sum, row) => sum + ((row.mean[i] ?? 0) - (mean[i] ?? 0)) * ((row.mean[j] ?? 0) - (mean[j] ?? 0)),
            0,
          ) / rows.length;
        return share * trade + (1 - share) * (within + between);
      }),
    ),
  };
}

/**
 * How long it has still to be conched for a score to come down: s(t) = s∞ + (s0 − s∞)·exp(−∫k(T) dt), fitted to what was
 * tasted. Seeded.
 *
 * @param wanted the score that is meant; @param nowH hours so far; @param learned of the last good batches of this bean
 * @param unit of the temperature in its sentence
 */
export function forecastConche(
  tastes: readonly ConcheTaste[],
  heat: readonly ConcheHeat[],
  wanted: number,
  nowH: number,
  learned: NormalPrior = CONCHE_PRIOR,
  unit: TemperatureUnit = 'C',
  seed = 11,
): ConcheForecast {
  const draws = drawConche(tastes, heat, learned, seed);
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
  const warmth = `at ${fixedTemperature(tempC, unit, 0)}${heat.length === 0 ? ', which is assumed' : ''}`;
  const sentence =
    p90 <= 0.5
      ? 'It tastes as it was meant to: more only takes aroma away.'
      : neverShare > 0.5
        ? `It levels off above ${wanted}: warmer, or with the lid off, it would go on.`
        : p90 <= MOST_HOURS
          ? `${hours(p10)} to ${hours(p90)} more hours ${warmth}.`
          : `${hours(p10)} more hours or longer ${warmth}.`;
  return { more: { p10, p50, p90 }, neverShare, sentence };
}

/** What became of an earlier batch of the same bean or recipe. */
export interface ConchePast {
  code: string;
  /** Hours that it was moved, ground or conched. */
  hours: number;
  /** Sourness when it was last tasted on the stones; null: it never was. */
  sourness: number | null;
  /** Mean of its scores as a bar; null: nobody scored it. */
  score: number | null;
  /** What was said of it then. */
  words: string;
}

/** A bar that was worth making again. */
const GOOD_SCORE = 7;

/**
 * What the last good batch took, and what became of one that was stopped early: the words of the workshop's own past.
 *
 * @param past oldest first; @param wanted sourness that is meant
 */
export function concheHistory(past: readonly ConchePast[], wanted: number): string[] {
  const said: string[] = [];
  const good = past.findLast(({ score }) => score !== null && score >= GOOD_SCORE);
  if (good)
    said.push(
      `The last good one, ${good.code}, took ${good.hours.toFixed(0)} h${good.sourness === null ? '' : ` and left the stones at sourness ${good.sourness}`}; scored ${(good.score ?? 0).toFixed(1)}.`,
    );
  const typical = good?.hours ?? null;
  const early = past.findLast(
    ({ code, sourness, hours, score }) =>
      code !== good?.code &&
      ((sourness !== null && sourness > wanted + 1) || (typical !== null && hours < 0.7 * typical && score !== null)),
  );
  if (early) {
    const { code, hours, sourness, score, words } = early;
    said.push(
      `${code} was stopped after ${hours.toFixed(0)} h${sourness === null ? '' : ` at sourness ${sourness}`}${score === null ? '' : ` and scored ${score.toFixed(1)}`}${words === '' ? '' : `: “${words}”`}.`,
    );
  }
  return said;
}

export interface AromaVerdict {
  tone: 'good' | 'watch';
  sentence: string;
}

/** Points that aroma may fall before it is more than one taster's mood. */
const AROMA_FALL = 1.5;

/** Whether the aroma goes with the sourness. @returns null for fewer than two tastings */
export function judgeAroma(tastes: readonly ConcheTaste[]): AromaVerdict | null {
  const last = tastes.at(-1);
  if (!last || tastes.length < 2) return null;
  const best = tastes.reduce((top, row) => (row.score > top.score ? row : top));
  if (best.score - last.score >= AROMA_FALL)
    return {
      tone: 'watch',
      sentence: `Aroma went from ${best.score} at ${best.atH.toFixed(0)} h to ${last.score}: it may be conched enough, even if a little sourness is left.`,
    };
  return { tone: 'good', sentence: `Aroma holds: ${last.score} now, at most ${best.score}.` };
}
