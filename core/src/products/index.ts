/* Contents: what others use of this room, file by file. Kept by scripts/contents.mjs. */

export { checkPackedAs, productsOf } from './book';
export { asGtin14, checkDigit, isGtin } from './gtin';
export { type Margin, type SoldLine, leftOfPrice, marginOfAll, margins } from './margin';
export { type Left, type PieceParts, type ProductVersion, fillFrom, partsOf, pieceParts } from './product';
export {
  FORM_WORDS,
  type Form,
  type ProductFacts,
  ROLE_WORDS,
  type Role,
  channelName,
  productFacts,
  productRecord,
} from './records';
