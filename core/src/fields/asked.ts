import type { z } from 'zod/mini';
import { FIELDS, type FieldAbout } from './registry';

/* What a schema asks for: how each of its fields is typed, what it is called, what it takes. */

type Schema = z.core.$ZodType;

/** How something is typed. `words`: several, with commas between; `several`: any of some choices; `variant`: one of several groups. */
export type AskedKind =
  | 'mass'
  | 'temp'
  | 'price'
  | 'count'
  | 'number'
  | 'text'
  | 'choice'
  | 'several'
  | 'flag'
  | 'day'
  | 'words'
  | 'series'
  | 'rows'
  | 'group'
  | 'variant'
  | 'fixed'
  | 'other';

/** One field, as a form has to ask for it. */
export interface Asked extends Partial<FieldAbout> {
  kind: AskedKind;
  /** The schema without what only says that it may be left out. */
  schema: Schema;
  /** It may be left empty. */
  optional: boolean;
  /** What is sent where it is left empty. */
  empty: null | undefined;
  choices?: readonly string[];
  /** What is refused outside of; absent: no bound. */
  least?: number;
  most?: number;
}

/** The schema within what only says that a field may be left out, may be nothing, or has a usual value. */
function bare(schema: Schema): {
  schema: Schema;
  optional: boolean;
  empty: null | undefined;
  about: Partial<FieldAbout>;
} {
  let about = FIELDS.get(schema) ?? {};
  let optional = false;
  let empty: null | undefined;
  let within = schema;
  for (;;) {
    const def = within._zod.def as z.core.$ZodTypeDef & { innerType?: Schema; in?: Schema };
    const next = ['optional', 'nullable', 'default', 'prefault', 'readonly'].includes(def.type)
      ? def.innerType
      : def.type === 'pipe'
        ? def.in
        : undefined;
    if (next === undefined) return { schema: within, optional, empty, about };
    if (def.type !== 'readonly' && def.type !== 'pipe') optional = true;
    if (def.type === 'nullable') empty = null;
    within = next;
    about = { ...FIELDS.get(within), ...about };
  }
}

interface Check {
  check?: string;
  value?: number;
  format?: string;
}
const checksOf = (schema: Schema): Check[] =>
  ((schema._zod.def as { checks?: z.core.$ZodCheck[] }).checks ?? []).map(({ _zod }) => _zod.def as Check);

function boundsOf(schema: Schema): { least?: number; most?: number } {
  const bounds: { least?: number; most?: number } = {};
  for (const { check, value } of checksOf(schema)) {
    if (value === undefined) continue;
    if (check === 'greater_than') bounds.least = value;
    if (check === 'less_than') bounds.most = value;
  }
  return bounds;
}

function kindOf(schema: Schema, about: Partial<FieldAbout>): AskedKind {
  const def = schema._zod.def as z.core.$ZodTypeDef & { element?: Schema; format?: string };
  switch (def.type) {
    case 'number':
      if (about.unit === 'g') return 'mass';
      if (about.unit === '°C') return 'temp';
      if (about.priced) return 'price';
      return checksOf(schema).some(({ format }) => /int/.test(format ?? '')) ? 'count' : 'number';
    case 'string':
      return def.format === 'date' ? 'day' : 'text';
    case 'boolean':
      return 'flag';
    case 'enum':
      return 'choice';
    case 'literal':
      return 'fixed';
    case 'object':
      return 'group';
    case 'union':
      return (def as { discriminator?: string }).discriminator === undefined ? 'other' : 'variant';
    case 'array': {
      const element = def.element === undefined ? undefined : askedOf(def.element).kind;
      if (element === 'choice') return 'several';
      if (element === 'text') return 'words';
      if (element === 'group') return 'rows';
      return element === undefined || element === 'other' || element === 'variant' ? 'other' : 'series';
    }
    default:
      return 'other';
  }
}

/** How one field is asked for. @param schema of the field, as it stands in its object */
export function askedOf(schema: Schema): Asked {
  const { schema: within, optional, empty, about } = bare(schema);
  const kind = kindOf(within, about);
  const element = (within._zod.def as { element?: Schema }).element;
  const chosen = kind === 'several' && element !== undefined ? bare(element).schema : within;
  return {
    ...about,
    kind,
    schema: within,
    optional,
    empty,
    ...(kind === 'choice' || kind === 'several'
      ? { choices: Object.values((chosen._zod.def as { entries?: Record<string, string> }).entries ?? {}) }
      : {}),
    ...(['mass', 'temp', 'price', 'count', 'number'].includes(kind) ? boundsOf(within) : {}),
  };
}

/** The fields of an object, by name. @returns none where the schema is no object */
export function shapeOf(schema: Schema): Readonly<Record<string, Schema>> {
  return (bare(schema).schema._zod.def as { shape?: Record<string, Schema> }).shape ?? {};
}

/** What one row of a list is. */
export const elementOf = (schema: Schema): Schema | undefined =>
  (bare(schema).schema._zod.def as { element?: Schema }).element;

/** What a `variant` is chosen by, and its groups by that. */
export function variantsOf(schema: Schema): { by: string; groups: ReadonlyMap<string, Schema> } {
  const { options = [], discriminator: by = '' } = bare(schema).schema._zod.def as {
    options?: readonly Schema[];
    discriminator?: string;
  };
  const named = options.flatMap((option) =>
    [...((shapeOf(option)[by]?._zod.values as ReadonlySet<string> | undefined) ?? [])].map(
      (value) => [value, option] as const,
    ),
  );
  return { by, groups: new Map(named) };
}

/** Of several schemas that may stand in one place, those that a value can be read by. */
function optionsOf(schema: Schema, value: unknown): readonly Schema[] {
  const { options, discriminator } = bare(schema).schema._zod.def as {
    options?: readonly Schema[];
    discriminator?: string;
  };
  if (options === undefined) return [schema];
  if (discriminator === undefined) return options;
  const said = (value as Record<string, unknown> | null | undefined)?.[discriminator];
  return options.filter((option) => {
    const { values } = shapeOf(option)[discriminator]?._zod ?? {};
    return said === undefined || (values as ReadonlySet<unknown> | undefined)?.has(said) === true;
  });
}

/**
 * The field at a path of what was sent: `command.sources.0.massG`.
 *
 * @param value what was sent, to know which of several forms it has; left out, the first that has such a field
 * @returns null where the schema has no such field
 */
export function askedAt(schema: Schema, path: readonly (string | number)[], value?: unknown): Asked | null {
  const [first, ...rest] = path;
  if (first === undefined) return askedOf(schema);
  for (const option of optionsOf(schema, value)) {
    const next = /^\d+$/.test(String(first)) ? elementOf(option) : shapeOf(option)[String(first)];
    const found = next && askedAt(next, rest, (value as Record<string | number, unknown> | null | undefined)?.[first]);
    if (found) return found;
  }
  return null;
}
