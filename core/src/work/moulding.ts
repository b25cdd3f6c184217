import { z } from 'zod';
import { id } from '../fields/fields';

/* What moulding carries beside its weights: what was filled when, what single pieces weigh, why pieces are seconds. */

/** Why a bar is a second. */
export const BAR_FAULTS = ['bloom', 'streak', 'dull', 'air', 'broken', 'light', 'stuck'] as const;
export type BarFault = (typeof BAR_FAULTS)[number];
export const BAR_FAULT_WORDS: Readonly<Record<BarFault, string>> = {
  bloom: 'bloom',
  streak: 'streaks',
  dull: 'dull',
  air: 'air holes',
  broken: 'broken',
  light: 'under weight',
  stuck: 'stuck in the mould',
};

const pieceG = z.number().min(0.1, 'is lighter than any piece').max(20_000, 'is more than 20 kg');
export const weights = z.array(pieceG).max(500, 'are too many');

/** How bars came out of their moulds. */
export const RELEASES = ['by-itself', 'tapped', 'stuck'] as const;

/** How chocolate gets into moulds. */
export const FILLED_BY = ['hand', 'depositor'] as const;
export type FilledBy = (typeof FILLED_BY)[number];

/** A group of moulds that was filled together, and its clock. */
export const mouldFill = z.object({
  id: z.string().min(1).max(20),
  /** UTC ms. */
  at: z.number().int(),
  moulds: z.number().int('must be whole').min(1, 'must be at least 1').max(10_000, 'is too many'),
  outAt: z.number().int().nullable().default(null),
  /** Of shells: when they were tipped out, filled and closed, UTC ms. Left out: poured whole. */
  shell: z
    .object({
      tippedAt: z.number().int().nullable().default(null),
      filledAt: z.number().int().nullable().default(null),
      closedAt: z.number().int().nullable().default(null),
    })
    .optional(),
});
export type MouldFill = z.infer<typeof mouldFill>;

/** What is done next with a group of moulds, and from when on it can be. */
export interface FillNext {
  act: 'tip' | 'fill' | 'close' | 'out' | 'none';
  /** UTC ms. */
  at: number;
}

/**
 * What a group of moulds waits for. Shells are tipped out after their seconds, set, filled, closed and set again; bars
 * that were poured whole only set.
 */
export function nextOf({ at, outAt, shell }: MouldFill, setMin: number, shellSec: number | null): FillNext {
  if (outAt !== null) return { act: 'none', at: outAt };
  const set = 60_000 * setMin;
  if (!shell) return { act: 'out', at: at + set };
  if (shell.tippedAt === null) return { act: 'tip', at: at + 1000 * (shellSec ?? 0) };
  if (shell.filledAt === null) return { act: 'fill', at: shell.tippedAt + set };
  if (shell.closedAt === null) return { act: 'close', at: shell.filledAt };
  return { act: 'out', at: shell.closedAt + set };
}

export const NEXT_WORDS: Readonly<Record<Exclude<FillNext['act'], 'none'>, string>> = {
  tip: 'Tip out',
  fill: 'Fill',
  close: 'Close',
  out: 'Turn out',
};

/** Moulding under way. */
export const liveMould = z.object({
  barG: pieceG.nullable().default(null),
  mouldId: id.nullable().default(null),
  /** Minutes that a group sets. */
  setMin: z.number().min(1, 'is too short').max(1440, 'is more than a day').default(25),
  /** What it becomes. */
  productId: id.nullable().default(null),
  /** Seconds that a shell stands before it is tipped out; null: no shells. */
  shellSec: z.number().min(5, 'is too short').max(1800, 'is more than half an hour').nullable().default(null),
  /** What the bowl was read at while it was filled from. */
  temps: z
    .array(z.object({ at: z.number().int(), tempC: z.number().min(0).max(90) }))
    .max(400, 'are too many')
    .default([]),
  fills: z.array(mouldFill).max(400, 'are too many').default([]),
  weightsG: weights.default([]),
});
export type LiveMould = z.infer<typeof liveMould>;
export const NO_MOULD: LiveMould = {
  barG: null,
  mouldId: null,
  setMin: 25,
  productId: null,
  shellSec: null,
  temps: [],
  fills: [],
  weightsG: [],
};
