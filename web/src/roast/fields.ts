import { NOTE, type OfferedFields } from '../entry/entry';

/** What is asked at the end of each kind of work, in the order in which the hands do it. */
export const fields: OfferedFields = {
  roast: [
    { name: 'outG', label: 'Out of the roaster', type: 'mass' },
    { name: 'endBeanC', label: 'Bean temperature at the end', type: 'temp', optional: true },
    {
      name: 'program',
      label: 'Program, one step a line',
      type: 'program',
      optional: true,
      hint: '150 °C 6 min load cold beans',
    },
    NOTE,
  ],
};
