import { normalCumulative, normalQuantile } from '../stats/distributions';
import { diagonal, drawPosterior, rising, weightedQuantile, type Draws, type NormalPrior } from '../stats/importance';
import { FELT, gaugeSd, hoursTo, micronAt, TONGUE_SD, type GrindLaw, type Population } from './fineness';

/** One look at the mass, by running hours. */
export type GrindReading =
  { atH: number; kind: 'gauge'; micron: number } | { atH: number; kind: 'tongue'; /** Place in FELT. */ felt: number };

/** What is known of a law before a grind is read: normal in the logarithms. */
export interface GrindPrior extends NormalPrior {
  /** How many finished grinds it was learned from. */
  grinds: number;
  /** What the stones are known to get under, µm: they do not end above it. Infinity: nothing is known. */
  getsUnder: number;
}

/** Where the parameters stand. */
const [RATE, END, COCOA, SUGAR, MILK, PACE] = [0, 1, 2, 3, 4, 5];

/**
 * The trade's own range, for a machine of which nothing is known: stones that take one to five days, end between 8 and
 * 19 µm; what goes in is a few hundred microns and quickly falls to where the law begins to hold, around 100.
 */
export const TRADE_PRIOR: GrindPrior = {
  mean: [Math.log(0.055), Math.log(14), Math.log(110), Math.log(125), Math.log(60), 0],
  covariance: diagonal([0.4, 0.09, 0.12, 0.12, 0.3, 0.03]),
  grinds: 0,
  getsUnder: Infinity,
};

export const lawOf = (parameters: readonly number[]): GrindLaw => ({
  perH: Math.exp(parameters[RATE] ?? 0),
  endMicron: Math.exp(parameters[END] ?? 0),
  startMicron: {
    cocoa: Math.exp(parameters[COCOA] ?? 0),
    sugar: Math.exp(parameters[SUGAR] ?? 0),
    milk: Math.exp(parameters[MILK] ?? 0),
  },
});

/** Student's t with so many degrees of freedom for a reading: now and then one is simply wrong. */
const FREEDOM = 5;

/** How much a reading counts, one over its variance: less the further it stands off. */
export function gaugeWeight(micron: number, size: number): number {
  const sd = gaugeSd(size);
  const off = (micron - size) / sd;
  return (FREEDOM + 1) / (FREEDOM + off * off) / (sd * sd);
}

/** Log likelihood of readings under a law, but for a constant. */
export function logLikelihood(
  law: GrindLaw,
  populations: readonly Population[],
  readings: readonly GrindReading[],
): number {
  let sum = 0;
  for (const reading of readings) {
    const size = micronAt(law, populations, reading.atH);
    if (!Number.isFinite(size)) continue;
    if (reading.kind === 'gauge') {
      const sd = gaugeSd(size);
      const off = (reading.micron - size) / sd;
      sum -= Math.log(sd) + ((FREEDOM + 1) / 2) * Math.log1p((off * off) / FREEDOM);
    } else {
      const upper = FELT[reading.felt]?.upTo ?? Infinity;
      const lower = FELT[reading.felt - 1]?.upTo ?? 0;
      const below = (edge: number): number =>
        edge === Infinity ? 1 : edge <= 0 ? 0 : normalCumulative(Math.log(edge / size) / TONGUE_SD);
      sum += Math.log(Math.max(1e-6, below(upper) - below(lower)));
    }
  }
  return sum;
}

export interface GrindQuestion {
  populations: readonly Population[];
  readings: readonly GrindReading[];
  targetMicron: number;
  prior: GrindPrior;
  /** Running hours so far. */
  nowH: number;
  seed?: number;
}

export interface GrindForecast {
  /** Running hours at which it is at target, one in ten sooner, half sooner, nine in ten sooner; Infinity: never. */
  p10: number;
  p50: number;
  p90: number;
  /** A reading says that it is there. */
  reached: boolean;
  /** Share of what is possible in which these stones never get it there. */
  neverShare: number;
  /** Size by running hour, µm: what eight in ten lie between, and the middle. */
  curve: { hour: number; p10: number; p50: number; p90: number }[];
  /** Chance that it is at target by a running hour. */
  chanceBy: (hour: number) => number;
  /** Size that is to be expected at a running hour. */
  micronBy: (hour: number) => { p10: number; p50: number; p90: number };
  /** Running hours at which half of what is possible is at a size; Infinity: never. */
  reaches: (micron: number) => number;
  draws: Draws;
  targetHours: number[];
}

const DRAWS = 2000;
const SHARES = [0.1, 0.5, 0.9] as const;

/**
 * When a grind will be at its target, from what is known of the machine and what was read so far. Seeded.
 *
 * Beyond the law itself, the pace from the last reading on can differ from what it was (a warmer room, tighter stones):
 * that is one more parameter, of which readings so far say nothing.
 */
