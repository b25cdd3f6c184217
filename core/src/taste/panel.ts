import { CholeskyDecomposition, Matrix } from 'ml-matrix';
import { studentQuantile } from '../stats/distributions';
import { groupBy } from '../stats/group';
import { sum } from '../stats/spread';
import { standingOfTasters, type PanelScore, type TasterStanding } from './palates';

/*
 * What a panel says of bars: score = bar + taster in a session + first place + later places + what one taster makes of one bar + error.
 * Bars are compared within each taster's own round, so that who scores high or tires does not matter; where somebody
 * tasted a bar again, what they make of that bar counts once and not each time (a random interaction, by
 * restricted likelihood; C. E. McCulloch, S. R. Searle, Generalized, Linear, and Mixed Models, ch. 6). All tasters weigh
 * alike: weights for steadiness would be guessed from a handful of scores each, and made intervals too narrow.
 */

export interface BarStanding {
  bar: string;
  n: number;
  /** Adjusted for who tasted it when. */
  mean: number;
  /** Nine in ten such intervals hold the bar's own mean over the bars of the panel. */
  low: number;
  high: number;
  /** What to expect if it is tasted again: pulled towards the others by how unsure it is. */
  expected: number;
}

export interface BarPair {
  a: string;
  b: string;
  /** How much better a is than b. */
  difference: number;
  low: number;
  high: number;
}

export interface PlaceEffect {
  value: number;
  low: number;
  high: number;
}

export interface PanelVerdict {
  bars: BarStanding[];
  pairs: BarPair[];
  tasters: TasterStanding[];
  /** What standing first brings, points; null: places do not tell. */
  first: PlaceEffect | null;
  /** What each place later brings, as tongues tire, points a place; null: places do not tell. */
  later: PlaceEffect | null;
  /** Standard deviation of a score that nothing explains. */
  scatter: number;
  /** Tasters that it would still take until the two best are told apart; 0: more would change nothing; null: cannot be said. */
  moreTasters: number | null;
  /** Bars that were never in one round with the others, directly or through third ones. */
  apart: string[];
  sentence: string;
}

/** Nine in ten. */
const LEVEL = 0.9;
/** Points that nobody would act on. */
const NO_MATTER = 0.3;
/** Variance of what one makes of one bar, for each of the error, as it may be. */
const BETWEEN = [0, 0.2, 0.5, 1, 3];
const FEWEST_SCORES = 4;

interface Fit {
  /** Coefficients: bars after the first, then places where they tell; then rounds. */
  beta: number[];
  /** Covariance of the leading ones, in units of the squared scatter. */
  cov: number[][];
  s2: number;
  dof: number;
  between: number;
  logLikelihood: number;
  residuals: number[];
}

/**
 * Compares bars over all that a panel scored.
 *
 * @param scores 0 to 10, in any order; a bar may be missing for anybody, and tasted again by others
 */
