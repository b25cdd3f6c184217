import loadHighs from 'highs';
import { USUAL_CONTENTS, nibContents } from '../src/composition/usual-contents';
import type { Contents } from '../src/ledger/contents';
import type { Ingredient, Role } from '../src/recipe/ingredient';
import type { LinearSolver } from '../src/recipe/linear';
import { limit, type Limit } from '../src/recipe/records';
import { solveRecipe, type Choice, type Question } from '../src/recipe/solve';

let solver: LinearSolver | null = null;
export async function loadSolver(): Promise<LinearSolver> {
  solver ??= (await loadHighs()) as unknown as LinearSolver;
  return solver;
}

const thing = (
  id: string,
  role: Role,
  contents: Contents | null,
  perKg: number,
  more: Partial<Ingredient> = {},
): Ingredient => ({
  id,
  name: id,
  role,
  contents,
  source: 'usual',
  assumed: true,
  cocoaPct: ['nibs', 'liquor', 'butter', 'powder'].includes(role) ? 100 : 0,
  withoutButterPct: ['nibs', 'liquor', 'powder'].includes(role) ? 100 : 0,
  allergens: role === 'milk' ? ['milk'] : [],
  perKgMilli: perKg * 100_000,
  lots: role === 'nibs' ? [{ lotId: 'l1', share: 1 }] : [],
  ...more,
});

export const NIBS = thing('nibs', 'nibs', nibContents(), 12);
export const LEAN = thing('lean', 'nibs', nibContents(48), 11);
export const BUTTER = thing('butter', 'butter', USUAL_CONTENTS.butter.contents, 18);
export const LIQUOR = thing('liquor', 'liquor', USUAL_CONTENTS.liquor.contents, 14);
export const POWDER = thing('powder', 'powder', USUAL_CONTENTS.powder.contents, 9);
export const SUGAR = thing('sugar', 'sugar', USUAL_CONTENTS.sugar.contents, 2);
export const MILK = thing('milk', 'milk', USUAL_CONTENTS.wholeMilk.contents, 7);
export const OAT = thing('oat', 'other', USUAL_CONTENTS.oat.contents, 3, { allergens: ['gluten'] });
export const HAZELNUT = thing('hazelnut', 'other', USUAL_CONTENTS.hazelnut.contents, 15, { allergens: ['hazelnut'] });
export const LECITHIN = thing('lecithin', 'lecithin', USUAL_CONTENTS.lecithin.contents, 10);
export const SALT = thing('salt', 'other', USUAL_CONTENTS.salt.contents, 1);
export const ERYTHRITOL = thing('erythritol', 'sugar', USUAL_CONTENTS.polyol.contents, 8);

export const some = (ingredient: Ingredient, stockG: number | null = null, more: Partial<Choice> = {}): Choice => ({
  ingredient,
  stockG,
  ...more,
});

export const want = (of: string, given: Partial<Omit<Limit, 'of'>>): Limit => limit.parse({ of, ...given });

export const EUR = { currency: 'EUR' };

export const question = (choices: Choice[], limits: Limit[], more: Partial<Question> = {}): Question => ({
  choices,
  limits,
  leastG: null,
  mostG: null,
  machine: 'The grinder',
  size: { grams: 1000 },
  stepG: 1,
  ...EUR,
  ...more,
});

export const solve = async (asked: Question) => solveRecipe(asked, await loadSolver());
export const gramsOf = (lines: readonly { id: string; grams: number }[]): Record<string, number> =>
  Object.fromEntries(lines.map(({ id, grams }) => [id, grams]));
