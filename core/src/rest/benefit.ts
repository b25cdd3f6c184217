/** A score of a batch, and how long its blocks had rested when it was tempered. */
export interface RestedScore {
  restedDays: number;
  score: number;
}

export interface RestVerdict {
  tone: 'good' | 'watch' | 'quiet';
  sentence: string;
  /** Change of the score for a week more, with the interval that eight in ten such would lie in; null: too few. */
  perWeek: { mean: number; low: number; high: number } | null;
  of: number;
}

/** Batches below which a slope says nothing. */
const FEWEST = 6;
/** Days by which they have to differ. */
const LEAST_SPREAD = 3;

/**
 * Whether resting helps a bean, from its own batches: the slope of the score over days, with its interval. It says so
 * plainly when they are too few, or rested too much alike, to tell.
 *
 * @param quantile of Student's t: `(p, degrees) => number`
 */
export function judgeRest(rows: readonly RestedScore[], quantile: (p: number, dof: number) => number): RestVerdict {
  const n = rows.length;
  const none = (sentence: string): RestVerdict => ({ tone: 'quiet', sentence, perWeek: null, of: n });
  if (n < FEWEST)
    return none(`Only ${n} tasted ${n === 1 ? 'batch' : 'batches'} that rested: too few to say whether it helps.`);
  const meanDays = rows.reduce((sum, { restedDays }) => sum + restedDays, 0) / n;
  const meanScore = rows.reduce((sum, { score }) => sum + score, 0) / n;
  const squares = rows.reduce((sum, { restedDays }) => sum + (restedDays - meanDays) ** 2, 0);
  if (Math.sqrt(squares / n) < LEAST_SPREAD)
    return none(
      `All ${n} rested about ${meanDays.toFixed(0)} days: try one shorter and one longer to learn what it does.`,
    );
  const slope =
    rows.reduce((sum, { restedDays, score }) => sum + (restedDays - meanDays) * (score - meanScore), 0) / squares;
  const left = rows.reduce(
    (sum, { restedDays, score }) => sum + (score - meanScore - slope * (restedDays - meanDays)) ** 2,
    0,
  );
  const error = Math.sqrt(left / (n - 2) / squares) * quantile(0.9, n - 2);
  const perWeek = { mean: 7 * slope, low: 7 * (slope - error), high: 7 * (slope + error) };
  const points = (value: number): string => `${value < 0 ? '−' : '+'}${Math.abs(value).toFixed(1)}`;
  const range = `${points(perWeek.low)} to ${points(perWeek.high)} points a week, ${n} batches`;
  if (perWeek.low > 0) return { tone: 'good', sentence: `Resting helps it: ${range}.`, perWeek, of: n };
  if (perWeek.high < 0) return { tone: 'watch', sentence: `Longer rest scored lower: ${range}.`, perWeek, of: n };
  return { tone: 'quiet', sentence: `No difference shows yet: ${range}.`, perWeek, of: n };
}
