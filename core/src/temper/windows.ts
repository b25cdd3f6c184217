import { z } from 'zod/mini';
import { text } from '../fields/fields';
import { field } from '../fields/registry';
import type { Figures } from '../composition/figures';

/** What a chocolate is, as far as its crystals are concerned. */
export const CHOCOLATES = ['dark', 'two', 'unroasted', 'milk', 'plant', 'white'] as const;
export type Chocolate = (typeof CHOCOLATES)[number];

export const CHOCOLATE_WORDS: Readonly<Record<Chocolate, string>> = {
  dark: 'dark',
  two: 'two-ingredient',
  unroasted: 'unroasted',
  milk: 'milk',
  plant: 'plant milk',
  white: 'white or coloured',
};

const degrees = z
  .number()
  .check(z.minimum(10, 'is colder than anybody works chocolate'), z.maximum(70, 'is hotter than anybody melts it'));
const from = field(degrees, { label: 'from', unit: '°C' });
const to = field(degrees, { label: 'to', unit: '°C' });

/** A stretch of temperatures, °C. */
const span = z
  .object({ from, to })
  .check(z.refine(({ from, to }) => to >= from, { message: 'ends before it begins', path: ['to'] }));
export type Span = z.infer<typeof span>;

/** Where it may stand while moulds are filled, °C, and for how many minutes before it thickens past use. */
const hold = z
  .object({
    from,
    to,
    minutes: field(
      z.number().check(z.minimum(5, 'are fewer than filling takes'), z.maximum(600, 'are more than ten hours')),
      { label: 'Hold for', unit: 'min' },
    ),
  })
  .check(z.refine(({ from, to }) => to >= from, { message: 'ends before it begins', path: ['to'] }));
export type Hold = z.infer<typeof hold>;

/** Where a pour is melted out, cooled to, worked and held, °C. */
export const windows = z.object({ melt: span, cool: span, work: span, hold: z.optional(hold) }).check(
  z.refine(({ cool, work }) => work.from > cool.from, {
    message: 'is not over what it is cooled to',
    path: ['work', 'from'],
  }),
  z.refine(({ melt, work }) => melt.from > work.to, { message: 'is not over the work', path: ['melt', 'from'] }),
  z.refine(({ work, hold: held }) => held === undefined || (held.from <= work.from && held.to >= work.to), {
    message: 'leaves a part of the work out',
    path: ['hold', 'from'],
  }),
);
export type Windows = z.infer<typeof windows>;

/** Windows that somebody gives a recipe or a bar of its own. */
export const ownWindows = z.object({ windows, why: field(text(300), { label: 'Why, in a word' }) });

/** Windows without a hold of their own are held so far to either side of the work, °C, and so long. */
const AROUND_WORK_C = 0.3;
const HOLD_MIN = 75;
/** Where and how long it may stand while moulds are filled. */
export const holdOf = ({ work, hold: held }: Windows): Hold =>
  held ?? { from: work.from - AROUND_WORK_C, to: work.to + AROUND_WORK_C, minutes: HOLD_MIN };

/** Half a degree to either side of the work. */
const heldAround = (work: Span, minutes: number): Hold => ({ from: work.from - 0.5, to: work.to + 0.5, minutes });
const usual = (melt: Span, cool: Span, work: Span, minutes: number): Windows => ({
  melt,
  cool,
  work,
  hold: heldAround(work, minutes),
});
const C = (from: number, to: number): Span => ({ from, to });

/** Usual windows of the trade; a recipe's and a bean's own may differ. Milk fat and thick masses stand less long. */
export const USUAL_WINDOWS: Readonly<Record<Chocolate, Windows>> = {
  dark: usual(C(45, 50), C(27, 28), C(31, 32), 75),
  // Thick: worked where it still runs.
  two: usual(C(45, 50), C(27, 28), C(31.5, 32.5), 60),
  // Melted out cooler and longer: the route keeps its mass under a bound.
  unroasted: usual(C(42, 45), C(27, 28), C(31, 32), 75),
  milk: usual(C(40, 45), C(26, 27), C(29, 30), 60),
  plant: usual(C(40, 45), C(26, 27), C(29, 30), 60),
  white: usual(C(40, 43), C(25, 26), C(28, 29), 60),
};

