import { normals, seeded } from './chance';

/** Weighted draws of a few parameters; the weights add up to 1. */
export interface Draws {
  values: number[][];
  weights: number[];
  /** As many independent draws as they are worth. */
  effective: number;
}

export interface NormalPrior {
  mean: readonly number[];
  covariance: readonly (readonly number[])[];
}

/** At least two rounds look where the posterior is; more do where data and prior stand far apart. */
const LEAST_ROUNDS = 2;
const MOST_ROUNDS = 12;
/** Share of a round's draws that has to be worth something before its shape is trusted. */
const ENOUGH = 0.12;
/** Share of draws that always comes from the prior, so that no part of it is ever out of reach. */
const FROM_PRIOR = 0.15;
/** The proposal is wider than what it follows: too narrow a one loses tails, too wide a one only draws. */
const WIDER = 1.3;

/**
 * Draws from a posterior with a prior that is normal but for heavier tails, and any likelihood, by adaptive importance sampling (Cappé, Guillin, Marin
 * and Robert 2004; defensive mixture after Hesterberg 1995): each round proposes from a normal around what the last one
 * found, mixed with the prior; as long as hardly any draw is worth something the data are taken in only as far as some
 * are. Seeded: the same data give the same draws.
 *
 * @param logLikelihood of one set of parameters; -Infinity where it cannot be
 * @param count draws of the last round; the earlier ones take a third
 */
export function drawPosterior(
  prior: NormalPrior,
  logLikelihood: (parameters: readonly number[]) => number,
  count: number,
  seed: number,
): Draws {
  const normal = normals(seeded(seed));
  const uniform = seeded(seed + 1);
  const own = heavyTailed(prior, uniform);
  let proposal: Normal | null = null;
  const round = (
    draws: number,
  ): { values: number[][]; priorLogs: number[]; proposedLogs: number[]; data: number[] } => {
    const made = {
      values: [] as number[][],
      priorLogs: [] as number[],
      proposedLogs: [] as number[],
      data: [] as number[],
    };
    for (let n = 0; n < draws; n += 1) {
      const from: Normal = proposal === null || uniform() < FROM_PRIOR ? own : proposal;
      const value = from.draw(normal);
      const priorLog = own.log(value);
      made.values.push(value);
      made.priorLogs.push(priorLog);
      made.proposedLogs.push(
        proposal === null
          ? priorLog
          : Math.log(FROM_PRIOR * Math.exp(priorLog) + (1 - FROM_PRIOR) * Math.exp(proposal.log(value)) + 1e-300),
      );
      made.data.push(logLikelihood(value));
    }
    return made;
  };
  const weigh = ({ values, priorLogs, proposedLogs, data }: ReturnType<typeof round>, power: number): Draws => {
    const weights = normalised(
      data.map((log, n) => (log === -Infinity ? log : power * log + (priorLogs[n] ?? 0) - (proposedLogs[n] ?? 0))),
    );
    return { values, weights, effective: 1 / weights.reduce((sum, w) => sum + w * w, 0) };
  };
  const few = Math.ceil(count / 3);
  for (let n = 0; n < MOST_ROUNDS; n += 1) {
    const made = round(few);
    let power = 1;
    let found = weigh(made, power);
    while (found.effective < ENOUGH * few && power > 0.01) {
      power *= 0.7;
      found = weigh(made, power);
    }
    proposal = follow(found, prior);
    if (power === 1 && n + 1 >= LEAST_ROUNDS) break;
  }
  return weigh(round(count), 1);
}

interface Normal {
  draw: (normal: () => number) => number[];
  /** Logarithm of its density, but for what is the same for all of this size. */
  log: (value: readonly number[]) => number;
}

/** One case in ten is nothing like the others, and that by so many times the variance. */
const [STRANGE, STRANGER] = [0.1, 6.25];

/** The prior with tails: most of it the normal that was given, some of it a far wider one. */
function heavyTailed({ mean, covariance }: NormalPrior, uniform: () => number): Normal {
  const usual = normalOf(mean, covariance);
  const strange = normalOf(
    mean,
    covariance.map((row) => row.map((value) => STRANGER * value)),
  );
  return {
    draw: (normal) => (uniform() < STRANGE ? strange : usual).draw(normal),
    log: (value) => {
      const [a, b] = [Math.log(1 - STRANGE) + usual.log(value), Math.log(STRANGE) + strange.log(value)];
      const top = Math.max(a, b);
      return top + Math.log(Math.exp(a - top) + Math.exp(b - top));
    },
  };
}

function normalOf(mean: readonly number[], covariance: readonly (readonly number[])[]): Normal {
  const size = mean.length;
  const root = cholesky(covariance);
  const inverse = invertLower(root);
  const logDet = root.reduce((sum, row, i) => sum + Math.log(row[i] ?? 1), 0);
  const z = new Float64Array(size);
  const off = new Float64Array(size);
  return {
    draw: (normal) => {
      for (let i = 0; i < size; i += 1) z[i] = normal();
      const value: number[] = [];
      for (let i = 0; i < size; i += 1) {
        const row = root[i] ?? [];
        let sum = mean[i] ?? 0;
        for (let j = 0; j <= i; j += 1) sum += (row[j] ?? 0) * (z[j] ?? 0);
        value.push(sum);
      }
      return value;
    },
    log: (value) => {
      let squares = 0;
      for (let i = 0; i < size; i += 1) off[i] = (value[i] ?? 0) - (mean[i] ?? 0);
      for (let i = 0; i < size; i += 1) {
        const row = inverse[i] ?? [];
        let sum = 0;
        for (let j = 0; j <= i; j += 1) sum += (row[j] ?? 0) * (off[j] ?? 0);
        squares += sum * sum;
      }
      return -0.5 * squares - logDet;
    },
  };
}