export function judgePanel(scores: readonly PanelScore[]): PanelVerdict {
  const { rows, apart } = connected(scores);
  const bars = [...new Set(rows.map(({ bar }) => bar))];
  const none = (sentence: string): PanelVerdict => ({
    bars: [],
    pairs: [],
    tasters: [],
    first: null,
    later: null,
    scatter: 0,
    moreTasters: null,
    apart,
    sentence,
  });
  if (bars.length < 2) return none('Fewer than two bars were scored side by side: nothing can be compared.');
  const fit = bestFit(rows, bars);
  if (fit === null)
    return none(`${rows.length} scores of ${bars.length} bars: too few to tell the bars from the tasters.`);
  const t = studentQuantile(0.5 + LEVEL / 2, fit.dof);
  const at = (index: number): number => (index === 0 ? 0 : (fit.beta[index - 1] ?? 0));
  const cov = (i: number, j: number): number => (i === 0 || j === 0 ? 0 : (fit.cov[i - 1]?.[j - 1] ?? 0)) * fit.s2;
  const k = bars.length;
  const level = rows.reduce((sum, { score }) => sum + score, 0) / rows.length;
  const middle = bars.reduce((sum, _, i) => sum + at(i), 0) / k;
  // Variance of a bar over the mean of all: of e_i − 1/k.
  const varOver = (i: number): number => {
    const weight = (j: number): number => (i === j ? 1 : 0) - 1 / k;
    let sum = 0;
    for (let a = 0; a < k; a += 1) for (let b = 0; b < k; b += 1) sum += weight(a) * weight(b) * cov(a, b);
    return Math.max(0, sum);
  };
  const effects = bars.map((_, i) => at(i) - middle);
  const errors = bars.map((_, i) => varOver(i));
  const real = Math.max(0, sum(effects.map((x) => x * x)) / (k - 1) - sum(errors) / k);
  const standings = bars.map((bar, i): BarStanding => {
    const [effect, error] = [effects[i] ?? 0, errors[i] ?? 0];
    const half = t * Math.sqrt(error);
    return {
      bar,
      n: rows.filter((row) => row.bar === bar).length,
      mean: level + effect,
      low: level + effect - half,
      high: level + effect + half,
      expected: level + effect * (real + error > 0 ? real / (real + error) : 0),
    };
  });
  standings.sort((a, b) => b.mean - a.mean);
  const index = new Map(bars.map((bar, i) => [bar, i]));
  const pairs = standings.flatMap(({ bar: a }, rank) =>
    standings.slice(rank + 1).map(({ bar: b }): BarPair => {
      const [i, j] = [index.get(a) ?? 0, index.get(b) ?? 0];
      const difference = at(i) - at(j);
      const half = t * Math.sqrt(Math.max(0, cov(i, i) + cov(j, j) - 2 * cov(i, j)));
      return { a, b, difference, low: difference - half, high: difference + half };
    }),
  );
  const places = placesOf(rows);
  const effect = (of: (typeof places)[number]): PlaceEffect | null => {
    const at = places.indexOf(of);
    if (at < 0) return null;
    const column = k - 1 + at;
    const half = t * Math.sqrt((fit.cov[column]?.[column] ?? 0) * fit.s2);
    const value = fit.beta[column] ?? 0;
    return { value, low: value - half, high: value + half };
  };
  const tasters = new Set(rows.map(({ taster }) => taster)).size;
  const lead = pairs.find(({ a, b }) => a === standings[0]?.bar && b === standings[1]?.bar);
  return {
    bars: standings,
    pairs,
    tasters: standingOfTasters(rows, new Map(bars.map((bar, i) => [bar, level + (effects[i] ?? 0)]))),
    first: effect('first'),
    later: effect('later'),
    scatter: Math.sqrt(fit.s2),
    moreTasters: lead ? moreTasters(lead, tasters) : null,
    apart,
    sentence: words(standings, pairs, tasters),
  };
}

const roundOf = ({ taster, session }: PanelScore): string => `${taster}\u0000${session}`;
const cellOf = ({ taster, bar }: PanelScore): string => `${taster}\u0000${bar}`;

/** The largest set of bars that rounds hang together; whoever tasted one bar only compares nothing. */
function connected(scores: readonly PanelScore[]): { rows: PanelScore[]; apart: string[] } {
  const rounds = groupBy(scores, roundOf);
  const useful = [...rounds.values()].filter((round) => new Set(round.map(({ bar }) => bar)).size > 1);
  const parent = new Map<string, string>();
  const root = (bar: string): string => {
    let at = bar;
    while (parent.get(at) !== undefined && parent.get(at) !== at) at = parent.get(at) ?? at;
    return at;
  };
  for (const round of useful)
    for (const { bar } of round) {
      parent.set(root(bar), root(round[0]?.bar ?? bar));
    }
  const bars = [...new Set(scores.map(({ bar }) => bar))];
  const groups = [...groupBy(bars, root).values()].sort((a, b) => b.length - a.length);
  const together = new Set(groups[0]);
  return {
    rows: useful.flat().filter(({ bar }) => together.has(bar)),
    apart: bars.filter((bar) => !together.has(bar)),
  };
}

