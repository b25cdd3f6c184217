/* Contents: what others use of this room, file by file. Kept by scripts/contents.mjs. */

export { newBatch } from './batch';
export { Book } from './book';
export { byProductSales, reachingBack } from './by-product-sales';
export { checkEntering, checkWhole } from './check';
export { type Contents, type DatedFacts, allergens, contents, datedFacts, madeOf, otherDryPct } from './contents';
export { type Balance, type Entry, type Past, type Position, before, silentAbout } from './entries';
export { type ExpectedGoods, type StationYields, expectGoods } from './expect';
export { Follower, type Lasting, type Settled } from './follower';
export { type PastHoldings } from './holdings';
export { Layered } from './layered';
export { notedIn } from './noted';
export { plainStep } from './plain-step';
export {
  CODE_LETTERS,
  type CodeLetter,
  type HoldingFacts,
  type NewHolding,
  type PlanContext,
  Planner,
  type StepPlan,
  held,
  moreThanNoise,
  withoutWeight,
} from './planner';
export { type Consequence, Revision, cannotFollow, consequences } from './revision';
export { type PastCount, type UsualDifference, differenceWords, usualDifference } from './stock-take';
export {
  ACT_KINDS,
  type ActKind,
  BLOOMS,
  type Batch,
  type Bloom,
  CHOCOLATE_KINDS,
  HOLDING_KINDS,
  type Holding,
  type HoldingKind,
  LOSS_CAUSES,
  LOSS_NAMES,
  type LossCause,
  type LotFacts,
  type Material,
  type Override,
  type PlannedAct,
  type Posting,
  REJECT_REASONS,
  type RejectReason,
  SEEN,
  STEP_KINDS,
  type Seen,
  type Step,
  type StepKind,
  type StepMoney,
  isByProduct,
} from './types';
export { type MakeUp, type State, type StepCost, type Totals, Valuation, type WorthThen } from './valuation';
export { firstVersion, newestVersion } from './versions';
export { Worths } from './worths';
export { type UsualYield, type YieldJudgement, type YieldPoint, judgeYield, percent, stepYield } from './yields';
