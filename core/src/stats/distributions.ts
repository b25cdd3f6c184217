// @ts-expect-error -- the package ships no types
import untyped from 'jstat';

interface Distributions {
  studentt: { inv(p: number, dof: number): number };
  normal: { inv(p: number, mean: number, sd: number): number };
  betaln(a: number, b: number): number;
}

const jstat = untyped as Distributions;

/** Quantile of Student's t. @param p in (0, 1); @param dof at least 1 */
export const studentQuantile = (p: number, dof: number): number => jstat.studentt.inv(p, dof);

/** Quantile of the standard normal. @param p in (0, 1) */
export const normalQuantile = (p: number): number => jstat.normal.inv(p, 0, 1);

/** Logarithm of the beta function. @param a, @param b over 0 */
export const logBeta = (a: number, b: number): number => jstat.betaln(a, b);
