import { nanoid } from 'nanoid';
import { z } from 'zod';
import { DomainError } from '@wunsch/core/errors/domain-error';
import { entryHead, id } from '@wunsch/core/ledger/commands';
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
  router.read('/api/recipe/recipes', 'Recipes, the last used first', () => ({ recipes: recipeRows(views) }));
  router.read('/api/recipe/recipes/:id', 'One recipe with its versions, batches and ladders', (request) =>
    recipeView(views, workshop.recipes.recipe(param(request.params, 'id'))),
  );
  router.write(
    'POST',
    '/api/recipe/recipes',
    'A new recipe',
    head.extend({ recipe, why: z.string().trim().max(300).default('') }),
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
    head.extend({
      recipe,
      why: z.string().trim().max(300, 'is longer than 300 letters').default(''),
      after: z.number().int().min(1),
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
    head.extend({ shelved: z.boolean() }),
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
    head.extend({
      name: z.string().trim().min(1, 'is missing').max(80, 'is longer than 80 letters'),
      what: z.string().trim().max(120, 'is longer than 120 letters').default(''),
      arms: z
        .array(
          z.object({
            name: z.string().trim().min(1, 'is missing').max(80),
            machineId: id.nullable().default(null),
            lines: z.array(plannedLine).min(1).max(30),
          }),
        )
        .min(2, 'needs two to compare')
        .max(5, 'has more than five'),
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
    head.extend({ arm: z.number().int().min(0).max(4), code: z.string().trim().min(1).max(40) }),
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
        version: z.coerce.number().int().min(1).optional(),
        grams: z.coerce.number().min(0.001).max(20_000_000).optional(),
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
