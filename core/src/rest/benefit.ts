import { cholesky, invert, times } from '../stats/importance';

/** A score of a batch, and how long its blocks had rested when it was tasted or tempered. */
export interface RestedScore {
  restedDays: number;
  score: number;
  /** Scores of one batch are alike; left out, each is of another. */
  batch?: string;
  /** Blocks on the shelf are scored on another footing than finished bars; left out, a bar. */
  of?: 'bar' | 'shelf';
}

export interface RestVerdict {
  tone: 'good' | 'watch' | 'quiet';
  sentence: string;
  /** Change of the score for a week more, with the interval that eight in ten such would lie in; null: too few. */
  perWeek: { mean: number; low: number; high: number } | null;
  /** Days after which most of what resting does is there; null: it does not level off, or does nothing. */
  enoughDays: { from: number; about: number; to: number } | null;
  of: number;
}

/** Scores below which a slope says nothing. */
const FEWEST = 6;
/** Days by which they have to differ. */
const LEAST_SPREAD = 3;
/** Variance between batches for each of that within one, as it may be. */
const BETWEEN = [0, 0.3, 1, 3, 10];
/** Days in which two thirds of it happen, as it may be; the longest is hardly told from a straight line. */
const TAUS = Array.from({ length: 25 }, (_, i) => 1.5 * 40 ** (i / 24));
/** Ninety parts in a hundred are there after so many of them. */
const MOST = Math.log(10);
/** Half of the fall of twice the log likelihood that four in five intervals keep to. */
const KEPT = 0.82;

interface Line {
  slope: number;
  error: number;
  logLikelihood: number;
}

/**
 * The straight line through scores over an age: batches differ by a chance of their own (random intercepts: each score
 * less a share of its batch's mean, by ordinary least squares; Baltagi, Econometric Analysis of Panel Data, ch. 2), and
 * blocks are scored on another footing than bars.
 */
function lineThrough(rows: readonly RestedScore[], age: (days: number) => number, between: number): Line {
  const groups = new Map<string, RestedScore[]>();
  rows.forEach((row, index) => {
    const key = row.batch ?? `#${index}`;
    groups.set(key, [...(groups.get(key) ?? []), row]);
  });
  const shelf = ({ of }: RestedScore): number => (of === 'shelf' ? 1 : 0);
  const two = new Set(rows.map(shelf)).size > 1;
  const columns: ((row: RestedScore) => number)[] = [
    ({ restedDays }) => age(restedDays),
    () => 1,
    ...(two ? [shelf] : []),
  ];
  const size = columns.length;
  const square = Array.from({ length: size }, () => Array.from({ length: size }, () => 0));
  const right = Array.from({ length: size }, () => 0);
  let [yy, logSizes] = [0, 0];
  for (const group of groups.values()) {
    const n = group.length;
    const share = 1 - 1 / Math.sqrt(1 + n * between);
    const less = (of: (row: RestedScore) => number): ((row: RestedScore) => number) => {
      const mean = group.reduce((sum, row) => sum + of(row), 0) / n;
      return (row) => of(row) - share * mean;
    };
    const own = columns.map(less);
    const score = less((row) => row.score);
    logSizes += 0.5 * Math.log(1 + n * between);
    for (const row of group) {
      const x = own.map((of) => of(row));
      const y = score(row);
      yy += y * y;
      x.forEach((value, i) => {
        right[i] = (right[i] ?? 0) + value * y;
        x.forEach((other, j) => {
          const line = square[i];
          if (line) line[j] = (line[j] ?? 0) + value * other;
        });
      });
    }
  }
  const lower = cholesky(square);
  const inverse = invert(square);
  const fitted = times(inverse, right);
  const left = Math.max(1e-9, yy - fitted.reduce((sum, value, i) => sum + value * (right[i] ?? 0), 0));
  const dof = Math.max(1, rows.length - size);
  // Restricted: so that few batches do not seem more alike than they are.
  const logDet = 2 * lower.reduce((sum, line, i) => sum + Math.log(Math.max(1e-12, line[i] ?? 0)), 0);
  return {
    slope: fitted[0] ?? 0,
    error: Math.sqrt((left / dof) * Math.max(0, inverse[0]?.[0] ?? 0)),
    logLikelihood: -logSizes - 0.5 * dof * Math.log(left) - 0.5 * logDet,
  };
}

