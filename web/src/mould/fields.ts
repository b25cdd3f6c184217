import { BAR_FAULTS, BAR_FAULT_WORDS } from '@wunsch/core/work/moulding';
import { fieldsFor } from '../entry/fields-for';
import type { FieldSpec, OfferedFields } from '../entry/entry';

/** What is asked at the end of each kind of work, in the order in which the hands do it. */
export const fields: OfferedFields = {
  mould: [
    ...fieldsFor('mould', ['barG', { unit: 'g' }], 'cavities', 'goodPieces', 'goodG', 'secondsPieces'),
    ...BAR_FAULTS.map((fault): FieldSpec => ({
      name: `fault.${fault}`,
      // None as well: a correction takes back what was said before.
      into: { list: 'faults', named: 'fault', of: 'pieces', value: fault, sum: 'secondsPieces' },
      label: `Of them: ${BAR_FAULT_WORDS[fault]}`,
      type: 'pieces',
      optional: true,
    })),
    ...fieldsFor(
      'mould',
      'release',
      'contractMin',
      'remeltG',
      'blockG',
      'sampleG',
      'trimmingsG',
      'holdUpG',
      'mouldC',
      'setC',
      ['air.tempC', { optional: true }],
      ['air.humidityPct', { optional: true }],
      'note',
    ),
  ],
};
