import { NOTE, type OfferedFields } from '../entry/entry';

/** What is asked at the end of each kind of work, in the order in which the hands do it. */
export const fields: OfferedFields = {
  pack: [
    { name: 'pieces', label: 'Bars packed', type: 'pieces' },
    { name: 'labelCode', label: 'Code on the label', type: 'text' },
    { name: 'bestBefore', label: 'Best before', type: 'date' },
    NOTE,
  ],
};
