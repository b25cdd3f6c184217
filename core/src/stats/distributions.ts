// @ts-expect-error -- the package ships no types
import untyped from 'jstat';

interface Distributions {
  studentt: { inv(p: number, dof: number): number; cdf(t: number, dof: number): number };
  normal: { inv(p: number, mean: number, sd: number): number };
  centralF: { inv(p: number, d1: number, d2: number): number };
  betaln(a: number, b: number): number;
  beta: { inv(p: number, a: number, b: number): number };
  ibeta(x: number, a: number, b: number): number;
}

const jstat = untyped as Distributions;

/** Quantile of Student's t. @param p in (0, 1); @param dof at least 1 */
export const studentQuantile = (p: number, dof: number): number => jstat.studentt.inv(p, dof);

/** Quantile of Fisher's F. @param p in (0, 1); @param d1, @param d2 degrees of freedom, at least 1 */
export const fisherQuantile = (p: number, d1: number, d2: number): number => jstat.centralF.inv(p, d1, d2);

/** Quantile of the standard normal. @param p in (0, 1) */
export const normalQuantile = (p: number): number => jstat.normal.inv(p, 0, 1);

/** Quantile of the beta distribution. @param p in (0, 1); @param a, @param b over 0 */
export const betaQuantile = (p: number, a: number, b: number): number => jstat.beta.inv(p, a, b);

/** Share of a beta distribution below x: the regularised incomplete beta function. @param a, @param b over 0 */
export const betaShare = (x: number, a: number, b: number): number => jstat.ibeta(x, a, b);

/** Logarithm of the beta function. @param a, @param b over 0 */
export const logBeta = (a: number, b: number): number => jstat.betaln(a, b);

/** Standard normal distribution function, to 1e-7 (Abramowitz and Stegun 26.2.17). */
export function normalCumulative(z: number): number {
  const t = 1 / (1 + 0.2316419 * Math.abs(z));
  const tail =
    Math.exp(-0.5 * z * z) *
    0.3989422804 *
    t *
    (0.31938153 + t * (-0.356563782 + t * (1.781477937 + t * (-1.821255978 + t * 1.330274429))));
  return z > 0 ? 1 - tail : tail;
}

/** Chance that Student's t with so many degrees of freedom stays under a value. */
export const studentShare = (t: number, dof: number): number => jstat.studentt.cdf(t, dof);
