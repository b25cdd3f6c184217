import { fieldsFor } from '../entry/fields-for';
import type { OfferedFields } from '../entry/entry';

/** What is asked at the end of each kind of work, in the order in which the hands do it. */
export const fields: OfferedFields = {
  sell: fieldsFor('sell', 'takings', 'to', 'note'),
  buy: fieldsFor('buy', 'supplier', 'supplierBatch', 'bestBefore', 'massG', 'pieces', 'price', 'note'),
  return: fieldsFor('return', 'pieces', 'massG', ['refund', { optional: false }], 'note'),
  adjust: fieldsFor('adjust', 'countedG', 'countedPieces', 'note'),
};
