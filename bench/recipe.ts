import loadHighs from 'highs';
import { USUAL_CONTENTS, nibContents } from '@wunsch/core/composition/usual-contents';
import type { Contents } from '@wunsch/core/ledger/contents';
import type { Ingredient, Role } from '@wunsch/core/recipe/ingredient';
import type { LinearSolver } from '@wunsch/core/recipe/linear';
import { limit } from '@wunsch/core/recipe/records';
import { solveRecipe, type Question } from '@wunsch/core/recipe/solve';
import { longestTask, openBrowser, openPage, timings } from './browser';
import type { Note } from './table';

const median = (values: readonly number[]): number =>
  [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)] ?? 0;

const thing = (id: string, role: Role, contents: Contents, perKg: number): Ingredient => ({
  id,
  name: id,
  role,
  contents,
  source: '',
  assumed: true,
  cocoaPct: ['nibs', 'butter'].includes(role) ? 100 : 0,
  withoutButterPct: role === 'nibs' ? 100 : 0,
  allergens: [],
  perKgMilli: perKg * 100_000,
  lots: [],
});

/** A milk of five ingredients with four limits, from stock, on the scale's step. */
const question = (cocoa: number): Question => ({
  choices: [
    { ingredient: thing('nibs', 'nibs', nibContents(), 12), stockG: 9000 },
    { ingredient: thing('butter', 'butter', USUAL_CONTENTS.butter.contents, 18), stockG: 4000 },
    { ingredient: thing('sugar', 'sugar', USUAL_CONTENTS.sugar.contents, 2), stockG: null },
    { ingredient: thing('milk', 'milk', USUAL_CONTENTS.wholeMilk.contents, 7), stockG: null },
    { ingredient: thing('lecithin', 'lecithin', USUAL_CONTENTS.lecithin.contents, 10), stockG: 500 },
  ],
  limits: [
    limit.parse({ of: 'cocoa', aim: cocoa }),
    limit.parse({ of: 'milk', aim: 22 }),
    limit.parse({ of: 'fat', least: 38 }),
    limit.parse({ of: 'lecithin', most: 0.4 }),
  ],
  leastG: 5000,
  mostG: 15_000,
  machine: 'stone',
  size: { grams: 10_000 },
  stepG: 5,
  currency: 'EUR',
});

/** What one answer of the solver costs, when all can be met and when it cannot. */
export async function solveSums(note: Note): Promise<void> {
  const solver = (await loadHighs()) as unknown as LinearSolver;
  const times = (cocoa: (index: number) => number): number[] =>
    Array.from({ length: 40 }, (_, index) => {
      const asked = question(cocoa(index));
      const began = performance.now();
      solveRecipe(asked, solver);
      return performance.now() - began;
    }).slice(5);
  note('recipe solve, median', median(times((index) => 40 + (index % 20) / 2)), 10, 'ms');
  note('recipe solve that contradicts itself, median', median(times((index) => 85 + (index % 20) / 2)), 300, 'ms');
}

/**
 * Moves the first slider by a step and waits for the grams. Text, since it runs in the page: the slider's own figure
 * changes at once and is one field, the grams change with the answer.
 */
const MOVE = `new Promise((resolve) => {
  const read = () => [...document.querySelectorAll('input[inputmode="decimal"]')].map(({ value }) => value);
  const before = read();
  const began = performance.now();
  const look = () => {
    const changed = read().filter((value, index) => value !== before[index]).length;
    if (changed > 1 || performance.now() - began > 2000) resolve(performance.now() - began);
    else requestAnimationFrame(look);
  };
  document.querySelector('[role="slider"]').dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowLeft', bubbles: true }));
  requestAnimationFrame(look);
})`;

/** From a slider moved to new figures on the screen. */
export async function measureRecipes(base: string, note: Note): Promise<void> {
  const browser = await openBrowser();
  const page = await openPage(browser);
  await page.goto(`${base}/recipe/harbour-milk`);
  const slider = page.getByRole('slider').first();
  await slider.focus();
  await page.keyboard.press('ArrowRight');
  await page.waitForTimeout(1500);
  await longestTask(page);
  const taken: number[] = [];
  for (let i = 0; i < 20; i += 1) {
    taken.push(await page.evaluate<number>(MOVE));
    await page.waitForTimeout(60);
  }
  note('a slider moved to new figures on the screen, median', median(taken), 50, 'ms');
  note('longest task of the page while a recipe is dragged', await longestTask(page), 50, 'ms');
  note('recipe solved in the worker, median', median(await timings(page, 'recipe-solve')), 25, 'ms');
  await browser.close();
}
