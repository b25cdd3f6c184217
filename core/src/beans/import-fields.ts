/** Fields of a lot that a table of lots can carry, with the headings they are recognised by. */
export const IMPORT_FIELDS = [
  { name: 'name', label: 'Name of the lot', needed: true, heads: ['name', 'lot', 'lot name', 'title'] },
  {
    name: 'producer',
    label: 'Producer or co-operative',
    needed: true,
    heads: ['producer', 'supplier', 'coop', 'co-op', 'cooperative', 'co-operative', 'farm', 'estate', 'grower'],
  },
  { name: 'country', label: 'Country', needed: true, heads: ['country', 'origin'] },
  { name: 'region', label: 'Region', needed: false, heads: ['region', 'district', 'province'] },
  { name: 'variety', label: 'Variety', needed: false, heads: ['variety', 'varieties', 'genetics', 'type'] },
  { name: 'harvest', label: 'Harvest', needed: false, heads: ['harvest', 'crop', 'season', 'crop year'] },
  { name: 'sacks', label: 'Sacks', needed: true, heads: ['sacks', 'bags', 'number of sacks', 'no of bags'] },
  {
    name: 'netG',
    label: 'Net weight',
    needed: true,
    heads: ['net', 'net weight', 'net kg', 'weight', 'weight kg', 'kg', 'netg', 'netkg', 'net weight kg'],
  },
  {
    name: 'pricePerKg',
    label: 'Price',
    needed: true,
    heads: ['price', 'price per kg', 'price/kg', 'priceperkg', 'price kg', 'price per lb', 'price/lb', 'unit price'],
  },
  { name: 'currency', label: 'Currency', needed: false, heads: ['currency', 'cur'] },
  { name: 'rate', label: 'Rate to your currency', needed: false, heads: ['rate', 'exchange rate', 'fx'] },
  { name: 'freight', label: 'Freight', needed: false, heads: ['freight', 'shipping', 'transport'] },
  { name: 'duty', label: 'Duty', needed: false, heads: ['duty', 'customs'] },
  {
    name: 'moisturePct',
    label: 'Moisture, %',
    needed: false,
    heads: ['moisture', 'moisture %', 'moisturepct', 'water'],
  },
  {
    name: 'received',
    label: 'Received on',
    needed: false,
    heads: ['received', 'date', 'arrived', 'arrival', 'received on'],
  },
  { name: 'note', label: 'Note', needed: false, heads: ['note', 'notes', 'remark', 'remarks', 'comment'] },
] as const;
export type ImportField = (typeof IMPORT_FIELDS)[number]['name'];

/** Which column each field is read from; null where none. */
export type Mapping = Partial<Record<ImportField, number | null | undefined>>;

export { WEIGHT_UNITS, type WeightUnit } from '../units/table';

/** What the columns are called on the screen. */
export const IMPORT_LABELS: readonly { name: ImportField; label: string; needed: boolean }[] = IMPORT_FIELDS;
