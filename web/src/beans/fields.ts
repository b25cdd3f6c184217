import { NOTE, type OfferedFields } from '../entry/entry';

/** What is asked at the end of each kind of work, in the order in which the hands do it. */
export const fields: OfferedFields = {
  receive: [
    { name: 'name', label: 'Name of the lot', type: 'text', hint: 'Viet Nam, Tam Lụa Growers' },
    { name: 'producer', label: 'Producer or co-operative', type: 'text', optional: true },
    { name: 'country', label: 'Country', type: 'list', optional: true },
    { name: 'region', label: 'Region', type: 'text', optional: true },
    { name: 'variety', label: 'Variety', type: 'text', optional: true },
    { name: 'harvest', label: 'Harvest', type: 'text', optional: true },
    { name: 'netG', label: 'Net weight, all sacks', type: 'mass' },
    { name: 'sacks', label: 'Sacks', type: 'pieces', optional: true },
    { name: 'invoiceNetG', label: 'Net weight on the invoice', type: 'mass', optional: true },
    { name: 'invoiceSacks', label: 'Sacks on the invoice', type: 'pieces', optional: true },
    { name: 'moisturePct', label: 'Moisture', type: 'number', unit: '%', optional: true },
    { name: 'pricePerKg', label: 'Price a kilogram', type: 'number', optional: true },
    { name: 'currency', label: 'Currency of the invoice', type: 'text', optional: true },
    { name: 'rate', label: 'Rate to your currency', type: 'number', optional: true },
    { name: 'freight', label: 'Freight, all of it', type: 'number', optional: true },
    { name: 'duty', label: 'Duty, all of it', type: 'number', optional: true },
    NOTE,
  ],
  dry: [{ name: 'outG', label: 'Dry beans', type: 'mass' }, NOTE],
};
