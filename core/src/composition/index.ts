/* Contents: what others use of this room, file by file. Kept by scripts/contents.mjs. */

export { type CarriedOver, type MachineUse, carriedOver } from './carry-over';
export { MELTED_OUT_C } from './cocoa-butter';
export {
  type Composition,
  type KnownGoods,
  type OriginVerdict,
  type Part,
  type Root,
  allergensIn,
  compositionOf,
  originVerdict,
} from './composition';
export { type Figures, figuresOf, solidsAt, volumes } from './figures';
export { type IngredientFacts, type NewFacts, ingredientFacts, ownFacts, withFacts } from './ingredient-facts';
export { NIB_FAT, USUAL_CONTENTS, nibContents } from './usual-contents';
