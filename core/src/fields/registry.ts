import { z } from 'zod/mini';

/* What a field is called and how it is asked for: kept beside its schema, read by forms, refusals and the API's document. */

/** What people are told of a field. */
export interface FieldAbout {
  /** On screen, and in a refusal: "Net weight is more than 20 t". */
  label: string;
  /** Of the value as it is sent; what is typed may be another (°F, lb). */
  unit?: string;
  hint?: string;
  /** What could stand there, shown while it is empty. */
  example?: string;
  /** What the choices are called, by value. */
  words?: Readonly<Record<string, string>>;
  /** Several lines. */
  long?: boolean;
  /** `heavy`: by the sack or the bowl, typed in kg or lb. `piece`: one bar, always in g. Else in g or oz. */
  weighed?: 'heavy' | 'piece';
  /** Money by weight: sent as the price of a kilogram, typed as that of a kilogram or a pound. */
  priced?: boolean;
  /** What is usual here; outside it the figure is asked about and not refused. */
  usual?: readonly [low: number, high: number];
}

/** Every field that has a name. A schema made from another one takes its words along. */
export const FIELDS = z.registry<Partial<FieldAbout>>();

/**
 * The same field under a name of its own.
 *
 * @example field(massG, { label: 'Net weight, all sacks', weighed: 'heavy' })
 * @returns a schema that reads what `schema` reads
 */
export function field<S extends z.ZodMiniType>(schema: S, about: Partial<FieldAbout>): S {
  const own = z.clone(schema);
  FIELDS.add(own, about);
  return own;
}
