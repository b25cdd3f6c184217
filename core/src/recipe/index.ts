/* Contents: what others use of this room, file by file. Kept by scripts/contents.mjs. */

export { type KeptRecipe, RecipeBook, type RecipeVersion } from './book';
export { bowlIngredient } from './bowl';
export { type Change, changesBetween, lineChanges, meanScore } from './compare';
export { type Bowlful, type LabelVerdict, correctBowl, judgeLabel, originAfter } from './correct';
export { type Forward, type Needs, type SackLeft, forward, needsOf, whichSacks } from './forward';
export { type Ingredient, type Line, type RecipeFigures, type Role, figuresOfLines } from './ingredient';
export { entryBeside, entryOf, materialFrom } from './ingredient-entry';
export { keepLimits } from './keep';
export { VARIED, ladderOf, usualGap } from './ladder';
export { nameOfLimit, valueOf, valueText } from './limits';
export { type LinearSolver } from './linear';
export { type Portion, feedPlan } from './order';
export { type Answer } from './question';
export { READY_MADE_RECIPES, type ReadyMade } from './ready-made';
export {
  type Limit,
  NIBS,
  type Recipe,
  type RecipeLine,
  type RecipeRecord,
  type RecipeRecordValue,
  ingredientId,
  limit,
  lotOf,
  plannedLine,
  recipe,
  recipeLine,
  recipeRecord,
} from './records';
export { replan } from './replan';
export { mostFrom, scaleTo, splitAmong } from './scale';
export { solveRecipe } from './solve';
export { type Draw, type StockLine, drawAll, drawFrom, oldestFirst } from './stock';
export { type Swap, swapIngredients } from './swap';
export { placeAmong } from './thickness';
export { type WeighingLine, type WeighingState } from './weighing';
export { FIGURES, FIGURE_IDS, type FigureId, RECIPE_KINDS, type RecipeKind } from './words';
