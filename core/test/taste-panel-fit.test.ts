import { CholeskyDecomposition, inverse, Matrix } from 'ml-matrix';
import { normals, seeded } from '../src/stats/chance';
import { sum } from '../src/stats/spread';
import { fitPanel, placesOf } from '../src/taste/panel-fit';
import type { PanelScore } from '../src/taste/palates';

/* A panel's fit, held to the same least squares written out in full: every score a row, every round a column. */

/** Scores of an uneven panel: people taste what they like, and again. */
function scoresOf(seed: number): PanelScore[] {
  const chance = seeded(seed);
  const normal = normals(chance);
  const of = (most: number): number => 2 + Math.floor(chance() * most);
  const [bars, tasters, sessions] = [of(4), of(4), of(3)];
  return Array.from({ length: bars * tasters * sessions }, (_, i) => ({
    bar: `b${i % bars}`,
    taster: `t${Math.floor(i / bars) % tasters}`,
    session: `s${Math.floor(i / bars / tasters)}`,
    place: 1 + Math.floor(chance() * bars),
    score: 6 + normal(),
  })).filter((row) => chance() < 0.8 || row.bar === 'b0');
}

/** Leading coefficients at the likeliest share of variance, from the covariance of all scores. */
function inFull(rows: readonly PanelScore[], bars: readonly string[]): number[] {
  const places = placesOf(rows);
  const rounds = [...new Set(rows.map(({ taster, session }) => `${taster} ${session}`))];
  const design = new Matrix(
    rows.map(({ bar, place, taster, session }) => [
      ...bars.slice(1).map((other) => Number(other === bar)),
      ...places.map((of) => (of === 'first' ? Number(place === 1) : Math.max(0, place - 2))),
      ...rounds.map((round) => Number(round === `${taster} ${session}`)),
    ]),
  );
  const y = Matrix.columnVector(rows.map(({ score }) => score));
  const logDet = (square: Matrix): number =>
    2 * sum(new CholeskyDecomposition(square).lowerTriangularMatrix.diagonal().map(Math.log));
  const symmetric = (square: Matrix): Matrix => Matrix.add(square, square.transpose()).mul(0.5);
  const fits = [0, 0.2, 0.5, 1, 3].map((between) => {
    const v = new Matrix(
      rows.map((a, i) =>
        rows.map((b, j) => Number(i === j) + (a.taster === b.taster && a.bar === b.bar ? between : 0)),
      ),
    );
    const weight = inverse(v);
    const square = symmetric(design.transpose().mmul(weight).mmul(design));
    const beta = inverse(square).mmul(design.transpose()).mmul(weight).mmul(y);
    const off = Matrix.sub(y, design.mmul(beta));
    const squares = off.transpose().mmul(weight).mmul(off).get(0, 0);
    const dof = rows.length - design.columns;
    return { beta: beta.to1DArray(), likelihood: -0.5 * (logDet(v) + logDet(square) + dof * Math.log(squares)) };
  });
  const best = fits.reduce((likeliest, fit) => (fit.likelihood > likeliest.likelihood + 1e-6 ? fit : likeliest));
  return best.beta.slice(0, bars.length - 1 + places.length);
}

test('bars and places come out as from all equations together', () => {
  let compared = 0;
  for (let seed = 1; seed <= 60; seed += 1) {
    const rows = scoresOf(seed);
    const bars = [...new Set(rows.map(({ bar }) => bar))];
    const fit = fitPanel(rows, bars);
    if (fit === null) continue;
    compared += 1;
    inFull(rows, bars).forEach((value, i) => expect(fit.beta[i]).toBeCloseTo(value, 6));
  }
  expect(compared).toBeGreaterThan(40);
});

/** One round each, two bars, both at one place. */
const sideBySide = (places: readonly number[]): PanelScore[] =>
  places.flatMap((place, i) => [
    { bar: 'b0', taster: `t${i}`, session: 's', place, score: 5 + (i % 2) },
    { bar: 'b1', taster: `t${i}`, session: 's', place, score: 7 },
  ]);

test('where no bar stood before another, standing first tells nothing, and bars are compared without it', () => {
  const rows = sideBySide([1, 2, 2, 2, 3]);
  expect(placesOf(rows)).toEqual([]);
  // Differences of 2, 1, 2, 1, 2.
  expect(fitPanel(rows, ['b0', 'b1'])?.beta[0]).toBeCloseTo(1.6, 9);
});

test('equations that leave something open have no answer, however rounding falls', () => {
  // b2 was never in one round with another.
  const alone = [5, 6, 7].map((score, i) => ({ bar: 'b2', taster: `u${i}`, session: 's', place: 1, score }));
  expect(fitPanel([...sideBySide([1, 1, 1, 1]), ...alone], ['b0', 'b1', 'b2'])).toBeNull();
});
