import type { Command } from '@wunsch/core/ledger/commands';
import { REJECT_REASONS } from '@wunsch/core/ledger/types';
import { readProgram, writeProgram } from '@wunsch/core/roast/program-text';
import { gramsTo, type MassUnit } from '@wunsch/core/units/mass';
import { celsiusTo, parseTemperature, type TemperatureUnit } from '@wunsch/core/units/temperature';
import { BAR_FAULTS, BAR_FAULT_WORDS } from '@wunsch/core/work/moulding';
import { SCHOOLS, SCHOOL_WORDS } from '@wunsch/core/work/tempering';
import { decimalMark, readMass, readNumber, typedNumber } from '../parts/number';

export { readNumber };

/** What stands in one field: as typed, with its unit, and for weights the weighings added so far. */
export interface FieldState {
  text: string;
  unit?: MassUnit | undefined;
  /** Earlier weighings, grams. */
  parts?: number[] | undefined;
  tareG?: number | undefined;
  /** What stood here before, exactly, with the text it was shown as: sent back as it was unless it is changed. */
  kept?: { text: string; value: number } | undefined;
}
export type Fields = Record<string, FieldState>;

export type FieldType =
  | 'mass'
  | 'masses'
  | 'pieces'
  | 'temp'
  | 'number'
  | 'series'
  | 'text'
  | 'long'
  | 'choice'
  | 'date'
  | 'program'
  | 'list';

export interface FieldSpec {
  name: string;
  label: string;
  type: FieldType;
  optional?: boolean;
  choices?: readonly { value: string; label: string }[];
  unit?: string;
  hint?: string;
  /** Where it stands in the command, when not under its own name: there the server's word about it is. */
  at?: string;
  /** Choices too many for buttons. */
  list?: readonly string[];
  /** The pile it weighs, drawn beside its name. */
  pile?: string;
}

export interface TakenSource {
  holdingId: string;
  /** Grams or pieces, as typed; empty takes all. */
  field: FieldState;
}

/** Whether a field still shows what it was filled with. */
const isKept = (state: FieldState | undefined): state is FieldState & { kept: { text: string; value: number } } =>
  state?.kept !== undefined && state.kept.text === `${state.text} ${state.unit ?? ''}`;

/** A field filled with a value that was entered before: shown rounded, kept exactly. */
export const keptField = (text: string, value: number, unit?: MassUnit): FieldState => ({
  text,
  ...(unit === undefined ? {} : { unit }),
  kept: { text: `${text} ${unit ?? ''}`, value },
});

/** Grams of the weighing in hand, without those added before. */
export function weighingG(state: FieldState | undefined): number | null {
  if (isKept(state)) return state.kept.value - (state.tareG ?? 0);
  const grams = readMass(state?.text ?? '', state?.unit ?? 'g');
  return grams === null ? null : grams - (state?.tareG ?? 0);
}

/** Grams of a field: all weighings and the one in hand; null when there is none. */
export function fieldG(given: FieldState | undefined, unit: MassUnit = 'g'): number | null {
  if (!given) return null;
  const state = given.unit === undefined ? { ...given, unit } : given;
  const now = weighingG(state);
  const parts = state.parts ?? [];
  if (now === null && parts.length === 0) return null;
  const sum = parts.reduce((total, part) => total + part, 0) + (now ?? 0);
  return isKept(state) && parts.length === 0 ? sum : Math.round(sum * 1000) / 1000;
}

export const isMass = ({ type }: Pick<FieldSpec, 'type'>): boolean => type === 'mass' || type === 'masses';

/** The unit that a weight is typed in: its own (a bar is grams), or that of the screen. */
export const massUnitOf = ({ unit }: Pick<FieldSpec, 'unit'>, screen: MassUnit): MassUnit =>
  (unit as MassUnit | undefined) ?? screen;

