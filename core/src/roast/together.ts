import { inverse, Matrix } from 'ml-matrix';
import { type Common, NAMES, NUDGE, PRIOR_SD, type Ready, at, said } from './logged';

const { max, abs, sqrt } = Math;

/** From load to load a roaster differs by about a tenth, as sure as four loads would make it. */
export const SCATTER = 0.09;

export const WORTH = 4;

export interface Fitted {
  common: Common;
  /** Covariance of the common figures. */
  covariance: Matrix;
  /** How far loads lie apart in the logarithm of warming and of drying. */
  scatter: [number, number];
  rows: Ready[];
}

export const square = (values: Iterable<number>): number => {
  let sum = 0;
  for (const v of values) sum += v * v;
  return sum;
};

/** How what is said of a load moves with each common figure, and with its own two. */
export interface Slopes {
  common: Float64Array[];
  own: [Float64Array, Float64Array];
}

/** Turns what is said after a nudge into how it moves. */
function slope(moved: Float64Array, base: Float64Array, nudge: number): Float64Array {
  for (let j = 0; j < moved.length; j += 1) moved[j] = ((moved[j] ?? 0) - (base[j] ?? 0)) / nudge;
  return moved;
}

/** @param base what is said of the load with these figures; @param own its own deviations; @param widen steps of the derivatives, for each of the usual */
export function slopesOf(
  row: Ready,
  common: Common,
  base: Float64Array,
  own: Ready['own'] = row.own,
  widen = 1,
): Slopes {
  const lines = NAMES.map((name, k) => {
    if (name === 'slope') return base;
    const nudge = widen * (NUDGE[k] ?? 1e-3);
    const moved = common.map((v, j) => (j === k ? v + nudge : v));
    return slope(said(row, moved, own), base, nudge);
  });
  // A load's own figures are added to the common ones, and so is what its size makes of them.
  const [warming, drying] = [lines[at.warming] ?? base, lines[at.drying] ?? base];
  lines[at.slope] = warming.map((v) => v * row.x);
  return { common: lines, own: [warming, drying] };
}

function dot(p: Float64Array, q: Float64Array): number {
  let sum = 0;
  for (let j = 0; j < p.length; j += 1) sum += (p[j] ?? 0) * (q[j] ?? 0);
  return sum;
}

type Lines = [Float64Array, Float64Array, Float64Array, Float64Array, Float64Array];

/** A line by how much each reading counts, written into another: a fit does it ten thousand times. */
function weigh(line: Float64Array, weight: Float64Array, into: Float64Array): void {
  for (let j = 0; j < into.length; j += 1) into[j] = (line[j] ?? 0) * (weight[j] ?? 1);
}

/** Cost of a fit: squared distances, and how far it went from where it began. */
function costOf(
  rows: readonly Ready[],
  said: readonly Float64Array[],
  common: Common,
  prior: Common,
  scatter: readonly number[],
): number {
  let cost = 0;
  rows.forEach((row, i) => {
    const line = said[i] as Float64Array;
    for (let j = 0; j < line.length; j += 1) cost += robust((row.heard[j] ?? 0) - (line[j] ?? 0));
    cost += (row.own[0] / (scatter[0] ?? 1)) ** 2 + (row.own[1] / (scatter[1] ?? 1)) ** 2;
  });
  return cost + square(common.map((v, k) => (v - (prior[k] ?? 0)) / (PRIOR_SD[k] ?? 1)));
}

/** A reading far off the line (a knocked probe, an open door) counts by its distance, not its square (Huber). */
const HUBER = 3;

const robust = (r: number): number => (abs(r) <= HUBER ? r * r : HUBER * (2 * abs(r) - HUBER));

const robustWeight = (r: number): number => (abs(r) <= HUBER ? 1 : HUBER / abs(r));

/**
 * All loads of a roaster together: figures that are common to them, and for each load how its beans warmed and dried
 * differently (normal about the common figures, with a scatter that is learned too). Gauss–Newton steps with
 * Levenberg's damping; each load's own figures are eliminated first, so that forty loads cost forty times one.
 *
 * @param from where to begin; with slopes of the loads there, which are kept: near where it ends they hardly change
 */