/** What of a bowl decides on its windows, % of the whole. */
export interface FatParts {
  cocoaButterPct: number;
  milkFatPct: number;
  otherFatPct: number;
  dryCocoaPct: number;
  milkPct: number;
  /** Cocoa butter added as such, and lecithin; left out, not known. */
  addedButterPct?: number;
  lecithinPct?: number;
  /** It was never roasted: it is melted out no hotter than its route allows. */
  unroasted?: boolean;
}

/** What of a composition decides on the windows of a bowl. @param unroasted whether it was never roasted */
export const fatPartsOf = (figures: Figures, unroasted = false): FatParts => ({
  cocoaButterPct: figures.cocoaButterPct,
  milkFatPct: figures.milkFatPct,
  otherFatPct: figures.otherFatPct,
  dryCocoaPct: figures.dryCocoaPct,
  milkPct: figures.milkPct,
  addedButterPct: figures.cocoaPct - figures.withoutButterPct,
  lecithinPct: figures.lecithinPct,
  unroasted,
});

/** Share of its fat that is milk, nut or oat fat, 0 to 1. */
export function softShareOf({ cocoaButterPct, milkFatPct, otherFatPct }: FatParts): number {
  const fat = cocoaButterPct + milkFatPct + otherFatPct;
  return fat > 0 ? (milkFatPct + otherFatPct) / fat : 0;
}

/**
 * °C by which soft fat lowers the melting points of the crystal, for the model for learning: two degrees at the fifth of
 * its fat that milk chocolate has.
 */
export const softLowersC = (softShare: number): number => Math.min(3.5, 10 * softShare);

/** Of the fat, how much is soft (milk, nut, oat) before the windows come down; and how far they do for each part more. */
const SOFT_FREE = 0.08;
const LOWER_C = 12;
const MOST_LOWER_C = 2.5;
const SOME_MILK_PCT = 3;
const WHITE_COCOA_PCT = 3;
/** Less of added butter and lecithin together is none, %. */
const ADDED_PCT = 0.5;

export interface OwnWindows {
  chocolate: Chocolate;
  windows: Windows;
  /** Why they are what they are. */
  because: string;
}

/**
 * The windows of a bowl from what is in it: its kind, and lower the more of its fat is soft. A rule of thumb for a first
 * pour; what comes out of the moulds decides.
 */
export function windowsOf(parts: FatParts): OwnWindows {
  const soft = softShareOf(parts);
  const chocolate = kindOf(parts, soft);
  const own = USUAL_WINDOWS[chocolate];
  // Milk chocolate's own windows hold for some of it already.
  const free = chocolate === 'milk' || chocolate === 'plant' || chocolate === 'white' ? 0.2 : SOFT_FREE;
  const lower = Math.round(2 * Math.min(MOST_LOWER_C, LOWER_C * Math.max(0, soft - free))) / 2;
  const down = ({ from, to }: Span): Span => ({ from: from - lower, to: to - lower });
  return {
    chocolate,
    windows:
      lower === 0
        ? own
        : {
            melt: own.melt,
            cool: down(own.cool),
            work: down(own.work),
            hold: heldAround(down(own.work), holdOf(own).minutes),
          },
    because:
      lower === 0
        ? `Usual for ${CHOCOLATE_WORDS[chocolate]}.`
        : `Usual for ${CHOCOLATE_WORDS[chocolate]}, ${lower} °C lower: ${Math.round(100 * soft)} % of its fat is milk, nut or oat fat.`,
  };
}

function kindOf(
  { dryCocoaPct, milkPct, addedButterPct, lecithinPct = 0, unroasted }: FatParts,
  soft: number,
): Chocolate {
  if (dryCocoaPct < WHITE_COCOA_PCT) return 'white';
  if (milkPct >= SOME_MILK_PCT) return 'milk';
  if (soft > SOFT_FREE) return 'plant';
  if (unroasted === true) return 'unroasted';
  return addedButterPct !== undefined && addedButterPct + lecithinPct < ADDED_PCT ? 'two' : 'dark';
}