/** The weight in hand, shown in another unit; exactly the same grams. */
export function inUnit(state: FieldState, unit: MassUnit): FieldState {
  const grams = weighingG({ ...state, tareG: 0 });
  return grams === null ? { ...state, unit } : { ...state, ...keptField(textOfG(grams, unit), grams, unit) };
}

/** Figures side by side: `21 22 20`, `21; 22`. @returns null where one of them is none, or there is none */
export function readSeries(text: string): number[] | null {
  const found = text
    .trim()
    .split(/\s*[;/]\s*|\s+/)
    .map(readNumber);
  return found.every((value) => value !== null) ? found : null;
}

/** A number with or without the unit that stands beside its field. */
export function readAmount(text: string, unit = ''): number | null {
  const clean = text.trim();
  const bare = unit !== '' && clean.toLowerCase().endsWith(unit.toLowerCase()) ? clean.slice(0, -unit.length) : clean;
  return readNumber(bare);
}

/** Text for grams in a unit, as short as it is exact enough. */
export const textOfG = (grams: number, unit: MassUnit): string =>
  typedNumber(Number(gramsTo(grams, unit).toFixed(unit === 'g' ? 1 : 3)));

const MOULDED_NOTE: FieldSpec = { name: 'note', label: 'Note', type: 'text', optional: true };
const NOTE: FieldSpec = MOULDED_NOTE;

const TESTS = [
  { value: 'set', label: 'Set in 5 min' },
  { value: 'slow', label: 'Slow' },
  { value: 'failed', label: 'Failed' },
  { value: 'none', label: 'Not tested' },
] as const;

const RELEASE_CHOICES = [
  { value: 'by-itself', label: 'By themselves' },
  { value: 'tapped', label: 'Tapped' },
  { value: 'stuck', label: 'Some stuck' },
] as const;

export const METHODS = SCHOOLS.map((value) => ({ value, label: SCHOOL_WORDS[value] }));

