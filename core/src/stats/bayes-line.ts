import { inverse, Matrix } from 'ml-matrix';
import { studentQuantile } from './distributions';

/**
 * What is thought of a linear relation before any point is seen, and how sure that is: coefficients normal about
 * `mean` with standard deviations `sd`, scatter of the points about `scatter`, as sure as `worth` points would make it.
 */
export interface LinePrior {
  mean: readonly number[];
  sd: readonly number[];
  scatter: number;
  worth: number;
}

export interface BayesLine {
  coefficients: number[];
  /** Scale matrix of the coefficients, in units of the squared scatter. */
  spread: number[][];
  /** Typical distance of a point from the relation. */
  scatter: number;
  dof: number;
  n: number;
}

export interface Estimate {
  mean: number;
  low: number;
  high: number;
}

/**
 * Linear regression with a conjugate normal and inverse-gamma prior (Gelman et al., Bayesian Data Analysis, ch. 14): few
 * points leave the prior standing and the intervals wide, many overrule it.
 *
 * @param rows one row of regressors a point, each as long as the prior; @param values one a row
 */
export function bayesLine(
  rows: readonly (readonly number[])[],
  values: readonly number[],
  prior: LinePrior,
): BayesLine {
  const k = prior.mean.length;
  const priorPrecision = Matrix.diag(prior.sd.map((sd) => (prior.scatter / sd) ** 2));
  const m0 = Matrix.columnVector([...prior.mean]);
  const x = rows.length > 0 ? new Matrix(rows.map((row) => [...row])) : Matrix.zeros(0, k);
  const y = Matrix.columnVector([...values]);
  const precision = Matrix.add(priorPrecision, rows.length > 0 ? x.transpose().mmul(x) : Matrix.zeros(k, k));
  const inverted = inverse(precision);
  // Rounding leaves it a hair off symmetric.
  const spread = Matrix.add(inverted, inverted.transpose()).mul(0.5);
  const pulled = priorPrecision.mmul(m0);
  const mean = spread.mmul(rows.length > 0 ? Matrix.add(pulled, x.transpose().mmul(y)) : pulled);
  const quadratic = (matrix: Matrix, vector: Matrix): number => vector.transpose().mmul(matrix).mmul(vector).get(0, 0);
  const ss =
    prior.worth * prior.scatter ** 2 +
    values.reduce((sum, value) => sum + value * value, 0) +
    quadratic(priorPrecision, m0) -
    quadratic(precision, mean);
  const dof = prior.worth + values.length;
  return {
    coefficients: mean.to1DArray(),
    spread: spread.to2DArray(),
    scatter: Math.sqrt(Math.max(1e-12, ss / dof)),
    dof,
    n: values.length,
  };
}

/**
 * The relation at one place.
 *
 * @param at regressors; @param next true for where one more point would fall, false for the relation itself
 */
export function estimateAt(
  line: BayesLine,
  at: readonly number[],
  next: boolean,
  level = 0.8,
): Estimate & { sd: number } {
  const mean = at.reduce((sum, value, i) => sum + value * (line.coefficients[i] ?? 0), 0);
  const lift = at.reduce(
    (sum, a, i) => sum + at.reduce((row, b, j) => row + a * b * (line.spread[i]?.[j] ?? 0), 0),
    next ? 1 : 0,
  );
  const sd = line.scatter * Math.sqrt(lift);
  const half = studentQuantile(1 - (1 - level) / 2, line.dof) * sd;
  return { mean, low: mean - half, high: mean + half, sd };
}
