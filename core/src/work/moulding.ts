import { duesOf, type Act } from '../run/acts';
import { z } from 'zod/mini';
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

const pieceG = z.number().check(z.minimum(0.1, 'is lighter than any piece'), z.maximum(20_000, 'is more than 20 kg'));
export const weights = z.array(pieceG).check(z.maxLength(500, 'are too many'));

/** How bars came out of their moulds. */
export const RELEASES = ['by-itself', 'tapped', 'stuck'] as const;

/** How chocolate gets into moulds. */
export const FILLED_BY = ['hand', 'depositor'] as const;
export type FilledBy = (typeof FILLED_BY)[number];

/** A group of moulds that was filled together, and its clock. */
export const mouldFill = z.object({
  id: z.string().check(z.minLength(1), z.maxLength(20)),
  /** UTC ms. */
  at: z.number().check(z.int()),
  moulds: z
    .number()
    .check(z.int('must be whole'), z.minimum(1, 'must be at least 1'), z.maximum(10_000, 'is too many')),
  outAt: z._default(z.nullable(z.number().check(z.int())), null),
  /** Of shells: when they were tipped out, filled and closed, UTC ms. Left out: poured whole. */
  shell: z.optional(
    z.object({
      tippedAt: z._default(z.nullable(z.number().check(z.int())), null),
      filledAt: z._default(z.nullable(z.number().check(z.int())), null),
      closedAt: z._default(z.nullable(z.number().check(z.int())), null),
    }),
  ),
});
export type MouldFill = z.infer<typeof mouldFill>;

/** What is done next with a group of moulds, and from when on it can be. */
export interface FillNext {
  act: 'tip' | 'fill' | 'close' | 'out' | 'none';
  /** UTC ms. */
  at: number;
}

/** What is done with a group of moulds, as the acts of a run, UTC ms: shells are tipped out, filled and closed; all set. */
function fillActs(
  { at, outAt, shell }: MouldFill,
  setMin: number,
  shellSec: number | null,
): (Act & { id: FillNext['act'] })[] {
  const set = 60_000 * setMin;
  if (!shell) return [{ id: 'out', causes: [{ by: 'clock', at: at + set }], doneAt: outAt }];
  return [
    { id: 'tip', causes: [{ by: 'clock', at: at + 1000 * (shellSec ?? 0) }], doneAt: shell.tippedAt },
    { id: 'fill', causes: [{ by: 'act', actId: 'tip', then: set }], doneAt: shell.filledAt },
    { id: 'close', causes: [{ by: 'act', actId: 'fill', then: 0 }], doneAt: shell.closedAt },
    { id: 'out', causes: [{ by: 'act', actId: 'close', then: set }], doneAt: outAt },
  ];
}

/**
 * What a group of moulds waits for. Shells are tipped out after their seconds, set, filled, closed and set again; bars
 * that were poured whole only set.
 */
export function nextOfFill(fill: MouldFill, setMin: number, shellSec: number | null): FillNext {
  if (fill.outAt !== null) return { act: 'none', at: fill.outAt };
  const acts = fillActs(fill, setMin, shellSec);
  const dues = duesOf(acts, { now: fill.at });
  const next = acts.find(({ doneAt }) => doneAt === null);
  return { act: next?.id ?? 'none', at: dues.get(next?.id ?? 'none')?.at ?? fill.at };
}

export const NEXT_WORDS: Readonly<Record<Exclude<FillNext['act'], 'none'>, string>> = {
  tip: 'Tip out',
  fill: 'Fill',
  close: 'Close',
  out: 'Turn out',
};

/** Moulding under way. */
export const liveMould = z.object({
  barG: z._default(z.nullable(pieceG), null),
  mouldId: z._default(z.nullable(id), null),
  /** Minutes that a group sets. */
  setMin: z._default(z.number().check(z.minimum(1, 'is too short'), z.maximum(1440, 'is more than a day')), 25),
  /** What it becomes. */
  productId: z._default(z.nullable(id), null),
  /** Seconds that a shell stands before it is tipped out; null: no shells. */
  shellSec: z._default(
    z.nullable(z.number().check(z.minimum(5, 'is too short'), z.maximum(1800, 'is more than half an hour'))),
    null,
  ),
  /** What the bowl was read at while it was filled from. */
  temps: z._default(
    z
      .array(z.object({ at: z.number().check(z.int()), tempC: z.number().check(z.minimum(0), z.maximum(90)) }))
      .check(z.maxLength(400, 'are too many')),
    [],
  ),
  fills: z._default(z.array(mouldFill).check(z.maxLength(400, 'are too many')), []),
  weightsG: z._default(weights, []),
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