/** What is asked at the end of each kind of work, in the order in which the hands do it. */
export const FIELDS: Partial<Record<Command['kind'], readonly FieldSpec[]>> = {
  sort: [
    { name: 'goodG', label: 'Good beans', type: 'mass' },
    ...REJECT_REASONS.map((reason): FieldSpec => ({
      name: `reject.${reason}`,
      label: reason[0]?.toUpperCase() + reason.slice(1),
      type: 'mass',
      optional: true,
      pile: reason,
    })),
    NOTE,
  ],
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
  winnow: [
    { name: 'nibsG', label: 'Nibs', type: 'mass' },
    { name: 'huskG', label: 'Husk', type: 'mass' },
    { name: 'dustG', label: 'Dust and spill', type: 'mass', optional: true },
    NOTE,
  ],
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
  rest: [{ name: 'outG', label: 'Off the shelf (empty: all of it)', type: 'mass', optional: true }, NOTE],
  temper: [
    { name: 'method', label: 'Method', type: 'choice', choices: METHODS },
    { name: 'meltC', label: 'Melted out at', type: 'temp' },
    { name: 'coolC', label: 'Cooled to', type: 'temp' },
    { name: 'workC', label: 'Worked at', type: 'temp' },
    { name: 'test', label: 'Temper test', type: 'choice', choices: TESTS },
    { name: 'outG', label: 'In temper (empty: all of it)', type: 'mass', optional: true },
    NOTE,
  ],
  mould: [
    { name: 'barG', label: 'Weight of a bar', type: 'mass', unit: 'g' },
    { name: 'cavities', label: 'Cavities', type: 'pieces' },
    { name: 'goodPieces', label: 'Good bars', type: 'pieces' },
    { name: 'goodG', label: 'All good bars on the scale', type: 'mass', optional: true },
    { name: 'secondsPieces', label: 'Seconds', type: 'pieces', optional: true },
    ...BAR_FAULTS.map((fault): FieldSpec => ({
      name: `fault.${fault}`,
      label: `Of them: ${BAR_FAULT_WORDS[fault]}`,
      type: 'pieces',
      optional: true,
    })),
    { name: 'release', label: 'Left their moulds', type: 'choice', choices: RELEASE_CHOICES, optional: true },
    { name: 'contractMin', label: 'Drew back after', type: 'number', unit: 'min', optional: true },
    { name: 'remeltG', label: 'Back to remelt', type: 'mass', optional: true },
    { name: 'blockG', label: 'Poured as blocks', type: 'mass', optional: true },
    { name: 'sampleG', label: 'Samples', type: 'mass', optional: true },
    { name: 'trimmingsG', label: 'Trimmings', type: 'mass', optional: true },
    { name: 'holdUpG', label: 'Left in the machine', type: 'mass', optional: true },
    { name: 'mouldC', label: 'Moulds were at', type: 'temp', optional: true },
    { name: 'setC', label: 'Set at', type: 'temp', optional: true },
    { name: 'air.tempC', label: 'Air of the room', type: 'temp', optional: true },
    { name: 'air.humidityPct', label: 'Humidity of the room', type: 'number', unit: '%', optional: true },
    NOTE,
  ],
  silk: [
    { name: 'outG', label: 'Silk (empty: all of it)', type: 'mass', optional: true },
    { name: 'heldC', label: 'Held at', type: 'temp' },
    { name: 'hours', label: 'For', type: 'number', unit: 'h' },
    { name: 'bestBefore', label: 'It keeps to', type: 'date', optional: true },
    NOTE,
  ],
  pack: [
    { name: 'pieces', label: 'Bars packed', type: 'pieces' },
    { name: 'labelCode', label: 'Code on the label', type: 'text' },
    { name: 'bestBefore', label: 'Best before', type: 'date' },
    NOTE,
  ],
  taste: [
    { name: 'score', label: 'Score, 0 to 10', type: 'number' },
    { name: 'pieces', label: 'Bars eaten', type: 'pieces', optional: true },
    { name: 'note', label: 'What was it like', type: 'long', optional: true },
  ],
  remelt: [
    { name: 'outG', label: 'Back as (empty: all of it)', type: 'mass', optional: true },
    { name: 'why', label: 'Why', type: 'text', optional: true },
    NOTE,
  ],
  sell: [
    { name: 'takings', label: 'Takings', type: 'number' },
    { name: 'to', label: 'To whom', type: 'text', optional: true },
    NOTE,
  ],
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
  reading: [{ name: 'value', label: 'Reading', type: 'number', optional: true }, NOTE],
};

export interface Problems {
  [field: string]: string;
}

/**
 * What a step's fields say, as its command wants it; fields that cannot be read are named.
 *
 * @param more fields that are asked beside the usual ones of the kind
 */
