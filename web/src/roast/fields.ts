import { fieldsFor } from '../entry/fields-for';
import type { OfferedFields } from '../entry/entry';

/** What is asked at the end of each kind of work, in the order in which the hands do it. */
export const fields: OfferedFields = {
  roast: fieldsFor('roast', 'outG', 'endBeanC', ['program', { type: 'program' }], 'note'),
};
