import { referenceClasses, type ReferenceClass } from './reference';
import { labelLine, labelParts, type LabelPart } from './ingredient-line';
import { figuresOfLines, WATERY_PCT, type Line, type RecipeFigures } from './ingredient';

/** What beans of a lot become, per kilogram, and in what loads and sacks they come. */
export interface BeansToNibs {
  nibsPerKg: { mean: number; low: number; high: number };
  loadG: number;
  sackG: number | null;
}

export interface Needs {
  /** Nibs that are still to be made, g. */
  nibsG: number;
  green: { mean: number; low: number; high: number };
  loads: { mean: number; low: number; high: number };
  sacks: { mean: number; low: number; high: number } | null;
}

/**
 * Green beans, roast loads and sacks for so many grams of nibs, with the interval that the workshop's own yields give.
 *
 * @param nibsG grams wanted beside the nibs that are ready
 */
export function needsOf(nibsG: number, { nibsPerKg, loadG, sackG }: BeansToNibs): Needs {
  const green = (perKg: number): number => (1000 * nibsG) / Math.max(perKg, 1);
  const beans = { mean: green(nibsPerKg.mean), low: green(nibsPerKg.high), high: green(nibsPerKg.low) };
  const up = (size: number) => ({
    mean: Math.ceil(beans.mean / size - 1e-9),
    low: Math.ceil(beans.low / size - 1e-9),
    high: Math.ceil(beans.high / size - 1e-9),
  });
  return { nibsG, green: beans, loads: up(loadG), sacks: sackG === null ? null : up(sackG) };
}

/** A sack with beans left in it. */
export interface SackLeft {
  no: number;
  leftG: number;
  place: string;
  open: boolean;
}

/**
 * Which sacks so many grams of beans come from: those that are open first, then by number.
 *
 * @returns the sacks that are needed; all of them where they hold less
 */
export function whichSacks(greenG: number, sacks: readonly SackLeft[]): SackLeft[] {
  let left = greenG;
  return [...sacks]
    .sort((a, b) => Number(b.open) - Number(a.open) || a.no - b.no)
    .filter(({ leftG }) => {
      if (left <= 0 || leftG <= 0) return false;
      left -= leftG;
      return true;
    });
}

export interface Forward {
  figures: RecipeFigures;
  parts: LabelPart[];
  line: string;
  allergens: { allergen: string; from: string[] }[];
  classes: ReferenceClass[];
  /** Bars of so much from it, with what stays in machines taken off. */
  bars: number;
  cautions: string[];
}

/** Stays in grinder, pots and moulds of a batch, where nobody said otherwise. */
export const USUAL_HOLD_UP = 0.02;

/**
 * All that follows from grams: percentages, label, allergens, classes, bars, cautions.
 *
 * @param barG grams of one bar; @param holdUp share of the batch that never becomes a bar
 * @example forward([{ ingredient: nibs, grams: 200 }, { ingredient: sugar, grams: 60 }], 50).figures.cocoaPct // 76.9
 */
export function forward(lines: readonly Line[], barG: number, holdUp: number = USUAL_HOLD_UP): Forward {
  const used = lines.filter(({ grams }) => grams > 0);
  const figures = figuresOfLines(used);
  const parts = labelParts(used);
  const allergens = [...new Set(used.flatMap(({ ingredient }) => ingredient.allergens))].sort();
  return {
    figures,
    parts,
    line: labelLine(parts),
    allergens: allergens.map((allergen) => ({
      allergen,
      from: used
        .filter(({ ingredient }) => ingredient.allergens.includes(allergen))
        .map(({ ingredient }) => ingredient.name),
    })),
    classes: referenceClasses(figures),
    bars: barG > 0 ? Math.floor((figures.grams * (1 - holdUp)) / barG + 1e-9) : 0,
    cautions: cautionsOf(used, figures),
  };
}

function cautionsOf(lines: readonly Line[], figures: RecipeFigures): string[] {
  const found: string[] = [];
  for (const { ingredient } of lines) {
    const { name, role } = ingredient;
    const water = ingredient.contents?.waterPct ?? 0;
    if (role !== 'bowl' && water > WATERY_PCT)
      found.push(
        water > 12
          ? `${name} is ${water.toFixed(0)} % water: in a bowl of chocolate it seizes. Nothing watery goes in; use it in a filling.`
          : `${name} holds ${water.toFixed(0)} % water: dry it before it goes in, or the mass thickens.`,
      );
    if (/coconut/i.test(name) && /milk|cream/i.test(name) && !ingredient.allergens.includes('milk'))
      found.push(`${name} is often made with milk protein: read its label before this is called free of milk.`);
    if (ingredient.contents === null) found.push(`Nobody said what ${name} is made of: the percentages leave it out.`);
  }
  if (figures.polyolsPct > 10)
    found.push(
      'So much of a sugar-free sweetener may act as a laxative; labels often have to say so. Your local code decides.',
    );
  if (figures.flow === null) found.push('So little fat does not flow in a stone grinder: it will stall or run hot.');
  if (figures.lecithinPct > 0.7) found.push('Over about 0.7 % lecithin thickens again and is tasted.');
  return found;
}
