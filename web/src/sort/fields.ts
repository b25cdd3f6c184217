import { REJECT_REASONS } from '@wunsch/core/ledger/types';
import { capital } from '../parts/words';
import { fieldsFor } from '../entry/fields-for';
import type { FieldSpec, OfferedFields } from '../entry/entry';

/** The pile of one fault, weighed. */
export const rejectField = (reason: string): FieldSpec => ({
  name: `reject.${reason}`,
  into: { list: 'rejects', named: 'reason', of: 'massG', value: reason },
  label: capital(reason),
  type: 'mass',
  optional: true,
  pile: reason,
});

/** What is asked at the end of each kind of work, in the order in which the hands do it. */
export const fields: OfferedFields = {
  sort: [...fieldsFor('sort', 'goodG'), ...REJECT_REASONS.map(rejectField), ...fieldsFor('sort', 'note')],
};