const best = <T>(rows: readonly T[], of: (row: T) => number): T =>
  rows.reduce((top, row) => (of(row) > of(top) ? row : top));

/**
 * Whether resting helps a bean, and when it is enough, from its own batches: scores along the rest and of the finished
 * bars against days. It says so plainly when they are too few, or rested too much alike, to tell.
 *
 * @param quantile of Student's t: `(p, degrees) => number`
 */
export function judgeRest(rows: readonly RestedScore[], quantile: (p: number, dof: number) => number): RestVerdict {
  const n = rows.length;
  const none = (sentence: string): RestVerdict => ({
    tone: 'quiet',
    sentence,
    perWeek: null,
    enoughDays: null,
    of: n,
  });
  if (n < FEWEST)
    return none(`Only ${n} ${n === 1 ? 'score' : 'scores'} by days of rest: too few to say whether it helps.`);
  const meanDays = rows.reduce((sum, { restedDays }) => sum + restedDays, 0) / n;
  const squares = rows.reduce((sum, { restedDays }) => sum + (restedDays - meanDays) ** 2, 0);
  if (Math.sqrt(squares / n) < LEAST_SPREAD)
    return none(
      `All ${n} rested about ${meanDays.toFixed(0)} days: try one shorter and one longer to learn what it does.`,
    );
  const alike = rows.some(({ batch }, index) =>
    rows.some((row, other) => other !== index && row.batch === batch && batch !== undefined),
  );
  const ratios = alike ? BETWEEN : [0];
  const straight = best(
    ratios.map((between) => lineThrough(rows, (days) => days, between)),
    ({ logLikelihood }) => logLikelihood,
  );
  const error = straight.error * quantile(0.9, n - 2);
  const perWeek = {
    mean: 7 * straight.slope,
    low: 7 * (straight.slope - error),
    high: 7 * (straight.slope + error),
  };
  const points = (value: number): string => `${value < 0 ? '−' : '+'}${Math.abs(value).toFixed(1)}`;
  const range = `${points(perWeek.low)} to ${points(perWeek.high)} points a week, ${n} scores`;
  const enoughDays = enough(rows, ratios, quantile(0.9, n - 2));
  const level =
    enoughDays === null
      ? ''
      : ` Most of it is there after about ${enoughDays.about.toFixed(0)} days (${enoughDays.from.toFixed(0)} to ${enoughDays.to.toFixed(0)}).`;
  const said = { perWeek, enoughDays, of: n };
  if (perWeek.low > 0 || (enoughDays !== null && perWeek.high > 0))
    return { tone: 'good', sentence: `Resting helps it: ${range}.${level}`, ...said };
  if (perWeek.high < 0) return { tone: 'watch', sentence: `Longer rest scored lower: ${range}.`, ...said };
  return { tone: 'quiet', sentence: `No difference shows yet: ${range}.`, ...said };
}

/** When a gain levels off: the time constants that go with the scores. */
function enough(rows: readonly RestedScore[], ratios: readonly number[], t: number): RestVerdict['enoughDays'] {
  const found = TAUS.map((tau) => ({
    tau,
    line: best(
      ratios.map((between) => lineThrough(rows, (days) => 1 - Math.exp(-days / tau), between)),
      ({ logLikelihood }) => logLikelihood,
    ),
  }));
  // The scale of an age is no part of how well it fits: det carries its square.
  const fit = ({ tau, line }: (typeof found)[number]): number =>
    line.logLikelihood + Math.log(spreadOf(rows, (days) => 1 - Math.exp(-days / tau)));
  const top = best(found, fit);
  if (top.line.slope - t * top.line.error <= 0 || top.tau === TAUS.at(-1)) return null;
  const kept = found.filter((row) => fit(top) - fit(row) <= KEPT).map(({ tau }) => tau * MOST);
  if (kept.includes((TAUS.at(-1) ?? 0) * MOST)) return null;
  return { from: Math.min(...kept), about: top.tau * MOST, to: Math.max(...kept) };
}

function spreadOf(rows: readonly RestedScore[], age: (days: number) => number): number {
  const mean = rows.reduce((sum, { restedDays }) => sum + age(restedDays), 0) / rows.length;
  return Math.sqrt(rows.reduce((sum, { restedDays }) => sum + (age(restedDays) - mean) ** 2, 0));
}
