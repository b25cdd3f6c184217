/** What a chocolate is, as far as its crystals are concerned. */
export const CHOCOLATES = ['dark', 'milk', 'white'] as const;
export type Chocolate = (typeof CHOCOLATES)[number];

export const CHOCOLATE_WORDS: Readonly<Record<Chocolate, string>> = {
  dark: 'dark',
  milk: 'milk or plant milk',
  white: 'white or coloured',
};

/** A stretch of temperatures, °C. */
export interface Span {
  from: number;
  to: number;
}

/** Where a pour is melted out, cooled to and worked, °C. */
export interface Windows {
  melt: Span;
  cool: Span;
  work: Span;
}

/** Usual windows of the trade; a recipe's and a bean's own may differ. */
export const USUAL_WINDOWS: Readonly<Record<Chocolate, Windows>> = {
  dark: { melt: { from: 45, to: 50 }, cool: { from: 27, to: 28 }, work: { from: 31, to: 32 } },
  milk: { melt: { from: 40, to: 45 }, cool: { from: 26, to: 27 }, work: { from: 29, to: 30 } },
  white: { melt: { from: 40, to: 43 }, cool: { from: 25, to: 26 }, work: { from: 28, to: 29 } },
};

/** What of a bowl decides on its windows, % of the whole. */
export interface FatParts {
  cocoaButterPct: number;
  milkFatPct: number;
  otherFatPct: number;
  dryCocoaPct: number;
  milkPct: number;
}

/** Of the fat, how much is soft (milk, nut, oat) before the windows come down; and how far they do for each part more. */
const SOFT_FREE = 0.08;
const LOWER_C = 12;
const MOST_LOWER_C = 2.5;
const SOME_MILK_PCT = 3;
const WHITE_COCOA_PCT = 3;

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
  const fat = parts.cocoaButterPct + parts.milkFatPct + parts.otherFatPct;
  const soft = fat > 0 ? (parts.milkFatPct + parts.otherFatPct) / fat : 0;
  const chocolate: Chocolate =
    parts.dryCocoaPct < WHITE_COCOA_PCT
      ? 'white'
      : parts.milkPct >= SOME_MILK_PCT || soft > SOFT_FREE
        ? 'milk'
        : 'dark';
  const usual = USUAL_WINDOWS[chocolate];
  // Milk chocolate's own windows hold for some of it already.
  const free = chocolate === 'dark' ? SOFT_FREE : 0.2;
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
