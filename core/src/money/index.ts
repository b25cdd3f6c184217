/* Contents: what others use of this room, file by file. Kept by scripts/contents.mjs. */

export { FREE_USES, FREE_USE_WORDS, adjust, buy, giveBack, sell } from './commands';
export { isCounted, knownGoods, planOpen } from './opening';
export { OPENING_KINDS, type OpeningKind, open } from './opening-command';
export { OPENING_COLUMNS, type OpeningRow, readOpening } from './opening-table';
export { changeRates, ratesAt } from './rates';
export { boughtThings } from './things';
export { checkReturns, planAdjust, planBuy, planReturn, planSell } from './trade';
