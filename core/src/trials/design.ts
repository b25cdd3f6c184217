import { determinant, Matrix } from 'ml-matrix';
import { DomainError } from '../errors/domain-error';
import { isKind, type Level, type TrialPlan } from './records';

/* Which combinations to make, and in which order. */

type Factors = TrialPlan['factors'];

/** What a row of levels says to a linear relation: one, each factor from −1 to 1, its square where it has three levels. */
export function regressorsOf(factors: Factors): { names: string[]; row: (arm: readonly Level[]) => number[] } {
  const names: string[] = ['one'];
  const parts: ((arm: readonly Level[]) => number)[] = [() => 1];
  const figures: number[] = [];
  factors.forEach(({ factor, levels }, f) => {
    if (isKind(factor)) {
      // Each kind its own step about the middle of all.
      levels.forEach((level) => {
        names.push('kind');
        parts.push((arm) => (arm[f] === level ? 1 : 0) - 1 / levels.length);
      });
      return;
    }
    const figuresOf = levels.map(Number);
    const [low, high] = [Math.min(...figuresOf), Math.max(...figuresOf)];
    const at = (arm: readonly Level[]): number => (high > low ? (2 * (Number(arm[f]) - low)) / (high - low) - 1 : 0);
    figures.push(parts.length);
    names.push('linear');
    parts.push(at);
    names.push('square');
    parts.push((arm) => at(arm) ** 2);
  });
  for (let i = 0; i < figures.length; i += 1)
    for (let j = i + 1; j < figures.length; j += 1) {
      const [a, b] = [parts[figures[i] ?? 0], parts[figures[j] ?? 0]];
      names.push('product');
      parts.push((arm) => (a?.(arm) ?? 0) * (b?.(arm) ?? 0));
    }
  return { names, row: (arm) => parts.map((part) => part(arm)) };
}

/** Every level with every other. */
export const fullDesign = (factors: Factors): Level[][] =>
  factors.reduce<Level[][]>((arms, { levels }) => arms.flatMap((arm) => levels.map((level) => [...arm, level])), [[]]);

/** One thing step by step, the others as they are first. */
export const ladderDesign = (factors: Factors): Level[][] => {
  const [first, ...others] = factors;
  return (first?.levels ?? []).map((level) => [level, ...others.map(({ levels }) => levels[0] ?? 0)]);
};

/** So many combinations at the least tell every factor’s own effect. */
export const fewestArms = (factors: Factors): number =>
  1 +
  factors.reduce(
    (sum, { factor, levels }) => sum + (isKind(factor) ? levels.length - 1 : Math.min(2, levels.length - 1)),
    0,
  );

/**
 * As few as will tell: of all combinations the ones that say most together about each factor (largest determinant of the
 * information, found by exchanging one at a time; V. V. Fedorov, Theory of Optimal Experiments).
 *
 * @throws DomainError `trials/too-few`
 */
export function smallDesign(factors: Factors, count: number): Level[][] {
  const all = fullDesign(factors);
  if (count >= all.length) return all;
  const least = fewestArms(factors);
  if (count < least)
    throw new DomainError('trials/too-few', `${count} batches cannot tell so much apart: it takes ${least}.`, [
      { path: 'count', message: `is under ${least}` },
    ]);
  const { names, row } = regressorsOf(factors);
  const wanted = names.map((name) => name !== 'product');
  const rows = all.map((arm) => row(arm).filter((_, i) => wanted[i]));
  // A breath of what is known before keeps it solvable while arms are exchanged.
  const information = (chosen: readonly number[]): number => {
    const x = new Matrix(chosen.map((i) => rows[i] ?? []));
    return determinant(Matrix.add(x.transpose().mmul(x), Matrix.eye(x.columns).mul(1e-3)));
  };
  let chosen = Array.from({ length: count }, (_, i) => Math.floor((i * all.length) / count));
  for (let better = true; better;) {
    better = false;
    for (let place = 0; place < count; place += 1) {
      let [most, best] = [information(chosen), chosen];
      for (let other = 0; other < all.length; other += 1) {
        if (chosen.includes(other)) continue;
        const tried = chosen.map((value, i) => (i === place ? other : value));
        const value = information(tried);
        if (value > most * (1 + 1e-9)) [most, best] = [value, tried];
      }
      if (best !== chosen) [chosen, better] = [best, true];
    }
  }
  return chosen.sort((a, b) => a - b).map((i) => all[i] ?? []);
}

/** The order of making by chance, so that what drifts meanwhile does not look like what was varied. */
export function inChanceOrder<T>(arms: readonly T[], chance: () => number): T[] {
  return arms
    .map((arm) => ({ arm, at: chance() }))
    .sort((a, b) => a.at - b.at)
    .map(({ arm }) => arm);
}