export function fitTogether(
  rows: Ready[],
  prior: Common,
  rounds: number,
  from?: Pick<Fitted, 'common' | 'scatter'> & { slopes: (row: Ready) => Slopes | undefined },
): Fitted {
  const K = prior.length;
  let common = [...(from?.common ?? prior)];
  let scatter: [number, number] = [...(from?.scatter ?? [SCATTER, SCATTER])];
  let damping = 0.01;
  let now = rows.map((row) => said(row, common, row.own));
  let cost = costOf(rows, now, common, prior, scatter);
  let covariance = Matrix.diag(PRIOR_SD.map((sd) => sd ** 2));
  for (let round = 0; round < rounds; round += 1) {
    const S = Matrix.diag(PRIOR_SD.map((sd) => sd ** -2));
    const b = prior.map((p, k) => (p - (common[k] ?? 0)) / (PRIOR_SD[k] ?? 1) ** 2);
    const locals: { H: [number, number, number]; g: [number, number]; C: Float64Array[] }[] = [];
    const priorLocal = [scatter[0] ** -2, scatter[1] ** -2] as const;
    const ownVariance: [number, number] = [0, 0];
    rows.forEach((row, i) => {
      const base = now[i] as Float64Array;
      const { heard } = row;
      const [residual, weight, w0, w1, jp] = Array.from({ length: 5 }, () => new Float64Array(heard.length)) as Lines;
      for (let j = 0; j < heard.length; j += 1) {
        residual[j] = (heard[j] ?? 0) - (base[j] ?? 0);
        weight[j] = robustWeight(residual[j] ?? 0);
      }
      const { common: J, own } = from?.slopes(row) ?? slopesOf(row, common, base);
      const [l0, l1] = own;
      weigh(l0, weight, w0);
      weigh(l1, weight, w1);
      const H: [number, number, number] = [
        (dot(w0, l0) + priorLocal[0]) * (1 + damping),
        dot(w0, l1),
        (dot(w1, l1) + priorLocal[1]) * (1 + damping),
      ];
      const g: [number, number] = [
        dot(w0, residual) - priorLocal[0] * row.own[0],
        dot(w1, residual) - priorLocal[1] * row.own[1],
      ];
      const C = J.map((j) => Float64Array.from([dot(w0, j), dot(w1, j)]));
      const det = H[0] * H[2] - H[1] ** 2;
      ownVariance[0] += H[2] / det;
      ownVariance[1] += H[0] / det;
      for (let p = 0; p < K; p += 1) {
        const cp = C[p] as Float64Array;
        weigh(J[p] as Float64Array, weight, jp);
        const along: [number, number] = [
          (H[2] * (cp[0] ?? 0) - H[1] * (cp[1] ?? 0)) / det,
          (H[0] * (cp[1] ?? 0) - H[1] * (cp[0] ?? 0)) / det,
        ];
        b[p] = (b[p] ?? 0) + dot(jp, residual) - along[0] * g[0] - along[1] * g[1];
        for (let q = 0; q <= p; q += 1) {
          const cq = C[q] as Float64Array;
          const both = dot(jp, J[q] as Float64Array) - along[0] * (cq[0] ?? 0) - along[1] * (cq[1] ?? 0);
          S.set(p, q, S.get(p, q) + both);
          if (q < p) S.set(q, p, S.get(q, p) + both);
        }
      }
      locals.push({ H, g, C });
    });
    covariance = symmetric(inverse(S));
    const damped = S.clone();
    for (let p = 0; p < K; p += 1) damped.set(p, p, damped.get(p, p) * (1 + damping));
    const step = inverse(damped).mmul(Matrix.columnVector(b)).to1DArray();
    const next = common.map((v, k) => v + (step[k] ?? 0));
    const before = rows.map(({ own }) => own);
    rows.forEach((row, i) => {
      const { H, g, C } = locals[i] as (typeof locals)[number];
      const r = ([0, 1] as const).map((k) => g[k] - C.reduce((sum, c, p) => sum + (c[k] ?? 0) * (step[p] ?? 0), 0));
      const det = H[0] * H[2] - H[1] ** 2;
      row.own = [
        row.own[0] + (H[2] * (r[0] ?? 0) - H[1] * (r[1] ?? 0)) / det,
        row.own[1] + (H[0] * (r[1] ?? 0) - H[1] * (r[0] ?? 0)) / det,
      ];
    });
    const trial = rows.map((row) => said(row, next, row.own));
    const trialCost = costOf(rows, trial, next, prior, scatter);
    if (!(trialCost < cost)) {
      rows.forEach((row, i) => (row.own = before[i] as [number, number]));
      damping *= 6;
      if (damping > 1e5) break;
      continue;
    }
    const gained = cost - trialCost;
    [common, now] = [next, trial];
    damping = max(1e-6, damping / 5);
    // The scatter of loads about the common figures, as sure as four loads to begin with.
    const learned = ([0, 1] as const).map((k) =>
      sqrt((WORTH * SCATTER ** 2 + square(rows.map(({ own }) => own[k])) + ownVariance[k]) / (WORTH + rows.length)),
    );
    scatter = [learned[0] ?? SCATTER, learned[1] ?? SCATTER];
    cost = costOf(rows, now, common, prior, scatter);
    if (gained < 1e-3 * max(1, trialCost)) break;
  }
  return { common, covariance, scatter, rows };
}

const symmetric = (m: Matrix): Matrix => Matrix.add(m, m.transpose()).mul(0.5);

/** How far a fit expects each reading of a load that it has not seen to be off: variances, weighted as `said` is. */
export function variances(row: Ready, { common, covariance, scatter }: Fitted, values: Float64Array): Float64Array {
  const { common: slopes, own } = slopesOf(row, common, values, [0, 0], 5);
  return values.map((_, j) => {
    let sum = 0;
    slopes.forEach((p, k) => slopes.forEach((q, l) => (sum += (p[j] ?? 0) * (q[j] ?? 0) * covariance.get(k, l))));
    return sum + ((own[0][j] ?? 0) * scatter[0]) ** 2 + ((own[1][j] ?? 0) * scatter[1]) ** 2;
  });
}
