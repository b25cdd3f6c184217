import { z } from 'zod/mini';
import './refusals';
import { field } from './registry';

/* What fields of entries are made of. */

/** A mass entered at a bench: grams, more than nothing, at most 20 t. */
export const massG = field(
  z.number().check(z.minimum(0.001, 'must be more than 0 g'), z.maximum(20_000_000, 'is more than 20 t')),
  { label: 'Weight', unit: 'g' },
);
/** A mass that may be nothing. */
export const massOrNoneG = field(
  z.number().check(z.minimum(0, 'cannot be below 0 g'), z.maximum(20_000_000, 'is more than 20 t')),
  { label: 'Weight', unit: 'g' },
);
export const pieces = field(
  z.number().check(z.int('must be whole'), z.minimum(0, 'cannot be below 0'), z.maximum(1_000_000, 'is too many')),
  { label: 'Pieces' },
);
export const tempC = field(
  z.number().check(z.minimum(-60, 'is colder than any freezer'), z.maximum(400, 'is hotter than any roaster')),
  { label: 'Temperature', unit: '°C' },
);
/** Ten milliard: a container of beans in the smallest currencies, and still exact in the ledger. */
export const money = z.number().check(z.minimum(0, 'cannot be below 0'), z.maximum(10_000_000_000, 'is too much'));
export const id = z.string().check(z.minLength(1, 'is missing'), z.maxLength(64));
export const note = field(z._default(z.string().check(z.maxLength(2000, 'is longer than 2,000 letters')), ''), {
  label: 'Note',
});
export const name = field(
  z.string().check(z.trim(), z.minLength(1, 'is missing'), z.maxLength(120, 'is longer than 120 letters')),
  { label: 'Name' },
);
export const word = z._default(z.string().check(z.trim(), z.maxLength(120, 'is longer than 120 letters')), '');

/** A line or a few of text. */
export const text = (most: number) =>
  z._default(z.string().check(z.trim(), z.maxLength(most, `is longer than ${most} letters`)), '');
export const minutes = field(
  z.number().check(z.minimum(0, 'cannot be below 0'), z.maximum(1440, 'is more than a day')),
  { label: 'Minutes', unit: 'min' },
);
