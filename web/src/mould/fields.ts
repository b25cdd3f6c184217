import { BAR_FAULTS, BAR_FAULT_WORDS } from '@wunsch/core/work/moulding';
import { NOTE, type FieldSpec, type OfferedFields } from '../entry/entry';

const RELEASE_CHOICES = [
  { value: 'by-itself', label: 'By themselves' },
  { value: 'tapped', label: 'Tapped' },
  { value: 'stuck', label: 'Some stuck' },
] as const;

/** What is asked at the end of each kind of work, in the order in which the hands do it. */
export const fields: OfferedFields = {
  mould: [
    { name: 'barG', label: 'Weight of a bar', type: 'mass', unit: 'g' },
    { name: 'cavities', label: 'Cavities', type: 'pieces' },
    { name: 'goodPieces', label: 'Good bars', type: 'pieces' },
    { name: 'goodG', label: 'All good bars on the scale', type: 'mass', optional: true },
    { name: 'secondsPieces', label: 'Seconds', type: 'pieces', optional: true },
    ...BAR_FAULTS.map((fault): FieldSpec => ({
      name: `fault.${fault}`,
      // None as well: a correction takes back what was said before.
      into: { list: 'faults', named: 'fault', of: 'pieces', value: fault, sum: 'secondsPieces' },
      label: `Of them: ${BAR_FAULT_WORDS[fault]}`,
      type: 'pieces',
      optional: true,
    })),
    { name: 'release', label: 'Left their moulds', type: 'choice', choices: RELEASE_CHOICES, optional: true },
    { name: 'contractMin', label: 'Drew back after', type: 'number', unit: 'min', optional: true },
    { name: 'remeltG', label: 'Back to remelt', type: 'mass', optional: true },
    { name: 'blockG', label: 'Poured as blocks', type: 'mass', optional: true },
    { name: 'sampleG', label: 'Samples', type: 'mass', optional: true },
    { name: 'trimmingsG', label: 'Trimmings', type: 'mass', optional: true },
    { name: 'holdUpG', label: 'Left in the machine', type: 'mass', optional: true },
    { name: 'mouldC', label: 'Moulds were at', type: 'temp', optional: true },
    { name: 'setC', label: 'Set at', type: 'temp', optional: true },
    { name: 'air.tempC', label: 'Air of the room', type: 'temp', optional: true },
    { name: 'air.humidityPct', label: 'Humidity of the room', type: 'number', unit: '%', optional: true },
    NOTE,
  ],
};
