import { nanoid } from 'nanoid';
import { z } from 'zod/mini';
import { DomainError } from '@wunsch/core/errors/domain-error';
import { formatMassBeside, toMg } from '@wunsch/core/units/mass';
import { entryHead } from '@wunsch/core/work/start';
import { id, massG } from '@wunsch/core/fields/fields';
import { replan } from '@wunsch/core/recipe/replan';
import { ingredientId, plannedLine } from '@wunsch/core/recipe/records';
import type { WeighingState } from '@wunsch/core/recipe/weighing';
import { param } from '../http/param';
import type { Router } from '../http/router';
import type { Views } from '../ledger/views';
import { bowlOf, Pantry } from './pantry';
import { linearSolver } from './solver';
import { weighingView } from './views';

const head = z.object({ personId: id, at: entryHead.shape.at });
const begin = z.extend(head, {
  recipe: z._default(z.nullable(z.object({ id, version: z.number().check(z.int(), z.minimum(1)) })), null),
  name: z.string().check(z.trim(), z.minLength(1, 'is missing'), z.maxLength(80, 'is longer than 80 letters')),
  batchId: z._default(z.nullable(id), null),
  machineId: z._default(z.nullable(id), null),
  routeId: z._default(z.nullable(id), null),
  targetMicron: z._default(
    z.number().check(z.minimum(5, 'is finer than any stone'), z.maximum(200, 'is coarser than a grit')),
    20,
  ),
  stepG: z._default(
    z.number().check(z.minimum(0.001, 'is finer than any scale'), z.maximum(1000, 'is coarser than any scale')),
    1,
  ),
  tolerancePct: z._default(
    z.number().check(z.minimum(0.05, 'is finer than anybody weighs'), z.maximum(20, 'is too much')),
    1,
  ),
  lines: z.array(plannedLine).check(z.minLength(1, 'needs an ingredient'), z.maxLength(30, 'are too many')),
  ladder: z._default(z.nullable(z.object({ id, arm: z.number().check(z.int(), z.minimum(0), z.maximum(4)) })), null),
});