export function readFields(
  kind: Command['kind'],
  fields: Fields,
  unit: TemperatureUnit,
  more: readonly FieldSpec[] = [],
): { values: Record<string, unknown>; problems: Problems } {
  const values: Record<string, unknown> = {};
  const problems: Problems = {};
  const usual = FIELDS[kind] ?? [];
  const added = more.filter(({ name }) => !usual.some((spec) => spec.name === name));
  for (const spec of [...usual, ...added]) {
    const state = fields[spec.name];
    const text = state?.text.trim() ?? '';
    const fail = (message: string): void => void (problems[spec.name] = message);
    if (spec.type === 'mass') {
      const grams = fieldG(state);
      if (text !== '' && readMass(text, state?.unit ?? 'g') === null) fail('is not a weight');
      else if (grams === null) {
        if (!spec.optional) fail('is missing');
      } else if (grams < 0) fail('is below 0 after the tare');
      else values[spec.name] = grams;
    } else if (spec.type === 'masses') {
      const now = weighingG(state);
      const all = [...(state?.parts ?? []), ...(now === null ? [] : [now])];
      if (text !== '' && now === null) fail('is not a number');
      else if (all.length === 0) fail('is missing');
      else values[spec.name] = all;
    } else if (spec.type === 'number' || spec.type === 'pieces' || spec.type === 'temp') {
      const value = spec.type === 'temp' ? parseTemperature(text, unit, decimalMark()) : readAmount(text, spec.unit);
      if (text === '' && spec.optional) continue;
      if (value === null) fail(text === '' ? 'is missing' : 'is not a number');
      else if (isKept(state)) values[spec.name] = state.kept.value;
      else values[spec.name] = value;
    } else if (spec.type === 'series') {
      const series = readSeries(text);
      if (text === '' && spec.optional) continue;
      if (series === null) fail(text === '' ? 'is missing' : 'is not figures side by side, as 21 22 20');
      else values[spec.name] = series;
    } else if (spec.type === 'program') {
      const { steps, unreadable } = readProgram(state?.text ?? '', unit);
      if (unreadable.length > 0) fail(`line ${unreadable.join(', ')} is not like “150 °C 6 min”`);
      else values[spec.name] = steps;
    } else if (text !== '') values[spec.name] = text;
    else if (!spec.optional) fail('is missing');
  }
  const rejects = Object.entries(values).filter(([key]) => key.startsWith('reject.'));
  for (const [key] of rejects) delete values[key];
  const faults = Object.entries(values).filter(([key]) => key.startsWith('fault.'));
  for (const [key] of faults) delete values[key];
  if (kind === 'mould') {
    // None as well: a correction takes back what was said before.
    values['faults'] = faults.map(([key, number]) => ({ fault: key.slice('fault.'.length), pieces: number }));
    if (faults.length > 0) values['secondsPieces'] ??= faults.reduce((sum, [, number]) => sum + Number(number), 0);
  }
  const [roomC, humidityPct] = [values['air.tempC'], values['air.humidityPct']];
  delete values['air.tempC'];
  delete values['air.humidityPct'];
  if (roomC !== undefined) values['air'] = { tempC: roomC, humidityPct: humidityPct ?? null };
  else if (humidityPct !== undefined) problems['air.tempC'] = 'is missing: humidity alone says nothing';
  if (kind === 'sort') values['rejects'] = rejects.map(([key, massG]) => ({ reason: key.slice(7), massG }));
  return { values, problems };
}

/** A weight that was entered before. */
export const keptG = (grams: number, unit: MassUnit): FieldState => keptField(textOfG(grams, unit), grams, unit);

/** The fields of a command that is to be corrected. */
export function fieldsOf(
  command: Record<string, unknown>,
  kind: Command['kind'],
  massUnit: MassUnit,
  unit: TemperatureUnit,
): Fields {
  const fields: Fields = {};
  const rejects = (command['rejects'] ?? []) as { reason: string; massG: number }[];
  const faults = (command['faults'] ?? []) as { fault: string; pieces: number }[];
  for (const spec of FIELDS[kind] ?? []) {
    const value = spec.name.startsWith('fault.')
      ? faults.find(({ fault }) => `fault.${fault}` === spec.name)?.pieces
      : spec.name.startsWith('reject.')
        ? rejects.find(({ reason }) => `reject.${reason}` === spec.name)?.massG
        : spec.name.split('.').reduce<unknown>((at, key) => (at as Record<string, unknown> | null)?.[key], command);
    if (value === undefined || value === null) continue;
    if (spec.type === 'mass') fields[spec.name] = keptG(value as number, massUnit);
    else if (spec.type === 'masses') fields[spec.name] = { text: '', unit: massUnit, parts: value as number[] };
    else if (spec.type === 'temp')
      fields[spec.name] = keptField(
        typedNumber(Math.round(celsiusTo(value as number, unit) * 10) / 10),
        value as number,
      );
    else if (spec.type === 'program')
      fields[spec.name] = { text: writeProgram(value as { setC: number; minutes: number; note: string }[], unit) };
    else
      fields[spec.name] =
        typeof value === 'number'
          ? keptField(typedNumber(value), value)
          : { text: typeof value === 'string' ? value : JSON.stringify(value) };
  }
  return fields;
}
