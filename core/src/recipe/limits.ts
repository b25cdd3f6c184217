import { solidsAt, volumes } from '../composition/figures';
import { formatNumber } from '../units/number';
import { majorFromMilli } from '../units/money';
import { heavyUnit, priceOf, type Pricing } from '../units/price';
import type { Ingredient, RecipeFigures } from './ingredient';
import type { Limit } from './records';
import { FIGURES, type FigureId } from './words';

/** What of a limit on an ingredient is meant: its share, or its grams. */
const subjectOf = (of: string): { kind: 'share' | 'grams'; id: string } | null => {
  const match = /^(share|grams):(.+)$/.exec(of);
  return match?.[1] && match[2] ? { kind: match[1] as 'share' | 'grams', id: match[2] } : null;
};

/** Millilitres of 100 g of chocolate, roughly: turns volumes into percent points. */
const USUAL_ML = 0.75;

/**
 * A limit as a plane over the shares of the ingredients: the value is reached where Σ factor · share = `right`, and more
 * of it is above. All are in percent points or something of that size, so that what misses them compares.
 *
 * @returns for a limit on grams, `right` counts per kilogram of 1/T, the inverse of the batch
 */
export function planeOf(
  of: string,
  value: number,
  ingredients: readonly Ingredient[],
): { factors: number[]; right: number; perInverse: boolean } {
  const subject = subjectOf(of);
  if (subject) {
    const factors = ingredients.map(({ id }) => (id === subject.id ? 100 : 0));
    return subject.kind === 'share'
      ? { factors, right: value, perInverse: false }
      : { factors, right: value / 10, perInverse: true };
  }
  if (of === 'flow') {
    const solids = solidsAt(value);
    return {
      factors: ingredients.map(({ contents }) => {
        if (contents === null) return 0;
        const { fatMl, solidMl } = volumes(contents);
        return (solidMl - solids * (fatMl + solidMl)) / USUAL_ML;
      }),
      right: 0,
      perInverse: false,
    };
  }
  if (of === 'cost') {
    const scale = 100 / Math.max(value, 0.01);
    return {
      factors: ingredients.map(({ perKgMilli }) => scale * majorFromMilli(perKgMilli ?? 0)),
      right: scale * value,
      perInverse: false,
    };
  }
  return { factors: ingredients.map((row) => partOf(of as FigureId, row)), right: value, perInverse: false };
}

/**
 * How far goods are off a value, in percent points or something of that size: what aims are weighed against each other by.
 *
 * @returns for grams of each ingredient; Infinity where there are none
 */
export function deviationFrom(
  of: string,
  value: number,
  ingredients: readonly Ingredient[],
): (grams: readonly number[]) => number {
  const { factors, right, perInverse } = planeOf(of, value, ingredients);
  return (grams) => {
    const total = grams.reduce((sum, own) => sum + own, 0);
    if (total <= 0) return Infinity;
    const reached = factors.reduce((sum, factor, index) => sum + factor * (grams[index] ?? 0), 0) / total;
    return Math.abs(reached - (perInverse ? (1000 * right) / total : right));
  };
}

function partOf(of: FigureId, { contents: c, cocoaPct, withoutButterPct }: Ingredient): number {
  if (of === 'cocoa') return cocoaPct;
  if (of === 'withoutButter') return withoutButterPct;
  if (c === null) return 0;
  switch (of) {
    case 'fat':
      return c.fatPct;
    case 'cocoaButter':
      return c.cocoaButterPct;
    case 'dryCocoa':
      return c.dryCocoaPct;
    case 'sugar':
      return c.sugarPct;
    case 'sweet':
      return c.sugarPct + c.polyolsPct;
    case 'milk':
      return c.dryMilkPct + c.milkFatPct;
    case 'milkFat':
      return c.milkFatPct;
    case 'lecithin':
      return c.lecithinPct;
    case 'water':
      return c.waterPct;
    default:
      return 0;
  }
}

/** The value of what a limit is about, in goods as they are; infinite where nothing would flow. */
export function valueOf(of: string, figures: RecipeFigures, gramsOf: (ingredient: string) => number): number {
  const subject = subjectOf(of);
  if (subject)
    return subject.kind === 'grams' ? gramsOf(subject.id) : (100 * gramsOf(subject.id)) / Math.max(figures.grams, 1e-9);
  switch (of as FigureId) {
    case 'cocoa':
      return figures.cocoaPct;
    case 'withoutButter':
      return figures.withoutButterPct;
    case 'fat':
      return figures.fatPct;
    case 'cocoaButter':
      return figures.cocoaButterPct;
    case 'dryCocoa':
      return figures.dryCocoaPct;
    case 'sugar':
      return figures.sugarPct;
    case 'sweet':
      return figures.sugarPct + figures.polyolsPct;
    case 'milk':
      return figures.milkPct;
    case 'milkFat':
      return figures.milkFatPct;
    case 'lecithin':
      return figures.lecithinPct;
    case 'water':
      return figures.waterPct;
    case 'flow':
      return figures.flow ?? Infinity;
    case 'cost':
      return majorFromMilli(figures.perKgMilli);
    default:
      return NaN;
  }
}

/** How far a value may be off a bound and still be said to keep it. */
export const toleranceOf = (of: string, value: number): number =>
  of === 'flow' ? 0.01 * value : of === 'cost' || of.startsWith('grams:') ? 0.001 * Math.max(value, 1) : 0.005;

/** How far off an aim counts as on it: what a figure with one decimal does not show. */
export const aimTolerance = (of: string, value: number): number =>
  of === 'lecithin' || of === 'flow' || of === 'cost' || of.startsWith('grams:') ? 2 * toleranceOf(of, value) : 0.05;

/** What a limit is about, in words. */
export const nameOfLimit = (of: string, nameOf: (ingredient: string) => string): string => {
  const subject = subjectOf(of);
  return subject
    ? nameOf(subject.id)
    : ((FIGURES as Readonly<Record<string, { name: string } | undefined>>)[of]?.name ?? of);
};

/** A value of a limit with its unit: `72 %`, `500 g`, `8.4×`, `8.40 EUR a kg`. @param pricing how a cost is said */
export function valueText(of: string, value: number, pricing?: Pricing): string {
  const digits = Number.isInteger(Math.round(value * 1000) / 1000) ? 0 : 1;
  if (of.startsWith('grams:')) return `${formatNumber(value, value < 10 && digits > 0 ? 1 : 0)} g`;
  if (of === 'cost') {
    const unit = heavyUnit(pricing?.massSystem);
    return `${priceOf(value, unit).toFixed(2)} ${pricing?.currency ?? ''} a ${unit}`;
  }
  if (of === 'flow') return Number.isFinite(value) ? `${value.toFixed(1)}×` : 'too thick to flow';
  return `${value.toFixed(of === 'lecithin' && digits > 0 ? 2 : digits)} %`;
}

/** A limit's sides, in words: `Cocoa at least 70 %`. */
export function sideWords(
  limit: Limit,
  side: 'aim' | 'least' | 'most',
  nameOf: (ingredient: string) => string,
  pricing?: Pricing,
): string {
  const word = side === 'aim' ? '' : side === 'least' ? 'at least ' : 'at most ';
  return `${nameOfLimit(limit.of, nameOf)} ${word}${valueText(limit.of, limit[side] ?? 0, pricing)}`;
}
