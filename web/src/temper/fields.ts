import { SCHOOLS, SCHOOL_WORDS } from '@wunsch/core/work/tempering';
import { fieldsFor } from '../entry/fields-for';
import type { OfferedFields } from '../entry/entry';

export const METHODS = SCHOOLS.map((value) => ({ value, label: SCHOOL_WORDS[value] }));

/** What is asked at the end of each kind of work, in the order in which the hands do it. */
export const fields: OfferedFields = {
  temper: fieldsFor('temper', 'method', 'meltC', 'coolC', 'workC', ['test', { optional: false }], 'outG', 'note'),
  silk: fieldsFor('silk', 'outG', 'heldC', 'hours', 'bestBefore', 'note'),
  remelt: fieldsFor('remelt', 'outG', 'why', 'note'),
};
