/* Contents: what others use of this room, file by file. Kept by scripts/contents.mjs. */

export { orderTotalMilli } from './order';
export {
  type CustomerFacts,
  type OrderFacts,
  type OrderRecordValue,
  customerFacts,
  orderFacts,
  orderRecord,
} from './records';
export { readSales } from './sales-table';
export { type ComingRow, type OpenLine, type Pick, type StockRow, byExpiry, climateWarning, promise } from './stock';
