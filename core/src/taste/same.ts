import { DomainError } from '../errors/domain-error';
import { exactBounds } from '../stats/intervals';

/*
 * Is it the same? Exact tests of who finds the odd one (triangle, ISO 4120), who pairs four rightly (tetrad), who says
 * which of two has more of something (paired comparison, ISO 5495).
 */

export const SAME_TESTS = ['triangle', 'tetrad', 'paired'] as const;
export type SameTest = (typeof SAME_TESTS)[number];
export const SAME_TEST_WORDS: Readonly<Record<SameTest, string>> = {
  triangle: 'Triangle: three samples, which is the odd one',
  tetrad: 'Tetrad: four samples, which two and two belong together',
  paired: 'Pair: two samples, which has more of it',
};
/** How often somebody is right who tastes nothing. */
const BY_CHANCE: Readonly<Record<SameTest, number>> = { triangle: 1 / 3, tetrad: 1 / 3, paired: 1 / 2 };
/** Such a difference is taken for chance one time in so many, at the most. */
const ALPHA = 0.05;
const MOST = 2000;

/** Logarithm of n!, summed once. */
const logFactorials: number[] = [0];
function logFactorial(n: number): number {
  for (let i = logFactorials.length; i <= n; i += 1) logFactorials[i] = (logFactorials[i - 1] ?? 0) + Math.log(i);
  return logFactorials[n] ?? 0;
}

/** Chance that of n tries at p each at least so many succeed: exact. */
export function atLeast(hits: number, n: number, p: number): number {
  if (hits <= 0) return 1;
  if (hits > n || p <= 0) return 0;
  if (p >= 1) return 1;
  let sum = 0;
  for (let k = hits; k <= n; k += 1)
    sum += Math.exp(
      logFactorial(n) - logFactorial(k) - logFactorial(n - k) + k * Math.log(p) + (n - k) * Math.log(1 - p),
    );
  return Math.min(1, sum);
}

/**
 * Right answers from which a difference is no chance.
 *
 * @example fewestRight('triangle', 12) // 8, as in ISO 4120, table A.1
 */
export function fewestRight(test: SameTest, tries: number, alpha = ALPHA): number {
  // The chance falls with every hit: halved until it is found.
  let [low, high] = [0, tries + 1];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (atLeast(middle, tries, BY_CHANCE[test]) <= alpha) high = middle;
    else low = middle + 1;
  }
  return low;
}

/** Chance to notice a difference that this share of people can taste; the others guess. */
export function power(test: SameTest, tries: number, tastersShare: number, alpha = ALPHA): number {
  const p0 = BY_CHANCE[test];
  return atLeast(fewestRight(test, tries, alpha), tries, tastersShare + (1 - tastersShare) * p0);
}

/** Fewest tries with which such a difference is noticed so often; null: more than two thousand. */
export function triesFor(test: SameTest, tastersShare: number, wanted: number, alpha = ALPHA): number | null {
  const p0 = BY_CHANCE[test];
  const p = tastersShare + (1 - tastersShare) * p0;
  let fewest = fewestRight(test, 2, alpha);
  for (let tries = 3; tries <= MOST; tries += 1) {
    // One more answer asks for no more, or for one more right one.
    if (atLeast(fewest, tries, p0) > alpha) fewest += 1;
    if (atLeast(fewest, tries, p) >= wanted) return tries;
  }
  return null;
}

export interface SameResult {
  right: number;
  tries: number;
  fewest: number;
  /** Chance of so many right answers, or more, from people who taste no difference. */
  p: number;
  differs: boolean;
  /** Share of people who taste it, with the bounds of nineteen in twenty; 0 where it is under chance. */
  share: { value: number; low: number; high: number };
  /** Chance to notice what one in two can taste, with so many. */
  power: number;
  sentence: string;
}

/**
 * What answers say.
 *
 * @param right and of how many; @param tasters people behind them: fewer than tries where somebody tasted again
 * @throws DomainError `taste/answers`
 */
export function isItTheSame(test: SameTest, right: number, tries: number, tasters = tries): SameResult {
  if (!(
    Number.isInteger(right) &&
    Number.isInteger(tries) &&
    tries > 0 &&
    right >= 0 &&
    right <= tries &&
    tries <= MOST
  ))
    throw new DomainError('taste/answers', 'There cannot be more right answers than answers.', [
      { path: 'right', message: `is not 0 to ${tries}` },
    ]);
  const p0 = BY_CHANCE[test];
  const p = atLeast(right, tries, p0);
  const differs = p <= ALPHA;
  const share = (value: number): number => Math.max(0, Math.min(1, (value - p0) / (1 - p0)));
  const bounds = exactBounds(right, tries, 0.025);
  const found = { value: share(right / tries), low: share(bounds.low), high: share(bounds.high) };
  const half = power(test, tries, 0.5);
  const percent = (value: number): string => `${Math.round(100 * value)} in 100`;
  const again =
    tasters < tries
      ? ` ${tries} answers of ${tasters} people: those who tasted again count each time, so that it speaks of these people, not of all.`
      : '';
  const said = differs
    ? `They are not the same: ${right} of ${tries} were right, which guessing brings ${p < 0.001 ? 'less than once in a thousand' : `${percent(p)} times`}. About ${percent(found.value)} taste it (${percent(found.low)} to ${percent(found.high)}).`
    : half >= 0.8
      ? `No difference was found: ${right} of ${tries} were right, ${fewestRight(test, tries)} would have shown one. What one in two can taste would have been noticed ${percent(half)} times; at the most ${percent(found.high)} taste one.`
      : `Cannot tell: ${right} of ${tries} were right, ${fewestRight(test, tries)} would have shown a difference; but with so few even what one in two can taste is noticed only ${percent(half)} times.`;
  return {
    right,
    tries,
    fewest: fewestRight(test, tries),
    p,
    differs,
    share: found,
    power: half,
    sentence: said + again,
  };
}
