import type { z } from 'zod/mini';
import { commandSchema, type Command } from '@wunsch/core/commands';
import { askedAt, elementOf, type Asked } from '@wunsch/core/fields/asked';
import type { FieldSpec, FieldType } from './entry';

/** A field by its place in the command, with what this screen says of it otherwise; its name on the form is its place. */
export type Wanted = string | readonly [at: string, otherwise: Partial<FieldSpec>];

const TYPES: Partial<Record<Asked['kind'], FieldType>> = {
  mass: 'mass',
  temp: 'temp',
  price: 'price',
  count: 'pieces',
  number: 'number',
  series: 'series',
  choice: 'choice',
  day: 'date',
};

function typeOf(asked: Asked): FieldType {
  if (asked.kind === 'text') return asked.long ? 'long' : 'text';
  const element = asked.kind === 'series' ? elementOf(asked.schema) : undefined;
  if (element && askedAt(element, [])?.kind === 'mass') return 'masses';
  return TYPES[asked.kind] ?? 'text';
}

/**
 * Fields of an entry as its schema describes them: what they are called, how they are typed, what they take.
 *
 * @example fieldsFor(kind, 'outG', 'note')
 * @throws Error for a place that the command does not have
 */
export const fieldsFor = (kind: Command['kind'], ...wanted: readonly Wanted[]): FieldSpec[] =>
  fieldsFrom(commandSchema(kind), ...wanted);

/** The same of any schema. */
export function fieldsFrom(schema: z.core.$ZodType, ...wanted: readonly Wanted[]): FieldSpec[] {
  return wanted.map((row) => {
    const [at, otherwise] = typeof row === 'string' ? [row, {}] : row;
    const asked = askedAt(schema, at.split('.'));
    if (!asked) throw new Error(`There is no ${at} here.`);
    const { label = at, hint, example, unit, usual, words, choices } = asked;
    const type = otherwise.type ?? typeOf(asked);
    const said = hint ?? example;
    return {
      name: at,
      label,
      type,
      // What is typed as text and read as a list is the screen's to read.
      ...(asked.kind === 'words' ? {} : { takes: asked.schema }),
      ...(asked.optional ? { optional: true } : {}),
      ...(said === undefined ? {} : { hint: said }),
      ...(unit === undefined || type === 'mass' || type === 'masses' || type === 'temp' || type === 'price'
        ? {}
        : { unit }),
      ...(usual === undefined ? {} : { usual }),
      ...(type === 'choice' && choices
        ? { choices: choices.map((value) => ({ value, label: words?.[value] ?? value })) }
        : {}),
      ...(otherwise.name === undefined ? {} : { at }),
      ...otherwise,
    };
  });
}
