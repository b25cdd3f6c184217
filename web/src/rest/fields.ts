import { NOTE, type OfferedFields } from '../entry/entry';

/** What is asked at the end of each kind of work, in the order in which the hands do it. */
export const fields: OfferedFields = {
  rest: [{ name: 'outG', label: 'Off the shelf (empty: all of it)', type: 'mass', optional: true }, NOTE],
};
