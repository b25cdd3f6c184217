import type { Pricing } from '../units/price';
import type { Ingredient } from './ingredient';
import type { LinearSolver } from './linear';
import { limit } from './records';
import { solveRecipe, type Answer } from './solve';
import type { WeighingLine } from './weighing';

export interface ReplanInput extends Pricing {
  lines: readonly (WeighingLine & { ingredient: string })[];
  ingredients: ReadonlyMap<string, Ingredient>;
  /** Free of it beside what is weighed, g. */
  freeG: (ingredient: string) => number;
  stepG: number;
  /** What the bowl holds already, and what the machine takes. */
  bowl: { ingredient: Ingredient; grams: number } | null;
  mostG: number | null;
  machine: string;
}

/**
 * What to weigh of the rest after one went over: the shares of the plan are kept as far as can be, nothing that is
 * weighed is taken back, and no more is added than that needs.
 */
export function replan(
  { lines, ingredients, freeG, stepG, bowl, mostG, machine, currency, massSystem }: ReplanInput,
  solver: LinearSolver,
): Answer {
  const planned = lines.reduce((sum, { plannedG }) => sum + plannedG, 0) + (bowl?.grams ?? 0);
  const known = lines.flatMap((line) => {
    const ingredient = ingredients.get(line.ingredient);
    return ingredient ? [{ line, ingredient }] : [];
  });
  return solveRecipe(
    {
      choices: [
        ...(bowl ? [{ ingredient: bowl.ingredient, stockG: null, fixedG: bowl.grams }] : []),
        ...known.map(({ line, ingredient }) => ({ ingredient, stockG: freeG(line.ingredient), thereG: line.weighedG })),
      ],
      limits: known.map(({ line }) =>
        limit.parse({ of: `share:${line.ingredient}`, aim: (100 * line.plannedG) / planned }),
      ),
      leastG: null,
      mostG,
      machine,
      size: 'least',
      stepG,
      currency,
      massSystem,
    },
    solver,
  );
}
