import { get, set } from 'react-hook-form';
import { z } from 'zod/mini';
import { askedOf, elementOf, shapeOf, variantsOf, type Asked } from '@wunsch/core/fields/asked';
import { gramsFrom, gramsTo, type MassUnit } from '@wunsch/core/units/mass';
import { perKg, priceOf, type HeavyUnit } from '@wunsch/core/units/price';
import { celsiusFrom, celsiusTo, type TemperatureUnit } from '@wunsch/core/units/temperature';
import { readNumber, typedNumber } from '../parts/number';

/* A record as it is typed: figures as text in the maker's units, lists apart by commas, rows and groups as they are. */

type Schema = z.core.$ZodType;
export type Typed = string | boolean | Typed[] | { [name: string]: Typed } | { kept: unknown };

export interface Units {
  heavy: HeavyUnit;
  light: 'g' | 'oz';
  temperature: TemperatureUnit;
}

const massUnitOf = ({ weighed }: Pick<Asked, 'weighed'>, units: Units): MassUnit =>
  weighed === 'heavy' ? units.heavy : weighed === 'piece' ? 'g' : units.light;

/** The unit beside a figure: as it is typed, which may not be the one that it is sent in. */
export function unitShown(asked: Asked, units: Units): string | undefined {
  if (asked.kind === 'mass') return massUnitOf(asked, units);
  if (asked.kind === 'temp') return `°${units.temperature}`;
  if (asked.kind === 'price') return `a ${units.heavy}`;
  return asked.unit;
}

/** A figure as text, without what only binary fractions add. */
const figureText = (value: number, digits: number): string => typedNumber(Number(value.toFixed(digits)));

const isGroup = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/** What stands in a form for a value; what is not typed here is kept as it is. */
export function typedOf(schema: Schema, value: unknown, units: Units): Typed {
  const asked = askedOf(schema);
  switch (asked.kind) {
    case 'mass':
      return typeof value === 'number'
        ? figureText(gramsTo(value, massUnitOf(asked, units)), asked.weighed === 'heavy' ? 3 : 2)
        : '';
    case 'temp':
      return typeof value === 'number' ? figureText(celsiusTo(value, units.temperature), 1) : '';
    case 'price':
      return typeof value === 'number' ? figureText(priceOf(value, units.heavy), 4) : '';
    case 'count':
    case 'number':
      return typeof value === 'number' ? figureText(value, 6) : '';
    case 'text':
    case 'choice':
    case 'day':
      return typeof value === 'string' ? value : '';
    case 'flag':
      return value === true;
    case 'several':
      return Array.isArray(value) ? (value as string[]) : [];
    case 'words':
      return Array.isArray(value) ? value.join(', ') : '';
    case 'series':
      return Array.isArray(value) ? value.map((row) => typedNumber(row as number)).join(' ') : '';
    case 'rows': {
      const row = elementOf(asked.schema);
      return Array.isArray(value) && row ? value.map((part) => typedOf(row, part, units)) : [];
    }
    case 'group':
      return Object.fromEntries(
        Object.entries(shapeOf(asked.schema)).map(([name, part]) => [
          name,
          typedOf(part, isGroup(value) ? value[name] : undefined, units),
        ]),
      );
    case 'variant': {
      // The fields of all its groups stand beside what it is chosen by; only those of the chosen one are read.
      const { by, groups } = variantsOf(asked.schema);
      const now = isGroup(value) ? value : {};
      const chosen = typeof now[by] === 'string' ? now[by] : '';
      const fields = [...groups].flatMap(([name, group]) =>
        Object.entries(shapeOf(group)).map(([at, part]) => [
          at,
          typedOf(part, name === chosen ? now[at] : undefined, units),
        ]),
      );
      return { ...(Object.fromEntries(fields) as Record<string, Typed>), [by]: chosen };
    }
    case 'fixed':
    case 'other':
      return { kept: value };
  }
}

const isEmpty = (typed: Typed): boolean =>
  typeof typed === 'string'
    ? typed.trim() === ''
    : Array.isArray(typed)
      ? typed.length === 0
      : typeof typed === 'boolean'
        ? !typed
        : 'kept' in typed
          ? typed.kept == null
          : Object.values(typed).every(isEmpty);

const apart = (text: string, by: RegExp): string[] =>
  text
    .split(by)
    .map((word) => word.trim())
    .filter((word) => word !== '');

const literalOf = (schema: Schema): unknown => (schema._zod.def as { values?: readonly unknown[] }).values?.[0];

/** What was there before, and how it was shown: unchanged, it is sent back exactly. */
export interface Before {
  value: unknown;
  typed: Typed | undefined;
}

/**
 * What a form says, to be read by its schema.
 *
 * @returns the value, and what cannot be read at all by the path of its field
 */