/** Weighing runs: what a recipe asks for, weighed one after the other, and then charged in one step. */
export function weighingRoutes(router: Router, views: Views): void {
  const { workshop } = router;
  const open = (request: { params: unknown }): WeighingState => {
    const state = workshop.recipes.weighing(param(request.params, 'id'));
    if (state.endedAt !== null)
      throw new DomainError(
        'work/closed',
        'That weighing has been finished or put back already, perhaps at another screen. Nothing was saved twice.',
      );
    return state;
  };
  const view = (weighingId: string) => weighingView(views, workshop.recipes.weighing(weighingId));

  router.read('/api/recipe/weighings', 'Weighing runs under way', () => ({
    weighings: workshop.recipes.openWeighings().map((state) => weighingView(views, state)),
  }));
  router.read('/api/recipe/weighings/:id', 'One weighing run', (request) => view(param(request.params, 'id')));
  router.write(
    'POST',
    '/api/recipe/weighings',
    'Begin to weigh a batch, or an addition to one',
    begin,
    ({ personId, at, ...plan }) => {
      const pantry = new Pantry(views);
      plan.lines.forEach(({ ingredient }, index) => pantry.row(ingredient, `lines.${index}.ingredient`));
      if (plan.machineId !== null && !workshop.machines.has(plan.machineId))
        throw new DomainError('workshop/unknown-machine', 'There is no such machine.', [
          { path: 'machineId', message: 'is not known here' },
        ]);
      if (plan.batchId !== null) bowlOf(views, plan.batchId);
      else if (!workshop.routes.has(plan.routeId ?? ''))
        throw new DomainError('workshop/unknown-route', 'Choose the route of the batch.', [
          { path: 'routeId', message: 'is not known here' },
        ]);
      if (plan.recipe && !workshop.recipes.version(plan.recipe.id, plan.recipe.version))
        throw new DomainError('http/not-found', 'There is no such version of that recipe.', [
          { path: 'recipe', message: 'is not known here' },
        ]);
      const weighingId = nanoid(12);
      workshop.addRecipeRecord({ kind: 'weighing', weighingId, ...plan }, { personId, at });
      return view(weighingId);
    },
  );
  router.write(
    'POST',
    '/api/recipe/weighings/:id/weighed',
    'So much of a tub is weighed; another tub than the ingredient’s is refused',
    z.extend(head, {
      ingredient: ingredientId,
      code: z.string().check(z.trim(), z.minLength(1, 'is missing'), z.maxLength(40)),
      massG,
      by: z._default(z.enum(['scale', 'hand']), 'hand'),
    }),
    ({ ingredient, code, massG: grams, by, ...who }, request) => {
      const state = open(request);
      const line = state.lines.find((row) => row.ingredient === ingredient);
      if (!line)
        throw new DomainError('recipe/not-in-plan', 'That is not among what is weighed here.', [
          { path: 'ingredient', message: 'is not in the plan' },
        ]);
      const pantry = new Pantry(views);
      const holding = rightTub(views, pantry, ingredient, code);
      const freeG = pantry.stockOf(ingredient).find((row) => row.holdingId === holding.id)?.freeG ?? 0;
      const said = (own: number, beside: number): string =>
        formatMassBeside(toMg(own), toMg(beside), workshop.settings.massSystem);
      if (grams > freeG + 0.0005)
        throw new DomainError(
          'ledger/short',
          `${holding.code} has ${said(freeG, grams)} free: ${said(grams, freeG)} cannot come from it. Weigh the rest from another.`,
          [{ path: 'massG', message: 'is more than there is' }],
        );
      workshop.addRecipeRecord(
        { kind: 'weighed', weighingId: state.id, ingredient, holdingId: holding.id, massG: grams, by },
        who,
      );
      return view(state.id);
    },
  );
  router.calc(
    '/api/recipe/weighings/:id/check',
    'Whether a code is a tub of an ingredient',
    z.object({
      ingredient: ingredientId,
      code: z.string().check(z.trim(), z.minLength(1, 'is missing'), z.maxLength(40)),
    }),
    ({ ingredient, code }, request) => {
      open(request);
      const holding = rightTub(views, new Pantry(views), ingredient, code);
      return { holdingId: holding.id, code: holding.code };
    },
  );
  router.write(
    'POST',
    '/api/recipe/weighings/:id/undo',
    'Take a weighing back',
    z.extend(head, { recordId: id }),
    ({ recordId, ...who }, request) => {
      const state = open(request);
      if (!state.weighed.some((row) => row.recordId === recordId))
        throw new DomainError('http/not-found', 'That weighing is taken back already.');
      workshop.addRecipeRecord({ kind: 'unweighed', weighingId: state.id, recordId }, who);
      return view(state.id);
    },
  );
  router.write(
    'POST',
    '/api/recipe/weighings/:id/replan',
    'Work out the rest again, so that the shares are kept after an overshoot',
    head,
    async (who, request) => {
      const state = open(request);
      const pantry = new Pantry(views);
      const { plan } = state;
      const machine = plan.machineId === null ? undefined : workshop.machines.get(plan.machineId);
      const answer = replan(
        {
          lines: state.lines,
          ingredients: new Map(state.lines.map(({ ingredient }) => [ingredient, pantry.row(ingredient)])),
          freeG: (ingredient) => pantry.row(ingredient).stockG,
          stepG: plan.stepG,
          bowl: plan.batchId === null ? null : bowlOf(views, plan.batchId),
          mostG: machine?.maxG ?? null,
          machine: machine?.name ?? '',
          currency: workshop.settings.currency,
          massSystem: workshop.settings.massSystem,
        },
        await linearSolver(),
      );
      const lines = answer.lines.filter(
        ({ id: of, grams }) => grams > 0 && state.lines.some(({ ingredient }) => ingredient === of),
      );
      if (lines.length === 0)
        throw new DomainError(
          'recipe/no-way',
          'Nothing that can be weighed brings it back. Take a weighing back, or use what is there as it is.',
        );
      const over = state.lines.filter((line) => line.state === 'over').map((line) => pantry.row(line.ingredient).name);
      const why =
        answer.outcome === 'met'
          ? `${over.join(', ') || 'The plan'} went over: the rest was raised with it.`
          : `${over.join(', ') || 'The plan'} went over and the rest cannot follow: ${answer.conflict.map(({ words }) => words).join('; ')}.`;
      workshop.addRecipeRecord(
        {
          kind: 'replanned',
          weighingId: state.id,
          lines: lines.map(({ id: ingredient, grams }) => ({ ingredient, grams: Number(grams.toFixed(3)) })),
          why: why.slice(0, 300),
        },
        who,
      );
      return { ...view(state.id), outcome: answer.outcome };
    },
  );
  router.write(
    'POST',
    '/api/recipe/weighings/:id/finish',
    'Charge the bowl with what was weighed',
    z.extend(head, {
      minutes: entryHead.shape.minutes,
      overrides: entryHead.shape.overrides,
      batchName: z._default(z.string().check(z.trim(), z.maxLength(120, 'is longer than 120 letters')), ''),
    }),
    ({ minutes, overrides, batchName, ...who }, request) => {
      const state = open(request);
      const { plan } = state;
      if (state.weighed.length === 0)
        throw new DomainError('recipe/nothing-weighed', 'Nothing is weighed yet.', [
          { path: 'lines', message: 'are not weighed' },
        ]);
      const kept = plan.recipe ? workshop.recipes.version(plan.recipe.id, plan.recipe.version) : undefined;
      const grams = new Map<string, number>();
      for (const { holdingId, massG: own } of state.weighed) grams.set(holdingId, (grams.get(holdingId) ?? 0) + own);
      const step = workshop.record(
        {
          kind: 'charge',
          sources: [...grams].map(([holdingId, own]) => ({ holdingId, massG: Number(own.toFixed(3)) })),
          note: '',
          ...(plan.batchId === null
            ? {
                batch: {
                  name: batchName || plan.name,
                  routeId: plan.routeId ?? '',
                  targetMicron: plan.targetMicron,
                  cocoaTargetPct: kept?.recipe.labelPct ?? null,
                  recipe: plan.recipe,
                },
              }
            : { batchId: plan.batchId }),
        },
        {
          personId: who.personId,
          machineId: plan.machineId,
          minutes,
          energyKwh: 0,
          overrides,
          ...(who.at === undefined ? {} : { at: who.at }),
        },
        undefined,
        state.id,
      );
      workshop.addRecipeRecord(
        { kind: 'weighing-ended', weighingId: state.id, stepId: step.id },
        { personId: who.personId },
      );
      if (plan.ladder && step.batchId !== null)
        workshop.addRecipeRecord(
          { kind: 'ladder-batch', ladderId: plan.ladder.id, arm: plan.ladder.arm, batchId: step.batchId },
          { personId: who.personId },
        );
      return { step: views.step(step), weighing: view(state.id) };
    },
  );
  router.write(
    'POST',
    '/api/recipe/weighings/:id/put-back',
    'Everything back into its tubs, as if not weighed',
    head,
    (who, request) => {
      const state = open(request);
      workshop.addRecipeRecord({ kind: 'weighing-ended', weighingId: state.id, stepId: null }, who);
      return view(state.id);
    },
  );
}

/** The tub of a code, if it is one of the ingredient. @throws DomainError `recipe/wrong-tub` that says what it is instead */
function rightTub(views: Views, pantry: Pantry, ingredient: string, code: string) {
  const { book } = views.workshop;
  const holding = book.byCode(code.toUpperCase()) ?? book.byCode(code);
  const { name } = pantry.row(ingredient);
  if (!holding)
    throw new DomainError('trace/unknown-code', `No tub here is called “${code}”.`, [
      { path: 'code', message: 'is not known here' },
    ]);
  if (!pantry.isOf(ingredient, holding.id))
    throw new DomainError(
      'recipe/wrong-tub',
      `Stop: ${holding.code} is ${holding.name}, not ${name}. Nothing was saved.`,
      [{ path: 'code', message: `is ${holding.name}, not ${name}` }],
    );
  return holding;
}
