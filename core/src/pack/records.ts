import { z } from 'zod/mini';
import { text } from '../fields/fields';

/* What is written down about labels. Only ever added to: the newest words count. */

/** Languages that a label can be in. */
export const MARKETS = ['en', 'de', 'fr', 'es'] as const;
export type Market = (typeof MARKETS)[number];

/** Words of a label that somebody put in place of the usual ones; `{pct}` stands for the figure. */
export const labelWords = z.partial(
  z.object({
    ingredients: text(60),
    cocoa: text(120).check(z.refine((words) => words === '' || words.includes('{pct}'), 'has no {pct} for the figure')),
    cocoaBeans: text(60),
    may: text(60),
    net: text(60),
    best: text(60),
    batch: text(60),
    origin: text(60),
    store: text(200),
    nutrition: text(60),
  }),
);
export type LabelWords = z.infer<typeof labelWords>;

export const packRecord = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('words'), market: z.enum(MARKETS), words: labelWords }),
]);