/** Rounds from which on later places are told apart from bars. */
const MANY_ROUNDS = 8;

/** Which effects of places can be told: known, and bars have stood in more than one. */
function placesOf(rows: readonly PanelScore[]): ('first' | 'later')[] {
  const rounds = new Set(rows.map(roundOf)).size;
  const firsts = rows.filter(({ place }) => place === 1);
  if (rounds < 4 || new Set(firsts.map(({ bar }) => bar)).size < 2 || rows.some(({ place }) => place < 1)) return [];
  return rounds >= MANY_ROUNDS && Math.max(...rows.map(({ place }) => place)) > 2 ? ['first', 'later'] : ['first'];
}

function bestFit(rows: readonly PanelScore[], bars: readonly string[]): Fit | null {
  const again = rows.length > new Set(rows.map(cellOf)).size && new Set(rows.map(({ taster }) => taster)).size > 1;
  let best: Fit | null = null;
  for (const between of again ? BETWEEN : [0]) {
    const fit = fitOnce(rows, bars, between);
    if (fit === null) return null;
    if (best === null || fit.logLikelihood > best.logLikelihood) best = fit;
  }
  return best;
}

/** Generalised least squares at one share of variance; rounds are columns of their own. */
function fitOnce(rows: readonly PanelScore[], bars: readonly string[], between: number): Fit | null {
  const rounds = [...new Set(rows.map(roundOf))];
  const barAt = new Map(bars.map((bar, i) => [bar, i]));
  const roundAt = new Map(rounds.map((round, i) => [round, i]));
  const places = placesOf(rows);
  const lead = bars.length - 1 + places.length;
  const size = lead + rounds.length;
  if (rows.length < Math.max(FEWEST_SCORES, size + 1)) return null;
  const columns = rows.map((row): [number, number][] => [
    ...((barAt.get(row.bar) ?? 0) > 0 ? [[(barAt.get(row.bar) ?? 0) - 1, 1] as [number, number]] : []),
    ...places.flatMap((of, i): [number, number][] => {
      const value = of === 'first' ? Number(row.place === 1) : Math.max(0, row.place - 2);
      return value === 0 ? [] : [[bars.length - 1 + i, value]];
    }),
    [lead + (roundAt.get(roundOf(row)) ?? 0), 1],
  ]);
  const square = Matrix.zeros(size, size);
  const right = new Array<number>(size).fill(0);
  const bump = (i: number, j: number, by: number): void => void square.set(i, j, square.get(i, j) + by);
  let [yy, logV] = [0, 0];
  const cells = [
    ...groupBy(
      rows.map((_, i) => i),
      (i) => cellOf(rows[i] as PanelScore),
    ).values(),
  ];
  for (const cell of cells) {
    const n = cell.length;
    // V⁻¹ of one cell: I − c·J.
    const c = between / (1 + n * between);
    logV += Math.log(1 + n * between);
    const total = new Map<number, number>();
    let ySum = 0;
    for (const i of cell) {
      const y = rows[i]?.score ?? 0;
      ySum += y;
      yy += y * y;
      for (const [a, va] of columns[i] ?? []) {
        total.set(a, (total.get(a) ?? 0) + va);
        right[a] = (right[a] ?? 0) + va * y;
        for (const [b, vb] of columns[i] ?? []) bump(a, b, va * vb);
      }
    }
    if (c === 0) continue;
    yy -= c * ySum * ySum;
    for (const [a, va] of total) {
      right[a] = (right[a] ?? 0) - c * va * ySum;
      for (const [b, vb] of total) bump(a, b, -c * va * vb);
    }
  }
  // Rounding leaves it a hair off symmetric.
  const cholesky = new CholeskyDecomposition(Matrix.add(square, square.transpose()).mul(0.5));
  if (!cholesky.isPositiveDefinite()) return null;
  const unit = Matrix.zeros(size, lead + 1);
  for (let i = 0; i < lead; i += 1) unit.set(i, i, 1);
  right.forEach((value, i) => unit.set(i, lead, value));
  const solved = cholesky.solve(unit);
  const beta = solved.getColumn(lead);
  const left = Math.max(1e-9, yy - sum(beta.map((value, i) => value * (right[i] ?? 0))));
  const tasters = new Set(rows.map(({ taster }) => taster)).size;
  const all = rows.length - size;
  const diagonal = cholesky.lowerTriangularMatrix.diagonal();
  const logDet = 2 * sum(diagonal.map((value) => Math.log(Math.max(1e-12, value))));
  const residuals = rows.map(
    (row, i) =>
      row.score - (columns[i] ?? []).reduce((total, [column, value]) => total + value * (beta[column] ?? 0), 0),
  );
  return {
    beta,
    cov: Array.from({ length: lead }, (_, i) => Array.from({ length: lead }, (__, j) => solved.get(i, j))),
    ...scatterOf(cells, residuals, {
      between,
      all,
      // Between tasters there are as many independent words as cells, however often each was tasted.
      ofCells: cells.length - tasters - lead,
      left,
    }),
    between,
    logLikelihood: -0.5 * (logV + logDet + all * Math.log(left)),
    residuals,
  };
}

