import { CholeskyDecomposition, Matrix } from 'ml-matrix';
import { groupBy } from '../stats/group';
import { sum } from '../stats/spread';
import type { PanelScore } from './palates';

/** What a panel's scores say together, by generalised least squares. */
export interface PanelFit {
  /** Coefficients: bars after the first, then places where they tell. */
  beta: number[];
  /** Their covariance, in units of the squared scatter. */
  cov: number[][];
  s2: number;
  dof: number;
}

/** Variance of what one makes of one bar, for each of the error, as it may be. */
const BETWEEN = [0, 0.2, 0.5, 1, 3];
const FEWEST_SCORES = 4;
/** Share of what is said of a coefficient from which on it is said of no other. */
const OPEN = 1e-9;
/** What rounding does not bring about by itself. */
const LIKELIER = 1e-6;
/** Rounds from which on later places are told apart from bars. */
const MANY_ROUNDS = 8;

/** What one taster scored in one session. */
export const roundOf = ({ taster, session }: PanelScore): string => `${taster}\u0000${session}`;

/** Which effects of places can be told: known, and more than one bar has stood before another in a round. */
export function placesOf(rows: readonly PanelScore[]): ('first' | 'later')[] {
  const rounds = [...groupBy(rows, roundOf).values()];
  const uneven = rounds.filter((round) => round.some(({ place }) => place > 1)).flat();
  const before = new Set(uneven.filter(({ place }) => place === 1).map(({ bar }) => bar));
  if (rounds.length < 4 || before.size < 2 || rows.some(({ place }) => place < 1)) return [];
  return rounds.length >= MANY_ROUNDS && Math.max(...rows.map(({ place }) => place)) > 2
    ? ['first', 'later']
    : ['first'];
}

/** A score, and the coefficients that it has a part in: leading ones, and its round among its taster's. */
interface Row {
  score: number;
  lead: [column: number, value: number][];
  round: number;
}

/** What one person scored, by bar. */
interface Taster {
  rounds: number;
  cells: Row[][];
}

/**
 * Weighs how much of what one makes of a bar comes back when it is tasted again, and fits at the likeliest.
 *
 * @param rows scores of bars that rounds hang together
 * @param bars the first of them is what the others are measured from
 * @returns null where there are too few scores, or they cannot be told apart
 */
export function fitPanel(rows: readonly PanelScore[], bars: readonly string[]): PanelFit | null {
  const places = placesOf(rows);
  const lead = bars.length - 1 + places.length;
  if (rows.length < Math.max(FEWEST_SCORES, lead + new Set(rows.map(roundOf)).size + 1)) return null;
  const barAt = new Map(bars.map((bar, i) => [bar, i]));
  const leading = ({ bar, place }: PanelScore): Row['lead'] => [
    ...((barAt.get(bar) ?? 0) > 0 ? [[(barAt.get(bar) ?? 0) - 1, 1] as [number, number]] : []),
    ...places.flatMap((of, i): [number, number][] => {
      const value = of === 'first' ? Number(place === 1) : Math.max(0, place - 2);
      return value === 0 ? [] : [[bars.length - 1 + i, value]];
    }),
  ];
  const tasters = [...groupBy(rows, ({ taster }) => taster).values()].map((own): Taster => {
    const sessions = [...new Set(own.map(({ session }) => session))];
    const roundAt = new Map(sessions.map((session, i) => [session, i]));
    const cells = [...groupBy(own, ({ bar }) => bar).values()].map((cell) =>
      cell.map((row) => ({ score: row.score, lead: leading(row), round: roundAt.get(row.session) ?? 0 })),
    );
    return { rounds: sessions.length, cells };
  });
  const again = tasters.length > 1 && tasters.some(({ cells }) => cells.some(({ length }) => length > 1));
  let best: ReturnType<typeof fitOnce> = null;
  for (const between of again ? BETWEEN : [0]) {
    const fit = fitOnce(tasters, lead, between);
    if (fit === null) return null;
    if (best === null || fit.logLikelihood > best.logLikelihood + LIKELIER) best = fit;
  }
  return best;
}

/**
 * The fit at one share of variance. Rounds are columns of their own, and no round is two tasters': each taster's are solved out
 * of the equations by themselves, so that only bars and places are left to be solved together.
 */
