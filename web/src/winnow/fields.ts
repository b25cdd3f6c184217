import { NOTE, type OfferedFields } from '../entry/entry';

/** What is asked at the end of each kind of work, in the order in which the hands do it. */
export const fields: OfferedFields = {
  winnow: [
    { name: 'nibsG', label: 'Nibs', type: 'mass' },
    { name: 'huskG', label: 'Husk', type: 'mass' },
    { name: 'dustG', label: 'Dust and spill', type: 'mass', optional: true },
    NOTE,
  ],
};