/** Scatter of single scores, from what cells as wholes are off by where somebody tasted again. */
function scatterOf(
  cells: readonly (readonly number[])[],
  residuals: readonly number[],
  { between, all, ofCells, left }: { between: number; all: number; ofCells: number; left: number },
): { s2: number; dof: number } {
  if (ofCells < 1 || cells.every(({ length }) => length === 1)) return { s2: left / all, dof: all };
  const squares = cells.map((cell) => {
    const mean = sum(cell.map((i) => residuals[i] ?? 0)) / cell.length;
    return (mean * mean) / (between + 1 / cell.length);
  });
  return { s2: sum(squares) / ofCells, dof: ofCells };
}

/** Tasters like these that it would still take to tell the two best apart. */
function moreTasters({ difference, low, high }: BarPair, tasters: number): number | null {
  if (low > 0 || (low > -NO_MATTER && high < NO_MATTER)) return 0;
  const half = (high - low) / 2;
  // The interval shrinks with the root of their number: until it leaves out no difference, or any that matters.
  const target = Math.max(difference, NO_MATTER - difference);
  if (target <= 0.02) return null;
  const needed = Math.ceil(tasters * (half / target) ** 2);
  return needed > 400 ? null : Math.max(1, needed - tasters);
}

function words(standings: readonly BarStanding[], pairs: readonly BarPair[], tasters: number): string {
  const [best, second] = standings;
  if (!best || !second) return '';
  const lead = pairs.find(({ a, b }) => a === best.bar && b === second.bar);
  const people = tasters === 1 ? 'One palate says so, and speaks for itself only.' : `${tasters} tasters.`;
  const by = ({ difference, low, high }: BarPair): string =>
    `${difference.toFixed(1)} points (${low.toFixed(1)} to ${high.toFixed(1)})`.replaceAll('-', '−');
  if (!lead) return '';
  if (lead.low > 0) return `${best.bar} is better than ${second.bar}, by ${by(lead)}. ${people}`;
  if (lead.low > -NO_MATTER && lead.high < NO_MATTER)
    return `${best.bar} and ${second.bar} are as good as each other: what is between them is under ${NO_MATTER} points. ${people}`;
  const worse = pairs.find(({ a, low }) => a === best.bar && low > 0);
  return `${best.bar} leads ${second.bar} by ${by(lead)}: that may be chance.${worse ? ` ${best.bar} is better than ${worse.b}, by ${by(worse)}.` : ''} ${people}`;
}