function fitOnce(
  tasters: readonly Taster[],
  lead: number,
  between: number,
): (PanelFit & { logLikelihood: number }) | null {
  const left = Matrix.zeros(lead, lead + 1);
  const whole = new Array<number>(lead).fill(0);
  let [squares, logDet] = [0, 0];
  const solvedOut: { own: Equations; rounds: Matrix }[] = [];
  for (const taster of tasters) {
    const own = equationsOf(taster, lead, between);
    const cholesky = choleskyOf(own.square.subMatrix(lead, lead + taster.rounds - 1, lead, lead + taster.rounds - 1));
    if (cholesky === null) return null;
    logDet += logDetOf(cholesky) + own.logV;
    squares += own.squares;
    own.square.diagonal().forEach((value, i) => i < lead && (whole[i] = (whole[i] ?? 0) + value));
    const across = own.square.subMatrix(lead, lead + taster.rounds - 1, 0, lead - 1);
    const last = own.right.subMatrix(lead, lead + taster.rounds - 1, 0, 0);
    const rounds = cholesky.solve(
      Matrix.zeros(taster.rounds, lead + 1)
        .setSubMatrix(across, 0, 0)
        .setSubMatrix(last, 0, lead),
    );
    left.add(
      Matrix.zeros(lead, lead + 1)
        .setSubMatrix(own.square.subMatrix(0, lead - 1, 0, lead - 1), 0, 0)
        .setSubMatrix(own.right.subMatrix(0, lead - 1, 0, 0), 0, lead)
        .sub(across.transpose().mmul(rounds)),
    );
    squares -= sum(last.to1DArray().map((value, i) => value * rounds.get(i, lead)));
    solvedOut.push({ own, rounds });
  }
  const cholesky = choleskyOf(left.subMatrix(0, lead - 1, 0, lead - 1), whole);
  if (cholesky === null) return null;
  logDet += logDetOf(cholesky);
  const cov = cholesky.solve(Matrix.eye(lead));
  const right = left.getColumn(lead);
  const beta = cov.mmul(Matrix.columnVector(right)).to1DArray();
  const off = Math.max(1e-9, squares - sum(beta.map((value, i) => value * (right[i] ?? 0))));
  const cells = tasters.flatMap((taster, at) => {
    const { rounds } = solvedOut[at] as { rounds: Matrix };
    const ofRound = Array.from(
      { length: taster.rounds },
      (_, i) => rounds.get(i, lead) - sum(beta.map((value, j) => value * rounds.get(i, j))),
    );
    return taster.cells.map((cell) =>
      cell.map(
        (row) =>
          row.score - (ofRound[row.round] ?? 0) - sum(row.lead.map(([column, value]) => value * (beta[column] ?? 0))),
      ),
    );
  });
  const dof = sum(cells.map(({ length }) => length)) - lead - sum(tasters.map(({ rounds }) => rounds));
  return {
    beta,
    cov: cov.to2DArray(),
    // Between tasters there are as many independent words as cells, however often each was tasted.
    ...scatterOf(cells, { between, dof, dofOfCells: cells.length - tasters.length - lead, squares: off }),
    logLikelihood: -0.5 * (logDet + dof * Math.log(off)),
  };
}

/** Normal equations of one taster: leading columns, then their rounds. */
interface Equations {
  square: Matrix;
  right: Matrix;
  /** Weighted squares of the scores. */
  squares: number;
  /** Logarithm of the determinant of the covariance. */
  logV: number;
}

function equationsOf({ rounds, cells }: Taster, lead: number, between: number): Equations {
  const size = lead + rounds;
  const square = Matrix.zeros(size, size);
  const right = Matrix.zeros(size, 1);
  let [squares, logV] = [0, 0];
  const bump = (matrix: Matrix, i: number, j: number, by: number): void => void matrix.set(i, j, matrix.get(i, j) + by);
  for (const cell of cells) {
    // The inverse of the covariance of one cell: I − c·J.
    const c = between / (1 + cell.length * between);
    logV += Math.log(1 + cell.length * between);
    const total = new Map<number, number>();
    let scores = 0;
    for (const { score, lead: leading, round } of cell) {
      scores += score;
      squares += score * score;
      const columns = [...leading, [lead + round, 1] as const];
      for (const [a, va] of columns) {
        total.set(a, (total.get(a) ?? 0) + va);
        bump(right, a, 0, va * score);
        for (const [b, vb] of columns) bump(square, a, b, va * vb);
      }
    }
    if (c === 0) continue;
    squares -= c * scores * scores;
    for (const [a, va] of total) {
      bump(right, a, 0, -c * va * scores);
      for (const [b, vb] of total) bump(square, a, b, -c * va * vb);
    }
  }
  return { square, right, squares, logV };
}

/** Null where the equations leave something open: where nothing but rounding is left of what is said of it, as `whole`. */
function choleskyOf(square: Matrix, whole = square.diagonal()): CholeskyDecomposition | null {
  // Rounding leaves it a hair off symmetric.
  const cholesky = new CholeskyDecomposition(Matrix.add(square, square.transpose()).mul(0.5));
  const isOpen = cholesky.lowerTriangularMatrix.diagonal().some((value, i) => value * value <= OPEN * (whole[i] ?? 0));
  return cholesky.isPositiveDefinite() && !isOpen ? cholesky : null;
}

const logDetOf = (cholesky: CholeskyDecomposition): number =>
  2 * sum(cholesky.lowerTriangularMatrix.diagonal().map((value) => Math.log(Math.max(1e-12, value))));

/** Scatter of single scores, from what cells as wholes are off by where somebody tasted again. */
function scatterOf(
  cells: readonly (readonly number[])[],
  { between, dof, dofOfCells, squares }: { between: number; dof: number; dofOfCells: number; squares: number },
): { s2: number; dof: number } {
  if (dofOfCells < 1 || cells.every(({ length }) => length === 1)) return { s2: squares / dof, dof };
  const off = cells.map((cell) => (sum(cell) / cell.length) ** 2 / (between + 1 / cell.length));
  return { s2: sum(off) / dofOfCells, dof: dofOfCells };
}
