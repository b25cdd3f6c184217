import type { OfferedFields } from '../entry/entry';

/** What is asked at the end of each kind of work, in the order in which the hands do it. */
export const fields: OfferedFields = {
  taste: [
    { name: 'score', label: 'Score, 0 to 10', type: 'number' },
    { name: 'pieces', label: 'Bars eaten', type: 'pieces', optional: true },
    { name: 'note', label: 'What was it like', type: 'long', optional: true },
  ],
};
