import { fieldsFor } from '../entry/fields-for';
import type { OfferedFields } from '../entry/entry';

/** What is asked at the end of each kind of work, in the order in which the hands do it. */
export const fields: OfferedFields = {
  receive: fieldsFor(
    'receive',
    'name',
    'producer',
    ['country', { type: 'list' }],
    'region',
    'variety',
    'harvest',
    'netG',
    'sacks',
    'invoiceNetG',
    'invoiceSacks',
    'moisturePct',
    'pricePerKg',
    ['currency', { optional: true }],
    'rate',
    'freight',
    'duty',
    'note',
  ),
  dry: fieldsFor('dry', 'outG', 'note'),
};
