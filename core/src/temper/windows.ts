import { z } from 'zod';
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

const degrees = z.number().min(10, 'is colder than anybody works chocolate').max(70, 'is hotter than anybody melts it');

/** A stretch of temperatures, °C. */
const span = z
  .object({ from: degrees, to: degrees })
  .refine(({ from, to }) => to >= from, { message: 'ends before it begins', path: ['to'] });
export type Span = z.infer<typeof span>;

/** Where a pour is melted out, cooled to and worked, °C. */
export const windows = z
  .object({ melt: span, cool: span, work: span })
  .refine(({ cool, work }) => work.from > cool.from, {
    message: 'is not over what it is cooled to',
    path: ['work', 'from'],
  })
  .refine(({ melt, work }) => melt.from > work.to, { message: 'is not over the work', path: ['melt', 'from'] });
export type Windows = z.infer<typeof windows>;

/** Usual windows of the trade; a recipe's and a bean's own may differ. */
export const USUAL_WINDOWS: Readonly<Record<Chocolate, Windows>> = {
  dark: { melt: { from: 45, to: 50 }, cool: { from: 27, to: 28 }, work: { from: 31, to: 32 } },
  // Thick: worked where it still runs.
  two: { melt: { from: 45, to: 50 }, cool: { from: 27, to: 28 }, work: { from: 31.5, to: 32.5 } },
  // Melted out cooler and longer: the route keeps its mass under a bound.
  unroasted: { melt: { from: 42, to: 45 }, cool: { from: 27, to: 28 }, work: { from: 31, to: 32 } },
  milk: { melt: { from: 40, to: 45 }, cool: { from: 26, to: 27 }, work: { from: 29, to: 30 } },
  plant: { melt: { from: 40, to: 45 }, cool: { from: 26, to: 27 }, work: { from: 29, to: 30 } },
  white: { melt: { from: 40, to: 43 }, cool: { from: 25, to: 26 }, work: { from: 28, to: 29 } },
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
  const usual = USUAL_WINDOWS[chocolate];
  // Milk chocolate's own windows hold for some of it already.
  const free = chocolate === 'milk' || chocolate === 'plant' || chocolate === 'white' ? 0.2 : SOFT_FREE;
  const lower = Math.round(2 * Math.min(MOST_LOWER_C, LOWER_C * Math.max(0, soft - free))) / 2;
  const down = ({ from, to }: Span): Span => ({ from: from - lower, to: to - lower });
  return {
    chocolate,
    windows: lower === 0 ? usual : { melt: usual.melt, cool: down(usual.cool), work: down(usual.work) },
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
