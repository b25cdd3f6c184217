/* Contents: what others use of this room, file by file. Kept by scripts/contents.mjs. */

export { type BayesLine, type Estimate, bayesLine, estimateAt } from './bayes-line';
export { normals, seeded } from './chance';
export { type ChangePoint, findChange } from './change-point';
export {
  betaShare,
  fisherQuantile,
  logBeta,
  normalCumulative,
  normalQuantile,
  studentQuantile,
  studentShare,
} from './distributions';
export { groupBy } from './group';
export { Heap } from './heap';
export {
  type Draws,
  type NormalPrior,
  cholesky,
  diagonal,
  drawPosterior,
  invert,
  momentsOf,
  rising,
  times,
  weightedQuantile,
} from './importance';
export { type Individuals, type Signal, forNext, individuals, signalAtEnd, signalsOf } from './individuals';
export { type Interval, type MeanInterval, exactBounds, meanInterval, projectMean, wilson } from './intervals';
export { surelyBeside } from './sequential';
export { MEDIAN_TO_SD, clumping, mean, median, sum } from './spread';
