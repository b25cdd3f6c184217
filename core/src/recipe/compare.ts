import type { Pricing } from '../units/price';
import type { Line, RecipeFigures } from './ingredient';
import { valueOf, valueText } from './limits';
import { FIGURES, type FigureId } from './words';

/** A figure before and after. */
export interface Change {
  of: FigureId;
  name: string;
  before: number;
  after: number;
  /** `Cocoa 72 % → 70.4 %`. */
  words: string;
}

/** Least change of a figure that anybody would taste, feel or have to say. */
const WORTH: Record<FigureId, number> = {
  cocoa: 0.05,
  withoutButter: 0.05,
  fat: 0.1,
  cocoaButter: 0.1,
  dryCocoa: 0.1,
  sugar: 0.1,
  sweet: 0.1,
  milk: 0.1,
  milkFat: 0.1,
  lecithin: 0.02,
  water: 0.05,
  flow: 0.1,
  cost: 0.01,
};

/** Which figures differ between two compositions, and by how much. */
export function changesBetween(before: RecipeFigures, after: RecipeFigures, pricing: Pricing): Change[] {
  return (Object.keys(FIGURES) as FigureId[]).flatMap((of): Change[] => {
    const [was, is] = [before, after].map((figures) => valueOf(of, figures, () => 0)) as [number, number];
    const same = was === is || Math.abs(was - is) < WORTH[of];
    if (same) return [];
    const { name } = FIGURES[of];
    return [
      {
        of,
        name,
        before: was,
        after: is,
        words: `${name} ${valueText(of, was, pricing)} → ${valueText(of, is, pricing)}`,
      },
    ];
  });
}

/** The mean score of batches that were tasted; null where none was. */
export function meanScore(batches: readonly { score: number | null }[]): { mean: number; of: number } | null {
  const scores = batches.flatMap(({ score }) => score ?? []);
  return scores.length === 0
    ? null
    : { mean: scores.reduce((sum, score) => sum + score, 0) / scores.length, of: scores.length };
}

/** What changed in the grams of two versions, brought to one size, in words. */
export function lineChanges(before: readonly Line[], after: readonly Line[]): string[] {
  const sum = (lines: readonly Line[]): number => lines.reduce((total, { grams }) => total + grams, 0);
  const share = (lines: readonly Line[], id: string): number =>
    (100 * lines.reduce((total, line) => (line.ingredient.id === id ? total + line.grams : total), 0)) /
    Math.max(sum(lines), 1e-9);
  const names = new Map([...before, ...after].map(({ ingredient }) => [ingredient.id, ingredient.name]));
  return [...names].flatMap(([id, name]) => {
    const [was, is] = [share(before, id), share(after, id)];
    if (Math.abs(was - is) < 0.02) return [];
    if (was === 0) return [`${name} new, ${is.toFixed(1)} %`];
    return is === 0
      ? [`no ${name} any more (was ${was.toFixed(1)} %)`]
      : [`${name} ${was.toFixed(1)} % → ${is.toFixed(1)} %`];
  });
}
