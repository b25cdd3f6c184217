import { NOTE, type OfferedFields } from '../entry/entry';

/** What is asked at the end of each kind of work, in the order in which the hands do it. */
export const fields: OfferedFields = {
  sell: [
    { name: 'takings', label: 'Takings', type: 'number' },
    { name: 'to', label: 'To whom', type: 'text', optional: true },
    NOTE,
  ],
  buy: [
    { name: 'supplier', label: 'Supplier', type: 'text' },
    { name: 'supplierBatch', label: 'Their batch number', type: 'text', optional: true },
    { name: 'bestBefore', label: 'It keeps to', type: 'date', optional: true },
    { name: 'massG', label: 'Weight', type: 'mass', optional: true },
    { name: 'pieces', label: 'Pieces', type: 'pieces', optional: true },
    { name: 'price', label: 'Price, all of it', type: 'number' },
    NOTE,
  ],
  return: [
    { name: 'pieces', label: 'Came back', type: 'pieces', optional: true },
    { name: 'massG', label: 'Weight that came back', type: 'mass', optional: true },
    { name: 'refund', label: 'Money given back', type: 'number' },
    NOTE,
  ],
  adjust: [
    { name: 'countedG', label: 'Really there', type: 'mass', optional: true },
    { name: 'countedPieces', label: 'Pieces really there', type: 'pieces', optional: true },
    NOTE,
  ],
};
