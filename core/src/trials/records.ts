import { z } from 'zod/mini';
import { id, name, text } from '../fields/fields';

/* Trials of anything a maker varies: factors and levels, arms, and what was made of each. Only ever added to. */

/** What can be varied, with its name, unit and the station that decides it. */
export const FACTORS = {
  peakC: { name: 'Roast, beans at', unit: '°C', station: 'roast' },
  roastMin: { name: 'Roast, length', unit: 'min', station: 'roast' },
  shellPct: { name: 'Shell in nibs', unit: '%', station: 'winnow' },
  micron: { name: 'Fineness', unit: 'µm', station: 'grind' },
  grindH: { name: 'Hours on the stones', unit: 'h', station: 'grind' },
  concheH: { name: 'Conche, stones up', unit: 'h', station: 'grind' },
  cocoaPct: { name: 'Cocoa', unit: '%', station: 'grind' },
  sugarPct: { name: 'Sugar', unit: '%', station: 'grind' },
  butterPct: { name: 'Added butter', unit: '%', station: 'grind' },
  restDays: { name: 'Rest', unit: 'days', station: 'rest' },
  workC: { name: 'Worked at', unit: '°C', station: 'temper' },
  beans: { name: 'Beans', unit: '', station: 'beans' },
} as const;
export type Factor = keyof typeof FACTORS;
export const FACTOR_KEYS = Object.keys(FACTORS) as [Factor, ...Factor[]];
/** Factors that are one of several things and not a figure. */
export const isKind = (factor: Factor): boolean => factor === 'beans';

const level = z.union([
  z.number().check(z.minimum(-60), z.maximum(100_000)),
  z.string().check(z.trim(), z.minLength(1, 'is missing'), z.maxLength(64)),
]);
export type Level = z.infer<typeof level>;

export const DESIGNS = ['full', 'ladder', 'small'] as const;
export const DESIGN_WORDS: Readonly<Record<(typeof DESIGNS)[number], string>> = {
  full: 'Every level with every other',
  ladder: 'One thing, step by step',
  small: 'As few batches as will tell',
};

export const trialPlan = z
  .object({
    name,
    question: text(300),
    factors: z
      .array(
        z.object({
          factor: z.enum(FACTOR_KEYS),
          levels: z.array(level).check(z.minLength(1, 'is missing'), z.maxLength(8, 'are too many')),
        }),
      )
      .check(z.minLength(1, 'choose what varies'), z.maxLength(4, 'are more than one trial can tell apart')),
    design: z.enum(DESIGNS),
    /** In the order in which they are made; levels in the order of the factors. */
    arms: z
      .array(z.array(level).check(z.minLength(1), z.maxLength(4)))
      .check(z.minLength(2, 'needs two to compare'), z.maxLength(24, 'are too many')),
  })
  .check(
    z.refine(({ factors }) => new Set(factors.map(({ factor }) => factor)).size === factors.length, {
      message: 'names one thing twice',
      path: ['factors'],
    }),
    z.refine(({ factors, arms }) => arms.every((arm) => arm.length === factors.length), {
      message: 'do not fit what varies',
      path: ['arms'],
    }),
    z.superRefine(({ factors }, context) => {
      factors.forEach(({ factor, levels }, index) => {
        const fits = levels.every((value) => typeof value === (isKind(factor) ? 'string' : 'number'));
        if (!fits)
          context.addIssue({ code: 'custom', path: ['factors', index, 'levels'], message: 'are not its levels' });
        if (new Set(levels).size !== levels.length)
          context.addIssue({ code: 'custom', path: ['factors', index, 'levels'], message: 'names one twice' });
      });
    }),
  );
export type TrialPlan = z.infer<typeof trialPlan>;

export const trialRecord = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('trial'), trial: trialPlan }),
  /** Something of the book was made as this arm: a batch, or a load. */
  z.object({
    kind: z.literal('made'),
    trialId: id,
    arm: z.number().check(z.int('must be whole'), z.minimum(0), z.maximum(23)),
    code: z.string().check(z.trim(), z.minLength(1, 'is missing'), z.maxLength(40)),
  }),
  z.object({
    kind: z.literal('not-made'),
    trialId: id,
    code: z.string().check(z.trim(), z.minLength(1), z.maxLength(40)),
  }),
]);
export type TrialRecordValue = z.infer<typeof trialRecord>;
