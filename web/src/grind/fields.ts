import { NOTE, type OfferedFields } from '../entry/entry';

/** What is asked at the end of each kind of work, in the order in which the hands do it. */
export const fields: OfferedFields = {
  charge: [NOTE],
  discharge: [
    {
      name: 'outsG',
      label: 'Poured, block by block',
      type: 'masses',
      hint: 'Add each block: every weighing is one block.',
    },
    { name: 'leftG', label: 'Stays in the bowl (empty: nothing)', type: 'mass', optional: true },
    { name: 'holdUpG', label: 'Scraped off, not used', type: 'mass', optional: true },
    { name: 'micron', label: 'Last reading', type: 'number', unit: 'µm', optional: true },
    { name: 'sievedG', label: 'Kept by the sieve', type: 'mass', optional: true },
    NOTE,
  ],
  reading: [{ name: 'value', label: 'Reading', type: 'number', optional: true }, NOTE],
};
