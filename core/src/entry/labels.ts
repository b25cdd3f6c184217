/** What fields are called on screen, by the last name of their path; for the words of a refusal. */
const LABELS: Readonly<Record<string, string>> = {
  at: 'The time',
  barG: 'Weight of a bar',
  batchId: 'The batch',
  bestBefore: 'Best before',
  cavities: 'Cavities',
  coolC: 'Cooled to',
  countedG: 'Really there',
  countedPieces: 'Pieces really there',
  country: 'Country',
  currency: 'Currency',
  cocoaTargetPct: 'Cocoa meant',
  decimalMark: 'Decimals',
  duty: 'Duty',
  dustG: 'Dust and spill',
  endBeanC: 'Bean temperature at the end',
  energyKwh: 'Energy',
  energyPerKwh: 'Price of a kWh',
  foundG: 'Found in the sample',
  freight: 'Freight',
  goodG: 'Good weight',
  goodPieces: 'Good bars',
  holdUpG: 'Left in the machine',
  sievedG: 'Kept by the sieve',
  holdingId: 'What is taken',
  how: 'How it was done',
  huskG: 'Husk',
  invoiceNetG: 'Net weight on the invoice',
  invoiceSacks: 'Sacks on the invoice',
  kw: 'Power',
  labelCode: 'Code on the label',
  machineId: 'The machine',
  massG: 'Weight',
  maxG: 'Most',
  meltC: 'Melted out at',
  method: 'Method',
  micron: 'Last reading',
  minG: 'Least',
  minutes: 'Minutes',
  moisturePct: 'Moisture',
  name: 'Name',
  netG: 'Net weight',
  nibsG: 'Nibs',
  note: 'Note',
  outG: 'What came out',
  outsG: 'Poured, block by block',
  personId: 'Who is at the bench',
  pieces: 'Pieces',
  price: 'Price',
  pricePerKg: 'Price a kilogram',
  producer: 'Producer',
  rate: 'Rate to your currency',
  reason: 'Why it is corrected',
  remeltG: 'Back to remelt',
  routeId: 'Route',
  sacks: 'Sacks',
  sampleG: 'Sample',
  score: 'Score',
  secondsPieces: 'Seconds',
  setC: 'Set temperature',
  sources: 'What goes in',
  supplier: 'Supplier',
  takings: 'Takings',
  targetMicron: 'Target fineness',
  timeZone: 'Time zone',
  trimmingsG: 'Trimmings',
  value: 'Figure',
  wagePerHour: 'Cost of an hour of work',
  word: 'The word for it',
  workC: 'Worked at',
};

/**
 * What a field is called, from its path in a request: `command.sources.0.massG` is “Weight (line 1)”.
 *
 * @returns the last name of the path, spelled out, where no label is known
 */
export function labelOf(path: string): string {
  const names = path.split('.');
  const last = names.findLast((name) => !/^\d+$/.test(name)) ?? '';
  const index = names.find((name) => /^\d+$/.test(name));
  const label =
    LABELS[last] ??
    (last === ''
      ? 'The entry'
      : last
          .replace(/(G|C|Pct|Id)$/, '')
          .replace(/([a-z])([A-Z])/g, '$1 $2')
          .replace(/^./, (letter) => letter.toUpperCase()));
  return index === undefined ? label : `${label} (line ${Number(index) + 1})`;
}
