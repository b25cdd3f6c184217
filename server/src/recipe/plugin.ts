import { nanoid } from 'nanoid';
import { z } from 'zod/mini';
import { DomainError } from '@wunsch/core/errors/domain-error';
import { entryHead } from '@wunsch/core/work/start';
import { id } from '@wunsch/core/fields/fields';
import { plannedLine, recipe, type Recipe } from '@wunsch/core/recipe/records';
import { param } from '../http/param';
import type { Router } from '../http/router';
import type { Views } from '../ledger/views';
import { recipeCalculators } from './calculators';
import { Pantry } from './pantry';
import { sheetPdf } from './sheet';
import { ladderView, recipeRows, recipeView } from './views';
import { weighingRoutes } from './weighings';

const head = z.object({ personId: id, at: entryHead.shape.at });

/** Recipes with their versions, ladders, weighing runs, and the arithmetic of them. */
export function recipeRoutes(router: Router, views: Views): void {
  recipeCalculators(router, views);
  weighingRoutes(router, views);
  const { workshop } = router;
  /** What a recipe names has to be here. */
  const check = (as: Recipe): void => {
    const pantry = new Pantry(views);
    as.lines.forEach(({ ingredient }, index) => pantry.row(ingredient, `recipe.lines.${index}.ingredient`));
    if (as.routeId !== null && !workshop.routes.has(as.routeId))
      throw new DomainError('workshop/unknown-route', 'There is no such route.', [
        { path: 'recipe.routeId', message: 'is not known here' },
      ]);
    if (as.machineId !== null && !workshop.machines.has(as.machineId))
      throw new DomainError('workshop/unknown-machine', 'There is no such machine.', [
        { path: 'recipe.machineId', message: 'is not known here' },
      ]);
  };
  const unlike = (name: string, own: string | null): void => {
    const like = name.trim().toLowerCase();
    const other = workshop.recipes
      .all()
      .find((row) => row.id !== own && !row.shelved && row.versions.at(-1)?.recipe.name.trim().toLowerCase() === like);
    if (other)
      throw new DomainError(
        'workshop/same-name',
        `There is a recipe “${name}” already: choose a name that tells them apart.`,
        [{ path: 'recipe.name', message: 'is taken' }],
      );
  };
  router.still('/api/recipe/recipes', 'Recipes, the last used first', () => ({ recipes: recipeRows(views) }));
  router.still('/api/recipe/recipes/:id', 'One recipe with its versions, batches and ladders', (request) =>
    recipeView(views, workshop.recipes.recipe(param(request.params, 'id'))),
  );
  router.write(
    'POST',
    '/api/recipe/recipes',
    'A new recipe',
    z.extend(head, { recipe, why: z._default(z.string().check(z.trim(), z.maxLength(300)), '') }),
    ({ recipe: as, why, ...by }) => {
      check(as);
      unlike(as.name, null);
      const recipeId = nanoid(10);
      workshop.addRecipeRecord({ kind: 'recipe', recipeId, version: 1, recipe: as, why }, by);
      return { id: recipeId, version: 1 };
    },
  );
  router.write(
    'POST',
    '/api/recipe/recipes/:id/versions',
    'A new version of a recipe; the earlier ones stay readable',
    z.extend(head, {
      recipe,
      why: z._default(z.string().check(z.trim(), z.maxLength(300, 'is longer than 300 letters')), ''),
      after: z.number().check(z.int(), z.minimum(1)),
    }),
    ({ recipe: as, why, after, ...by }, request) => {
      const { id: recipeId, versions } = workshop.recipes.recipe(param(request.params, 'id'));
      const newest = versions.at(-1)?.version ?? 0;
      if (after !== newest)
        throw new DomainError(
          'recipe/version',
          `Version ${newest} was saved meanwhile, perhaps at another screen. Look at it first; yours is kept here.`,
        );
      check(as);
      unlike(as.name, recipeId);
      workshop.addRecipeRecord({ kind: 'recipe', recipeId, version: newest + 1, recipe: as, why }, by);
      return { id: recipeId, version: newest + 1 };
    },
  );
  router.write(
    'POST',
    '/api/recipe/recipes/:id/shelve',
    'Put a recipe aside, or take it back',
    z.extend(head, { shelved: z.boolean() }),
    ({ shelved, ...by }, request) => {
      const { id: recipeId } = workshop.recipes.recipe(param(request.params, 'id'));
      workshop.addRecipeRecord({ kind: 'shelved', recipeId, shelved }, by);
      return { id: recipeId, shelved };
    },
  );
  router.write(
    'POST',
    '/api/recipe/recipes/:id/ladders',
    'Three to five variants side by side, to be tasted against each other',
    z.extend(head, {
      name: z.string().check(z.trim(), z.minLength(1, 'is missing'), z.maxLength(80, 'is longer than 80 letters')),
      what: z._default(z.string().check(z.trim(), z.maxLength(120, 'is longer than 120 letters')), ''),
      arms: z
        .array(
          z.object({
            name: z.string().check(z.trim(), z.minLength(1, 'is missing'), z.maxLength(80)),
            machineId: z._default(z.nullable(id), null),
            lines: z.array(plannedLine).check(z.minLength(1), z.maxLength(30)),
          }),
        )
        .check(z.minLength(2, 'needs two to compare'), z.maxLength(5, 'has more than five')),
    }),
    ({ name, what, arms, ...by }, request) => {
      const { id: recipeId } = workshop.recipes.recipe(param(request.params, 'id'));
      const pantry = new Pantry(views);
      arms.forEach((arm, index) =>
        arm.lines.forEach(({ ingredient }, row) => pantry.row(ingredient, `arms.${index}.lines.${row}.ingredient`)),
      );
      const ladderId = nanoid(10);
      workshop.addRecipeRecord({ kind: 'ladder', ladderId, recipeId, name, what, arms }, by);
      return ladderView(views, ladderId);
    },
  );
  router.write(
    'POST',
    '/api/recipe/ladders/:id/batches',
    'Say which variant of a ladder a batch was',
    z.extend(head, {
      arm: z.number().check(z.int(), z.minimum(0), z.maximum(4)),
      code: z.string().check(z.trim(), z.minLength(1), z.maxLength(40)),
    }),
    ({ arm, code, ...by }, request) => {
      const ladderId = param(request.params, 'id');
      const { value } = workshop.recipes.ladder(ladderId);
      if (!value.arms[arm])
        throw new DomainError('recipe/no-arm', 'The ladder has no such variant.', [
          { path: 'arm', message: 'is not in it' },
        ]);
      const batch = [...workshop.batches.values()].find((row) => row.code === code.toUpperCase());
      if (!batch)
        throw new DomainError('trace/unknown-code', `There is no batch ${code}.`, [
          { path: 'code', message: 'is not known here' },
        ]);
      workshop.addRecipeRecord({ kind: 'ladder-batch', ladderId, arm, batchId: batch.id }, by);
      return ladderView(views, ladderId);
    },
  );
  router.file('/api/recipe/recipes/:id/sheet.pdf', 'A sheet to weigh by, with boxes to tick', async (request) => {
    const kept = workshop.recipes.recipe(param(request.params, 'id'));
    const { version, grams } = z
      .object({
        version: z.optional(z.coerce.number().check(z.int(), z.minimum(1))),
        grams: z.optional(z.coerce.number().check(z.minimum(0.001), z.maximum(20_000_000))),
      })
      .parse(request.query);
    const row = version === undefined ? kept.versions.at(-1) : kept.versions.find((one) => one.version === version);
    if (!row) throw new DomainError('http/not-found', 'There is no such version.');
    return {
      type: 'application/pdf',
      name: `${row.recipe.name} v${row.version}.pdf`,
      inline: true,
      bytes: await sheetPdf(views, row, grams),
    };
  });
}