export function readTyped(
  schema: Schema,
  typed: Typed | undefined,
  units: Units,
  before?: Before,
): { value: unknown; problems: Record<string, string> } {
  const problems: Record<string, string> = {};
  const figure = (text: string, path: string, convert: (value: number) => number): number | string | undefined => {
    const value = readNumber(text);
    if (value !== null) return convert(value);
    problems[path] = 'is not a number';
    return undefined;
  };
  const read = (of: Schema, given: Typed | undefined, path: string, was: Before | undefined): unknown => {
    const asked = askedOf(of);
    if (asked.kind === 'fixed') return literalOf(asked.schema);
    if (given === undefined) return asked.empty;
    if (typeof given === 'string') {
      if (was && was.typed === given && was.value !== undefined)
        return Array.isArray(was.value) ? [...(was.value as unknown[])] : was.value;
      const text = given.trim();
      switch (asked.kind) {
        case 'mass':
          return text === '' ? asked.empty : figure(text, path, (v) => gramsFrom(v, massUnitOf(asked, units)));
        case 'temp':
          return text === '' ? asked.empty : figure(text, path, (v) => celsiusFrom(v, units.temperature));
        case 'price':
          return text === '' ? asked.empty : figure(text, path, (v) => perKg(v, units.heavy));
        case 'count':
        case 'number':
          return text === '' ? asked.empty : figure(text, path, (v) => v);
        case 'words':
          return apart(text, /[,;\n]/);
        case 'series': {
          const rows = apart(text, /[\s;/]+/).map(readNumber);
          if (rows.includes(null)) problems[path] = 'is not figures side by side, as 6.8 7.1';
          return rows;
        }
        case 'choice':
          return text === '' && asked.choices?.includes('') !== true ? asked.empty : text;
        default:
          return text === '' && (asked.kind === 'day' || asked.empty === null) ? asked.empty : given;
      }
    }
    if (typeof given === 'boolean') return given;
    if (Array.isArray(given)) {
      const row = asked.kind === 'rows' ? elementOf(asked.schema) : undefined;
      if (!row) return given;
      // Rows left empty at the end say nothing.
      const said = given.slice(0, given.findLastIndex((part) => !isEmpty(part)) + 1);
      return said.map((part, index) => read(row, part, `${path}.${index}`, rowBefore(was, index)));
    }
    if ('kept' in given) return given.kept;
    if (asked.kind === 'variant') {
      const { by, groups } = variantsOf(asked.schema);
      const chosen = given[by];
      const group = typeof chosen === 'string' ? groups.get(chosen) : undefined;
      // What it was before is of use only where it was the same.
      return group ? read(group, given, path, fieldOf(was, by) === chosen ? was : undefined) : asked.empty;
    }
    if (asked.empty === null && isEmpty(given)) return null;
    const prefix = path === '' ? '' : `${path}.`;
    return Object.fromEntries(
      Object.entries(shapeOf(asked.schema)).flatMap(([name, part]) => {
        const value = read(part, given[name], `${prefix}${name}`, fieldBefore(was, name));
        return value === undefined ? [] : [[name, value]];
      }),
    );
  };
  return { value: read(schema, typed, '', before), problems };
}

const fieldOf = (was: Before | undefined, name: string): unknown =>
  was && isGroup(was.value) ? was.value[name] : undefined;

const fieldBefore = (was: Before | undefined, name: string): Before | undefined =>
  was && isGroup(was.value) && isGroup(was.typed)
    ? { value: was.value[name], typed: (was.typed as Record<string, Typed | undefined>)[name] }
    : undefined;

const rowBefore = (was: Before | undefined, index: number): Before | undefined =>
  was && Array.isArray(was.value) && Array.isArray(was.typed)
    ? { value: was.value[index], typed: was.typed[index] }
    : undefined;

/**
 * One figure that belongs to no record, read by the schema of a field.
 *
 * @returns null where nothing stands, or what stands there is refused; and why it is
 */
export function readFigure(
  schema: Schema,
  text: string,
  units: Units,
): { value: number | null; problem: string | undefined } {
  const { value, problems } = readTyped(schema, text, units);
  const read = z.safeParse(schema, value);
  const problem = problems[''] ?? read.error?.issues[0]?.message;
  return { value: problem === undefined && typeof read.data === 'number' ? read.data : null, problem };
}

/** What was typed in some units, as it is typed in others; what cannot be read stays as it stands. */
export function inUnits(schema: Schema, typed: Typed, from: Units, to: Units): Typed {
  if (JSON.stringify(from) === JSON.stringify(to)) return typed;
  const { value, problems } = readTyped(schema, typed, from);
  const next = typedOf(schema, value, to);
  for (const path of Object.keys(problems)) set(next as object, path, get(typed, path));
  return next;
}
