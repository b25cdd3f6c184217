import { z } from 'zod';

/* What fields of entries are made of. */

/** A mass entered at a bench: grams, more than nothing, at most 20 t. */
export const massG = z.number().min(0.001, 'must be more than 0 g').max(20_000_000, 'is more than 20 t');
/** A mass that may be nothing. */
export const massOrNoneG = z.number().min(0, 'cannot be below 0 g').max(20_000_000, 'is more than 20 t');
export const pieces = z.number().int('must be whole').min(0, 'cannot be below 0').max(1_000_000, 'is too many');
export const tempC = z.number().min(-60, 'is colder than any freezer').max(400, 'is hotter than any roaster');
/** Ten milliard: a container of beans in the smallest currencies, and still exact in the ledger. */
export const money = z.number().min(0, 'cannot be below 0').max(10_000_000_000, 'is too much');
export const id = z.string().min(1, 'is missing').max(64);
export const note = z.string().max(2000, 'is longer than 2,000 letters').default('');
export const name = z.string().trim().min(1, 'is missing').max(120, 'is longer than 120 letters');
export const word = z.string().trim().max(120, 'is longer than 120 letters').default('');

/** A line or a few of text. */
export const text = (most: number) => z.string().trim().max(most, `is longer than ${most} letters`).default('');
export const minutes = z.number().min(0, 'cannot be below 0').max(1440, 'is more than a day');