/** Weights from their logarithms; all alike where none can be. */
function normalised(logs: readonly number[]): number[] {
  const top = logs.reduce((a, b) => Math.max(a, b), -Infinity);
  if (!Number.isFinite(top)) return logs.map(() => 1 / logs.length);
  const raw = logs.map((log) => Math.exp(log - top));
  const sum = raw.reduce((a, b) => a + b, 0);
  return raw.map((w) => w / sum);
}

/** Mean and covariance of weighted draws. */
export function momentsOf({ values, weights }: Pick<Draws, 'values' | 'weights'>): {
  mean: number[];
  covariance: number[][];
} {
  const size = values[0]?.length ?? 0;
  const mean = Array.from({ length: size }, (_, i) =>
    values.reduce((sum, value, n) => sum + (weights[n] ?? 0) * (value[i] ?? 0), 0),
  );
  const covariance = mean.map((_, i) =>
    mean.map((__, j) =>
      values.reduce(
        (sum, value, n) =>
          sum + (weights[n] ?? 0) * ((value[i] ?? 0) - (mean[i] ?? 0)) * ((value[j] ?? 0) - (mean[j] ?? 0)),
        0,
      ),
    ),
  );
  return { mean, covariance };
}

/** What the next round draws from. */
function follow(draws: Draws, prior: NormalPrior): Normal {
  const { mean, covariance } = momentsOf(draws);
  // Few effective draws say little of the shape: some of the prior stays in it.
  const trust = Math.min(1, draws.effective / (10 * mean.length));
  const stays = 0.0004 + (1 - trust) * 0.09;
  const wide = covariance.map((row, i) =>
    row.map((value, j) => WIDER * WIDER * value + stays * (prior.covariance[i]?.[j] ?? 0)),
  );
  return normalOf(mean, wide);
}

/** A covariance without correlation. @param sd standard deviations */
export const diagonal = (sd: readonly number[]): number[][] =>
  sd.map((value, i) => sd.map((_, j) => (i === j ? value * value : 0)));

/** Lower triangle L with L·Lᵀ the matrix; what rounding makes negative is nearly nothing. */
export function cholesky(matrix: readonly (readonly number[])[]): number[][] {
  const lower = matrix.map((row) => row.map(() => 0));
  for (let i = 0; i < matrix.length; i += 1)
    for (let j = 0; j <= i; j += 1) {
      let sum = matrix[i]?.[j] ?? 0;
      for (let k = 0; k < j; k += 1) sum -= (lower[i]?.[k] ?? 0) * (lower[j]?.[k] ?? 0);
      const row = lower[i];
      if (row) row[j] = i === j ? Math.sqrt(Math.max(sum, 1e-12)) : sum / (lower[j]?.[j] ?? 1);
    }
  return lower;
}

/** Inverse of a symmetric positive matrix. */
export function invert(matrix: readonly (readonly number[])[]): number[][] {
  const lower = invertLower(cholesky(matrix));
  return matrix.map((_, i) =>
    matrix.map((__, j) => {
      let sum = 0;
      for (let k = Math.max(i, j); k < matrix.length; k += 1) sum += (lower[k]?.[i] ?? 0) * (lower[k]?.[j] ?? 0);
      return sum;
    }),
  );
}

export const times = (matrix: readonly (readonly number[])[], vector: readonly number[]): number[] =>
  matrix.map((row) => row.reduce((sum, factor, j) => sum + factor * (vector[j] ?? 0), 0));

/** Inverse of a lower triangle. */
function invertLower(lower: readonly (readonly number[])[]): number[][] {
  const size = lower.length;
  const inverse = Array.from({ length: size }, () => Array<number>(size).fill(0));
  for (let column = 0; column < size; column += 1)
    for (let i = column; i < size; i += 1) {
      let sum = i === column ? 1 : 0;
      for (let k = column; k < i; k += 1) sum -= (lower[i]?.[k] ?? 0) * (inverse[k]?.[column] ?? 0);
      const row = inverse[i];
      if (row) row[column] = sum / (lower[i]?.[i] ?? 1);
    }
  return inverse;
}

/** The value below which a share of the weight lies. @param order places of the values, rising */
export function weightedQuantile(
  values: readonly number[],
  weights: readonly number[],
  share: number,
  order = rising(values),
): number {
  let sum = 0;
  for (const index of order) {
    sum += weights[index] ?? 0;
    if (sum >= share - 1e-12) return values[index] ?? NaN;
  }
  return values[order.at(-1) ?? 0] ?? NaN;
}

/** Places of values from the least to the largest. */
export const rising = (values: readonly number[]): number[] =>
  values.map((_, index) => index).sort((a, b) => (values[a] ?? 0) - (values[b] ?? 0) || a - b);
