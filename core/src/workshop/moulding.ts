import { z } from 'zod';
import { id } from '../ledger/fields';

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

/** A group of moulds that was filled together, and its clock. */
export const mouldFill = z.object({
  id: z.string().min(1).max(20),
  /** UTC ms. */
  at: z.number().int(),
  moulds: z.number().int('must be whole').min(1, 'must be at least 1').max(10_000, 'is too many'),
  outAt: z.number().int().nullable().default(null),
});
export type MouldFill = z.infer<typeof mouldFill>;

/** Moulding under way. */
export const liveMould = z.object({
  barG: pieceG.nullable().default(null),
  mouldId: id.nullable().default(null),
  /** Minutes that a group sets. */
  setMin: z.number().min(1, 'is too short').max(1440, 'is more than a day').default(25),
  fills: z.array(mouldFill).max(400, 'are too many').default([]),
  weightsG: weights.default([]),
});
export type LiveMould = z.infer<typeof liveMould>;
export const NO_MOULD: LiveMould = { barG: null, mouldId: null, setMin: 25, fills: [], weightsG: [] };
