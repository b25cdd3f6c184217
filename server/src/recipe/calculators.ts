import { z } from 'zod/mini';
import { DomainError } from '@wunsch/core/errors/domain-error';
import { id, massG, massOrNoneG } from '@wunsch/core/fields/fields';
import { correctBowl } from '@wunsch/core/recipe/correct';
import { forward, needsOf, whichSacks } from '@wunsch/core/recipe/forward';
import { feedPlan } from '@wunsch/core/recipe/order';
import { ingredientId, limit, recipeLine } from '@wunsch/core/recipe/records';
import { scaleTo, splitAmong } from '@wunsch/core/recipe/scale';
import { solveRecipe, type Answer, type Choice } from '@wunsch/core/recipe/solve';
import { drawFrom } from '@wunsch/core/recipe/stock';
import { swapIngredients } from '@wunsch/core/recipe/swap';
import type { Router } from '../http/router';
import type { Views } from '../ledger/views';
import { Pantry } from './pantry';
import { linearSolver } from './solver';
import { bowlView, linesOf } from './views';

const lines = z
  .array(z.object({ ingredient: ingredientId, grams: massOrNoneG }))
  .check(z.minLength(1, 'needs an ingredient'), z.maxLength(30, 'are too many'));
const ingredients = z.array(ingredientId).check(z.minLength(1, 'needs an ingredient'), z.maxLength(30, 'are too many'));
const limits = z._default(z.array(limit).check(z.maxLength(40, 'are too many')), []);
const stepG = z._default(
  z.number().check(z.minimum(0.001, 'is finer than any scale'), z.maximum(1000, 'is coarser than any scale')),
  1,
);
const size = z.union([z.object({ grams: massG }), z.enum(['most', 'least'])]);

