import type { Pricing } from '../units/price';
import { changesBetween, type Change } from './compare';
import { figuresOfLines, type Ingredient, type Line } from './ingredient';
import type { LinearSolver } from './linear';
import { limit, type Limit } from './records';
import { solveRecipe, type Answer, type Choice } from './solve';

/** What makes a chocolate what it is, and how much each counts when not all can be kept. */
const KEEP: readonly (readonly [of: string, weight: number])[] = [
  ['cocoa', 3],
  ['sweet', 3],
  ['fat', 2],
  ['milk', 2],
  ['milkFat', 1],
  ['dryCocoa', 1],
  ['cocoaButter', 0.5],
  ['lecithin', 4],
];

export interface Swap {
  answer: Answer;
  before: ReturnType<typeof figuresOfLines>;
  /** What could not be kept. */
  lost: Change[];
  /** Allergens that come in, and that go. */
  comes: string[];
  goes: string[];
}

/**
 * The same chocolate from other things: what is taken out is replaced by what is offered, and the rest moves so that
 * cocoa, sweetness, fat and milk stay what they were as far as they can.
 *
 * @param lines as they are; @param out ingredients that are not to be had; @param offered what stands in for them
 * @param stockOf grams of an ingredient in the house, null: as much as is wanted
 */
export function swapIngredients(
  lines: readonly Line[],
  out: readonly string[],
  offered: readonly Ingredient[],
  stepG: number,
  pricing: Pricing,
  solver: LinearSolver,
  stockOf: (id: string) => number | null = () => null,
): Swap {
  const before = figuresOfLines(lines);
  const kept = lines.map(({ ingredient }) => ingredient).filter(({ id }) => !out.includes(id));
  const ingredients = [...new Map([...kept, ...offered].map((row) => [row.id, row])).values()];
  const choices: Choice[] = ingredients.map((ingredient) => ({ ingredient, stockG: stockOf(ingredient.id) }));
  const value: Record<string, number> = {
    cocoa: before.cocoaPct,
    sweet: before.sugarPct + before.polyolsPct,
    fat: before.fatPct,
    milk: before.milkPct,
    milkFat: before.milkFatPct,
    dryCocoa: before.dryCocoaPct,
    cocoaButter: before.cocoaButterPct,
    lecithin: before.lecithinPct,
  };
  const limits: Limit[] = [
    ...KEEP.map(([of, weight]) => limit.parse({ of, aim: value[of], weight })),
    // Flavours that nobody asked to change stay in their share.
    ...kept
      .filter(({ role }) => role === 'other')
      .map(({ id }) =>
        limit.parse({
          of: `share:${id}`,
          aim: (100 * (lines.find(({ ingredient }) => ingredient.id === id)?.grams ?? 0)) / before.grams,
          weight: 2,
        }),
      ),
  ];
  const answer = solveRecipe(
    {
      choices,
      limits,
      leastG: null,
      mostG: null,
      machine: '',
      size: { grams: before.grams },
      stepG,
      currency: pricing.currency,
      massSystem: pricing.massSystem,
    },
    solver,
  );
  const after = answer.figures ?? figuresOfLines([]);
  const used = (ingredient: Ingredient): boolean =>
    (answer.lines.find(({ id }) => id === ingredient.id)?.grams ?? 0) > 0;
  const allergens = (rows: readonly Ingredient[]): Set<string> => new Set(rows.flatMap((row) => row.allergens));
  const [was, is] = [
    allergens(lines.filter(({ grams }) => grams > 0).map(({ ingredient }) => ingredient)),
    allergens(ingredients.filter(used)),
  ];
  return {
    answer,
    before,
    lost: changesBetween(before, after, pricing),
    comes: [...is].filter((row) => !was.has(row)),
    goes: [...was].filter((row) => !is.has(row)),
  };
}
