import { fieldsFor } from '../entry/fields-for';
import type { OfferedFields } from '../entry/entry';

/** What is asked at the end of each kind of work, in the order in which the hands do it. */
export const fields: OfferedFields = {
  charge: fieldsFor('charge', 'note'),
  discharge: fieldsFor('discharge', 'outsG', 'leftG', 'holdUpG', 'micron', 'sievedG', 'note'),
  reading: fieldsFor('reading', 'value', 'note'),
};