export function forecastGrind(question: GrindQuestion): GrindForecast {
  const { populations, prior, targetMicron, nowH, seed = 7 } = question;
  const readings = [...question.readings].sort((a, b) => a.atH - b.atH);
  const lastH = readings.at(-1)?.atH ?? Math.max(0, ...populations.map(({ atH }) => Math.min(atH, nowH)));
  const likely = (parameters: readonly number[]): number => {
    const law = lawOf(parameters);
    return law.endMicron > prior.getsUnder ? -Infinity : logLikelihood(law, populations, readings);
  };
  const draws = drawPosterior(prior, likely, DRAWS, seed);
  const laws = draws.values.map(lawOf);
  const paces = draws.values.map((value) => Math.exp(value[PACE] ?? 0));
  const hoursOf = (micron: number): number[] =>
    laws.map((law, index) => {
      const hours = hoursTo(law, populations, micron);
      return hours > lastH ? Math.max(lastH, lastH + (hours - lastH) / (paces[index] ?? 1)) : hours;
    });
  let targetHours = hoursOf(targetMicron);
  const arrived = arrival(readings, populations, targetMicron);
  if (arrived !== null) targetHours = targetHours.map((hours) => Math.min(hours, arrived));
  const order = rising(targetHours);
  const [p10, p50, p90] = SHARES.map((share) => weightedQuantile(targetHours, draws.weights, share, order)) as [
    number,
    number,
    number,
  ];
  const some = systematic(draws.weights, CURVES);
  const even = some.map(() => 1 / some.length);
  const micronBy = (hour: number): { p10: number; p50: number; p90: number } => {
    const sizes = some.map((index) =>
      micronAt(
        laws[index] ?? lawOf([]),
        populations,
        hour > lastH ? lastH + (hour - lastH) * (paces[index] ?? 1) : hour,
      ),
    );
    const places = rising(sizes);
    const [low, middle, high] = SHARES.map((share) => weightedQuantile(sizes, even, share, places)) as [
      number,
      number,
      number,
    ];
    return { p10: low, p50: middle, p90: high };
  };
  const endH = Math.max(nowH, Number.isFinite(p90) ? p90 : Number.isFinite(p50) ? 1.3 * p50 : nowH + 48) * 1.04;
  const beginH = Math.min(...populations.map(({ atH }) => atH), nowH);
  return {
    p10,
    p50,
    p90,
    reached: arrived !== null,
    neverShare: targetHours.reduce(
      (sum, hours, index) => (hours === Infinity ? sum + (draws.weights[index] ?? 0) : sum),
      0,
    ),
    curve: Array.from({ length: CURVE_POINTS }, (_, index) => {
      const hour = beginH + ((endH - beginH) * (index + 0.5)) / CURVE_POINTS;
      return { hour, ...micronBy(hour) };
    }),
    chanceBy: (hour) =>
      targetHours.reduce((sum, hours, index) => (hours <= hour ? sum + (draws.weights[index] ?? 0) : sum), 0),
    micronBy,
    reaches: (micron) => {
      const hours = hoursOf(micron);
      return weightedQuantile(hours, draws.weights, 0.5, rising(hours));
    },
    draws,
    targetHours,
  };
}
const CURVE_POINTS = 40;
/** Draws that a curve is drawn from. */
const CURVES = 400;

/** Running hour of the reading that says it is there, with nothing coarser read or put in since; null: none does. */
function arrival(
  readings: readonly GrindReading[],
  populations: readonly Population[],
  targetMicron: number,
): number | null {
  let found: number | null = null;
  for (const reading of readings) {
    if (reading.kind !== 'gauge') continue;
    found = reading.micron <= targetMicron ? (found ?? reading.atH) : null;
  }
  return found !== null && populations.some(({ atH }) => atH > found) ? null : found;
}

/** A time to read the gauge, and what it would leave of the doubt. */
export interface NextReading {
  atH: number;
  /** Hours between one in ten and nine in ten after it, on average. */
  widthH: number;
}

const TRUTHS = 32;
const OTHERS = 320;

/**
 * Of some times the one at which a reading would narrow the forecast most: for each, readings are made up as the
 * forecast expects them, and what would be left of its width is averaged.
 *
 * @param candidates running hours; @returns null without any, or where nothing is open
 */
export function bestReading(
  forecast: GrindForecast,
  question: GrindQuestion,
  candidates: readonly number[],
): NextReading | null {
  const { draws, targetHours } = forecast;
  const chosen = systematic(draws.weights, OTHERS);
  const hours = chosen.map((index) => Math.min(targetHours[index] ?? Infinity, MOST_HOURS));
  const laws = chosen.map((index) => lawOf(draws.values[index] ?? []));
  const order = rising(hours);
  let best: NextReading | null = null;
  for (const atH of candidates) {
    const sizes = laws.map((law) => micronAt(law, question.populations, atH));
    let sum = 0;
    for (let truth = 0; truth < TRUTHS; truth += 1) {
      const from = Math.floor(((truth + 0.5) * OTHERS) / TRUTHS);
      const real = sizes[order[from] ?? 0] ?? NaN;
      const read = real + gaugeSd(real) * normalQuantile(((truth * 0.618034) % 1) * 0.98 + 0.01);
      const raw = sizes.map((size) => {
        const off = (read - size) / gaugeSd(size);
        return Math.exp(-0.5 * off * off) / gaugeSd(size);
      });
      const total = raw.reduce((a, b) => a + b, 0);
      const weights = raw.map((w) => w / Math.max(total, 1e-300));
      sum += weightedQuantile(hours, weights, 0.9, order) - weightedQuantile(hours, weights, 0.1, order);
    }
    const widthH = sum / TRUTHS;
    if (Number.isFinite(widthH) && (best === null || widthH < best.widthH)) best = { atH, widthH };
  }
  return best;
}
/** Beyond it nobody waits: keeps what never gets there from making every width endless. */
const MOST_HOURS = 400;

/** Places of draws, each as often as its weight asks for. */
function systematic(weights: readonly number[], count: number): number[] {
  const found: number[] = [];
  let sum = 0;
  weights.forEach((weight, index) => {
    sum += weight;
    while (found.length < count && (found.length + 0.5) / count <= sum) found.push(index);
  });
  while (found.length < count) found.push(weights.length - 1);
  return found;
}