/** The arithmetic of recipes, scriptable. */
export function recipeCalculators(router: Router, views: Views): void {
  const { workshop } = router;
  const choicesOf = (pantry: Pantry, ids: readonly string[], fromStock: boolean): Choice[] =>
    ids.map((ingredient, index) => {
      const row = pantry.row(ingredient, `ingredients.${index}`);
      return { ingredient: row, stockG: fromStock ? row.stockG : null };
    });
  /** An answer with the tubs that each line is taken from. */
  const withDraws = (pantry: Pantry, answer: Answer) => ({
    ...answer,
    lines: answer.lines.map((line) => ({
      ...line,
      from: drawFrom(pantry.stockOf(line.id), line.grams).taken.map(({ line: { code, holdingId }, grams }) => ({
        code,
        holdingId,
        grams,
      })),
    })),
  });

  router.calc(
    '/api/calc/recipe/figures',
    'All that follows from grams: percentages, flow, allergens, ingredient line, classes, cost, bars, beans, feed plan',
    z.object({
      lines: z.array(recipeLine).check(z.minLength(1, 'needs an ingredient'), z.maxLength(30, 'are too many')),
      barG: z._default(massG, 70),
      holdUpPct: z._default(z.number().check(z.minimum(0), z.maximum(50)), 2),
    }),
    (body) => {
      const pantry = new Pantry(views);
      const read = linesOf(pantry, body.lines);
      if (!read.some(({ grams }) => grams > 0))
        throw new DomainError('recipe/nothing', 'Nothing is in the recipe.', [
          { path: 'lines', message: 'weigh nothing' },
        ]);
      return {
        ...forward(read, body.barG, body.holdUpPct / 100),
        needs: read.flatMap(({ ingredient, grams }) => {
          const row = pantry.row(ingredient.id);
          const missing = grams - row.stockG;
          if (!row.lot || missing <= 0) return [];
          const needs = needsOf(missing, row.lot);
          return [{ ingredient: row.id, ...needs, fromSacks: whichSacks(needs.green.mean, row.lot.sacks) }];
        }),
        order: feedPlan(
          read.map(({ ingredient, grams }, index) => ({
            ingredient: ingredient.id,
            name: ingredient.name,
            role: ingredient.role,
            grams,
            atMinutes: body.lines[index]?.atMinutes ?? null,
            portions: body.lines[index]?.portions ?? null,
          })),
        ),
      };
    },
  );
  router.calc(
    '/api/calc/recipe/solve',
    'Grams for targets and bounds, from stock, on the scale’s step; what contradicts what when it cannot be',
    z
      .object({
        ingredients,
        limits,
        /** What the grinder really takes. */
        leastG: z._default(z.nullable(massG), null),
        mostG: z._default(z.nullable(massG), null),
        machineId: z._default(z.nullable(id), null),
        size: z._default(size, 'most'),
        stepG,
        fromStock: z._default(z.boolean(), true),
      })
      .check(
        z.refine(({ leastG, mostG }) => leastG === null || mostG === null || leastG <= mostG, {
          message: 'is more than the most',
          path: ['leastG'],
        }),
      ),
    async ({ ingredients: ids, fromStock, machineId, ...question }) => {
      const pantry = new Pantry(views);
      const machine = machineId === null ? undefined : workshop.machines.get(machineId);
      if (machineId !== null && !machine)
        throw new DomainError('workshop/unknown-machine', 'There is no such machine.', [
          { path: 'machineId', message: 'is not known here' },
        ]);
      const choices = choicesOf(pantry, ids, fromStock);
      if (
        question.size === 'most' &&
        question.mostG === null &&
        (machine?.maxG ?? null) === null &&
        choices.every(({ stockG }) => stockG === null)
      )
        throw new DomainError('recipe/no-size', 'Say how much: without stock and without a machine there is no most.', [
          { path: 'size', message: 'has nothing that bounds it' },
        ]);
      const answer = solveRecipe(
        {
          ...question,
          choices,
          leastG: question.leastG ?? machine?.minG ?? null,
          mostG: question.mostG ?? machine?.maxG ?? null,
          machine: machine?.name ?? '',
          currency: workshop.settings.currency,
          massSystem: workshop.settings.massSystem,
        },
        await linearSolver(),
      );
      return withDraws(pantry, answer);
    },
  );
  router.calc(
    '/api/calc/recipe/correct',
    'What to add to a bowl that grinds to reach targets; nothing is ever taken out',
    z.object({
      batchId: id,
      ingredients,
      limits: z.array(limit).check(z.minLength(1, 'need a target'), z.maxLength(40, 'are too many')),
      stepG,
      fromStock: z._default(z.boolean(), true),
    }),
    async ({ batchId, ingredients: ids, limits: wanted, stepG: step, fromStock }) => {
      const { bowl } = bowlView(views, batchId);
      const pantry = new Pantry(views);
      const answer = correctBowl(
        bowl,
        choicesOf(pantry, ids, fromStock),
        wanted,
        step,
        workshop.settings,
        await linearSolver(),
      );
      return withDraws(pantry, answer);
    },
  );
  router.calc(
    '/api/calc/recipe/swap',
    'The same chocolate from other ingredients, and what cannot be kept',
    z.object({ lines, out: ingredients, offered: ingredients, stepG, fromStock: z._default(z.boolean(), false) }),
    async (body) => {
      const pantry = new Pantry(views);
      return swapIngredients(
        linesOf(pantry, body.lines),
        body.out,
        body.offered.map((row, index) => pantry.row(row, `offered.${index}`)),
        body.stepG,
        workshop.settings,
        await linearSolver(),
        (ingredient) => (body.fromStock ? pantry.row(ingredient).stockG : null),
      );
    },
  );
  router.calc(
    '/api/calc/recipe/scale',
    'The same recipe for another size, or for what is left of its nibs; split among grinders where one does not hold it',
    z.object({ lines, toG: z.optional(massG), stepG, machineIds: z._default(z.array(id).check(z.maxLength(20)), []) }),
    ({ lines: rows, toG, stepG: step, machineIds }) => {
      const pantry = new Pantry(views);
      const read = linesOf(pantry, rows);
      const total = read.reduce((sum, { grams }) => sum + grams, 0);
      if (total <= 0)
        throw new DomainError('recipe/nothing', 'Nothing is in the recipe.', [
          { path: 'lines', message: 'weigh nothing' },
        ]);
      // Without a size: as much as the nibs in the house allow.
      const factor = Math.min(
        ...read
          .filter(({ ingredient, grams }) => grams > 0 && ingredient.role === 'nibs')
          .map(({ ingredient, grams }) => pantry.row(ingredient.id).stockG / grams),
      );
      const size = toG ?? Math.floor((total * factor) / step + 1e-9) * step;
      if (!Number.isFinite(size) || size <= 0)
        throw new DomainError('recipe/no-size', 'Say how much: there are no nibs of this recipe to go by.', [
          { path: 'toG', message: 'is missing' },
        ]);
      const grams = scaleTo(
        read.map((line) => line.grams),
        size,
        step,
      );
      const machines = machineIds.map((machineId, index) => {
        const machine = workshop.machines.get(machineId);
        if (!machine)
          throw new DomainError('workshop/unknown-machine', 'There is no such machine.', [
            { path: `machineIds.${index}`, message: 'is not known here' },
          ]);
        return machine;
      });
      const split = machines.length === 0 ? [] : splitAmong(size, machines);
      if (split === null)
        throw new DomainError(
          'recipe/does-not-fit',
          'These machines together cannot hold it, or it is under the least of each.',
          [{ path: 'machineIds', message: 'do not fit the batch' }],
        );
      return {
        totalG: size,
        lines: rows.map(({ ingredient }, index) => ({ ingredient, grams: grams[index] ?? 0 })),
        split: split
          .filter((part) => part.grams > 0)
          .map((part) => ({
            ...part,
            lines: rows.map(({ ingredient }, index) => ({
              ingredient,
              grams: scaleTo(grams, part.grams, step)[index] ?? 0,
            })),
          })),
      };
    },
  );
  router.read('/api/recipe/bowls/:batch', 'What a bowl really is, and whether its label still may say it', (request) =>
    bowlView(views, (request.params as { batch: string }).batch),
  );
  router.still(
    '/api/recipe/pantry',
    'Everything that can go into a bowl, what it is made of, what there is of it',
    () => new Pantry(views).view(),
  );
}
