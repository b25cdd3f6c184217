import { z } from 'zod/mini';
import type { Command } from '@wunsch/core/commands';
import { readProgram, writeProgram } from '@wunsch/core/roast/program-text';
import { gramsTo, type MassUnit } from '@wunsch/core/units/mass';
import { perKg, type HeavyUnit } from '@wunsch/core/units/price';
import { celsiusTo, parseTemperature, type TemperatureUnit } from '@wunsch/core/units/temperature';
import { decimalMark, priceText, readMass, readNumber, typedNumber } from '../parts/number';

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
  | 'price'
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
  /** What it is read by: what it refuses is said before it is sent. */
  takes?: z.core.$ZodType;
  /** Outside of it what is usual is said beside it: nothing is refused. */
  usual?: readonly [low: number, high: number];
  /** Choices too many for buttons. */
  list?: readonly string[];
  /** The pile it weighs, drawn beside its name. */
  pile?: string;
  /**
   * It is one row of a list in the command: the row is named so, and holds its figure there. `sum` is a figure of the
   * command that is the sum of them all where nobody typed it.
   */
  into?: { list: string; named: string; of: string; value: string; sum?: string };
}

export interface TakenSource {
  holdingId: string;
  /** Grams or pieces, as typed; empty takes all. */
  field: FieldState;
}

/** The units in which figures are typed that have none of their own. */
export interface EntryUnits {
  temperature: TemperatureUnit;
  heavy: HeavyUnit;
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

const FIGURES: ReadonlySet<FieldType> = new Set(['number', 'pieces', 'temp', 'price']);

/** The value that a figure means; null where it cannot be read. */
function readFigure({ type, unit }: FieldSpec, text: string, { temperature, heavy }: EntryUnits): number | null {
  if (type === 'temp') return parseTemperature(text, temperature, decimalMark());
  const value = readAmount(text, unit);
  return type === 'price' && value !== null ? perKg(value, heavy) : value;
}

/** What is usual, where a figure is outside of it. @returns null where it is not, or cannot be read */
export function usualWords(
  { type, unit, usual }: Pick<FieldSpec, 'type' | 'unit' | 'usual'>,
  text: string,
  temperature: TemperatureUnit,
): string | null {
  const value = type === 'temp' ? parseTemperature(text, temperature, decimalMark()) : readAmount(text, unit);
  if (!usual || value === null || (value >= usual[0] && value <= usual[1])) return null;
  const [low, high] = usual.map((bound) =>
    typedNumber(Math.round(10 * (type === 'temp' ? celsiusTo(bound, temperature) : bound)) / 10),
  );
  return `usually ${low} to ${high} ${type === 'temp' ? `°${temperature}` : (unit ?? '')}`.trim();
}

/** Text for grams in a unit, as short as it is exact enough. */
export const textOfG = (grams: number, unit: MassUnit): string =>
  typedNumber(Number(gramsTo(grams, unit).toFixed(unit === 'g' ? 1 : 3)));

export const NOTE: FieldSpec = { name: 'note', label: 'Note', type: 'text', optional: true };

export type OfferedFields = Partial<Record<Command['kind'], readonly FieldSpec[]>>;

/** What is asked for each kind of entry, as the rooms offered it. */
export const FIELDS: OfferedFields = {};

/** Takes in what a room asks for: `forms.ts` is the registry. */
export const offerFields = (offered: OfferedFields): void => void Object.assign(FIELDS, offered);

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
  units: EntryUnits,
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
    } else if (FIGURES.has(spec.type)) {
      const value = readFigure(spec, text, units);
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
      const { steps, unreadable } = readProgram(state?.text ?? '', units.temperature);
      if (unreadable.length > 0) fail(`line ${unreadable.join(', ')} is not like “150 °C 6 min”`);
      else values[spec.name] = steps;
    } else if (text !== '') values[spec.name] = text;
    else if (!spec.optional) fail('is missing');
  }
  for (const { name, takes } of [...usual, ...added]) {
    const read = takes === undefined || values[name] === undefined ? null : z.safeParse(takes, values[name]);
    if (read?.success === false) problems[name] = read.error.issues[0]?.message ?? 'cannot be read';
  }
  for (const { name, into } of [...usual, ...added]) {
    if (!into) continue;
    const rows = (values[into.list] ??= []) as Record<string, unknown>[];
    if (values[name] === undefined) continue;
    rows.push({ [into.named]: into.value, [into.of]: values[name] });
    delete values[name];
  }
  for (const { into } of usual) {
    const rows = into ? ((values[into.list] ?? []) as Record<string, unknown>[]) : [];
    if (into?.sum !== undefined && rows.length > 0)
      values[into.sum] ??= rows.reduce((sum, row) => sum + Number(row[into.of]), 0);
  }
  const [roomC, humidityPct] = [values['air.tempC'], values['air.humidityPct']];
  delete values['air.tempC'];
  delete values['air.humidityPct'];
  if (roomC !== undefined) values['air'] = { tempC: roomC, humidityPct: humidityPct ?? null };
  else if (humidityPct !== undefined) problems['air.tempC'] = 'is missing: humidity alone says nothing';
  return { values, problems };
}

/** A weight that was entered before. */
export const keptG = (grams: number, unit: MassUnit): FieldState => keptField(textOfG(grams, unit), grams, unit);

/** The fields of a command that is to be corrected. */
export function fieldsOf(
  command: Record<string, unknown>,
  kind: Command['kind'],
  massUnit: MassUnit,
  { temperature, heavy }: EntryUnits,
): Fields {
  const fields: Fields = {};
  for (const spec of FIELDS[kind] ?? []) {
    const { into } = spec;
    const value = into
      ? ((command[into.list] ?? []) as Record<string, unknown>[]).find((row) => row[into.named] === into.value)?.[
          into.of
        ]
      : spec.name.split('.').reduce<unknown>((at, key) => (at as Record<string, unknown> | null)?.[key], command);
    if (value === undefined || value === null) continue;
    if (spec.type === 'mass') fields[spec.name] = keptG(value as number, massUnit);
    else if (spec.type === 'masses') fields[spec.name] = { text: '', unit: massUnit, parts: value as number[] };
    else if (spec.type === 'temp')
      fields[spec.name] = keptField(
        typedNumber(Math.round(celsiusTo(value as number, temperature) * 10) / 10),
        value as number,
      );
    else if (spec.type === 'price') fields[spec.name] = keptField(priceText(value as number, heavy), value as number);
    else if (spec.type === 'program')
      fields[spec.name] = {
        text: writeProgram(value as { setC: number; minutes: number; note: string }[], temperature),
      };
    else
      fields[spec.name] =
        typeof value === 'number'
          ? keptField(typedNumber(value), value)
          : { text: typeof value === 'string' ? value : JSON.stringify(value) };
  }
  return fields;
}
