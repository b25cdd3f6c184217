import { expose } from 'comlink';
import loadHighs from 'highs';
import wasm from 'highs/runtime?url';
import { correctBowl } from '@wunsch/core/recipe/correct';
import type { LinearSolver } from '@wunsch/core/recipe/linear';
import { solveRecipe, type Answer, type Question } from '@wunsch/core/recipe/solve';
import type { Pricing } from '@wunsch/core/units/price';
import { swapIngredients, type Swap } from '@wunsch/core/recipe/swap';

const solver = loadHighs({ locateFile: () => wasm }) as unknown as Promise<LinearSolver>;

/** The heavy arithmetic of recipes, off the page's thread. */
const kitchen = {
  solve: async (question: Question): Promise<Answer> => solveRecipe(question, await solver),

  correct: async (
    bowl: Parameters<typeof correctBowl>[0],
    additions: Parameters<typeof correctBowl>[1],
    limits: Parameters<typeof correctBowl>[2],
    stepG: number,
    pricing: Pricing,
  ): Promise<Answer> => correctBowl(bowl, additions, limits, stepG, pricing, await solver),

  swap: async (
    lines: Parameters<typeof swapIngredients>[0],
    out: readonly string[],
    offered: Parameters<typeof swapIngredients>[2],
    stepG: number,
    pricing: Pricing,
  ): Promise<Swap> => swapIngredients(lines, out, offered, stepG, pricing, await solver),
};
export type Kitchen = typeof kitchen;

expose(kitchen);
