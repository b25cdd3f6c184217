import type {
  BowlView,
  LadderView,
  RecipeBatch,
  RecipeRow,
  RecipeVersionView,
  RecipeView,
  WeighingView,
} from '@wunsch/core/api/recipe';
import type { CommandOf } from '@wunsch/core/commands';
import { changesBetween, lineChanges } from '@wunsch/core/recipe/compare';
import { judgeLabel } from '@wunsch/core/recipe/correct';
import { figuresOfLines, type Line } from '@wunsch/core/recipe/ingredient';
import type { Recipe } from '@wunsch/core/recipe/records';
import type { WeighingState } from '@wunsch/core/recipe/weighing';
import { byBatch } from '../ledger/by-batch';
import type { Views } from '../ledger/views';
import type { KeptRecipe } from '@wunsch/core/recipe/book';
import { bowlOf, Pantry } from './pantry';

export const linesOf = (
  pantry: Pantry,
  rows: readonly { ingredient: string; grams: number }[],
  path = 'lines',
): Line[] =>
  rows.map(({ ingredient, grams }, index) => ({
    ingredient: pantry.row(ingredient, `${path}.${index}.ingredient`),
    grams,
  }));

/** Lines of a recipe whose lots or ingredients may be gone since: those that are not known any more are left out. */
function knownLines(pantry: Pantry, rows: Recipe['lines']): Line[] {
  return rows.flatMap(({ ingredient, grams }) => {
    try {
      return [{ ingredient: pantry.row(ingredient), grams }];
    } catch {
      return [];
    }
  });
}

const scoresOf = byBatch((views, batchId): readonly number[] =>
  views
    .stepsOfBatch(batchId)
    .filter(({ kind }) => kind === 'taste')
    .map(({ command }) => (command as CommandOf<'taste'>).score),
);

const mean = (values: readonly number[]): number | null =>
  values.length === 0 ? null : values.reduce((total, value) => total + value, 0) / values.length;

export function recipeBatch(views: Views, batchId: string): RecipeBatch | null {
  const { workshop } = views;
  const batch = workshop.batches.get(batchId);
  const first = workshop.book.firstEntry(batchId);
  if (!batch || !first) return null;
  const composition = views.cocoa(batchId);
  const scores = scoresOf(views, batchId);
  const said = /(\d{2,3}(?:[.,]\d)?)\s*%/.exec(batch.name);
  return {
    id: batchId,
    code: batch.code,
    name: batch.name,
    startedAt: first.at,
    calledPct: batch.cocoaTargetPct ?? (said?.[1] ? Number(said[1].replace(',', '.')) : null),
    cocoaPct: composition.cocoaPct,
    withoutButterPct: composition.withoutButterPct,
    flow: composition.figures.flow,
    perKgMilli: workshop.valuation.perKgMilli(batchId),
    score: mean(scores),
    scores: scores.length,
  };
}

function batchesOf(views: Views, recipeId: string, version?: number): RecipeBatch[] {
  return [...views.workshop.batches.values()]
    .filter(({ recipe }) => recipe?.id === recipeId && (version === undefined || recipe.version === version))
    .flatMap(({ id }) => recipeBatch(views, id) ?? [])
    .sort((a, b) => a.startedAt - b.startedAt);
}

export function recipeRows(views: Views): RecipeRow[] {
  const pantry = new Pantry(views);
  return views.workshop.recipes
    .all()
    .map(({ id, versions, shelved }): RecipeRow => {
      const newest = versions.at(-1);
      if (!newest) throw new Error(`recipe ${id} without a version`);
      const figures = figuresOfLines(knownLines(pantry, newest.recipe.lines));
      const batches = batchesOf(views, id);
      return {
        id,
        name: newest.recipe.name,
        kind: newest.recipe.kind,
        version: newest.version,
        labelPct: newest.recipe.labelPct,
        cocoaPct: figures.cocoaPct,
        withoutButterPct: figures.withoutButterPct,
        shelved,
        batches: batches.length,
        lastAt: batches.at(-1)?.startedAt ?? null,
        score: mean(batches.flatMap(({ score }) => score ?? [])),
        at: newest.record.at,
      };
    })
    .sort((a, b) => (b.lastAt ?? b.at) - (a.lastAt ?? a.at));
}

export function recipeView(views: Views, { id, versions, shelved }: KeptRecipe): RecipeView {
  const pantry = new Pantry(views);
  const { settings } = views.workshop;
  const read = versions.map((row) => ({ ...row, lines: knownLines(pantry, row.recipe.lines) }));
  return {
    id,
    shelved,
    versions: read
      .map((row, index): RecipeVersionView => {
        const before = read[index - 1];
        const figures = figuresOfLines(row.lines);
        return {
          version: row.version,
          at: row.record.at,
          person: views.person(row.record.personId),
          why: row.why,
          recipe: row.recipe,
          figures,
          changes: before ? lineChanges(before.lines, row.lines) : [],
          effects: before ? changesBetween(figuresOfLines(before.lines), figures, settings) : [],
          batches: batchesOf(views, id, row.version),
        };
      })
      .reverse(),
    ladders: views.workshop.recipes.laddersOf(id).map(({ value }) => ladderView(views, value.ladderId, pantry)),
  };
}

export function ladderView(views: Views, ladderId: string, pantry = new Pantry(views)): LadderView {
  const { workshop } = views;
  const { value, at, personId } = workshop.recipes.ladder(ladderId);
  const made = workshop.recipes.batchesOfLadder(ladderId);
  const arms = value.arms.map((arm, index) => {
    const batchId = made.filter((row) => row.value.arm === index).at(-1)?.value.batchId;
    return {
      name: arm.name,
      machineId: arm.machineId,
      machine: arm.machineId === null ? null : (workshop.machines.get(arm.machineId)?.name ?? null),
      lines: arm.lines.map(({ ingredient, grams }) => ({ ingredient, grams, name: pantry.row(ingredient).name })),
      figures: figuresOfLines(linesOf(pantry, arm.lines)),
      batch: batchId === undefined ? null : recipeBatch(views, batchId),
    };
  });
  return {
    id: ladderId,
    name: value.name,
    what: value.what,
    at,
    person: views.person(personId),
    arms,
    sentence: ladderWords(arms),
  };
}

/** What a ladder says so far: who leads, and how little a few palates know. */
function ladderWords(arms: LadderView['arms']): string {
  const begun = arms.filter(({ batch }) => batch !== null);
  if (begun.length < arms.length) return `${begun.length} of ${arms.length} are on the stones or made.`;
  const scored = arms.filter(({ batch }) => (batch?.scores ?? 0) > 0);
  if (scored.length < arms.length)
    return `All are made; ${scored.length} of ${arms.length} are tasted. Taste them side by side, blind.`;
  const [best, next] = [...scored].sort((a, b) => (b.batch?.score ?? 0) - (a.batch?.score ?? 0));
  const gap = (best?.batch?.score ?? 0) - (next?.batch?.score ?? 0);
  const least = Math.min(...scored.map(({ batch }) => batch?.scores ?? 0));
  const sure =
    least >= 4 && gap >= 1 ? '' : ' That is close: more palates, or taste again on another day, before it decides.';
  return `“${best?.name ?? ''}” leads with ${best?.batch?.score?.toFixed(1)} of 10, ${gap.toFixed(1)} before “${next?.name ?? ''}”.${sure}`;
}

/** What a bowl is now, and whether its label still may say what it says. */
export function bowlView(views: Views, named: string): BowlView {
  const { workshop } = views;
  const batchId = workshop.batches.has(named) ? named : (workshop.book.byCode(named)?.id ?? named);
  const { ingredient, grams } = bowlOf(views, batchId);
  const batch = workshop.batches.get(batchId);
  if (!batch) throw new Error(`no batch ${batchId}`);
  const machineId = views.machineOf(batchId);
  const machine = machineId === null ? undefined : workshop.machines.get(machineId);
  const kept = batch.recipe ? workshop.recipes.version(batch.recipe.id, batch.recipe.version) : undefined;
  const called = recipeBatch(views, batchId)?.calledPct ?? null;
  const labelPct = kept?.recipe.labelPct ?? called;
  const composition = views.cocoa(batchId);
  const cacao = composition.parts.reduce((sum, part) => (part.kind === 'cacao' ? sum + part.share : sum), 0);
  return {
    batchId,
    code: batch.code,
    name: batch.name,
    bowl: { ingredient, grams, minG: machine?.minG ?? null, maxG: machine?.maxG ?? null, machine: machine?.name ?? '' },
    figures: figuresOfLines([{ ingredient, grams }]),
    labelPct,
    label: labelPct === null ? null : judgeLabel(labelPct, composition.cocoaPct),
    origin: views.origin(batchId),
    recipe: batch.recipe ? { ...batch.recipe, name: kept?.recipe.name ?? '' } : null,
    carriedOver: workshop.compositions.carriedOver(batchId),
    cacaoG: cacao * grams,
  };
}

export function weighingView(views: Views, state: WeighingState): WeighingView {
  const { workshop } = views;
  const pantry = new Pantry(views);
  const { plan } = state;
  const base = plan.batchId === null ? [] : bowlLines(views, plan.batchId);
  const kept = plan.recipe ? workshop.recipes.version(plan.recipe.id, plan.recipe.version) : undefined;
  const step = state.stepId === null ? undefined : workshop.book.steps.get(state.stepId);
  const as = (grams: (line: WeighingState['lines'][number]) => number): Line[] => [
    ...base,
    ...state.lines.map((line) => ({ ingredient: pantry.row(line.ingredient), grams: grams(line) })),
  ];
  const batch = plan.batchId === null ? undefined : workshop.batches.get(plan.batchId);
  return {
    id: state.id,
    name: plan.name,
    recipe: plan.recipe ? { ...plan.recipe, name: kept?.recipe.name ?? '' } : null,
    batchCode: batch?.code ?? null,
    machine: plan.machineId === null ? null : (workshop.machines.get(plan.machineId)?.name ?? null),
    person: views.person(state.personId),
    startedAt: state.startedAt,
    endedAt: state.endedAt,
    stepId: state.stepId,
    stepBatchCode: step?.batchId == null ? null : (workshop.batches.get(step.batchId)?.code ?? null),
    stepG: plan.stepG,
    lines: state.lines.map((line) => {
      const { name, allergens } = pantry.row(line.ingredient);
      return {
        ...line,
        name,
        allergens,
        stock: pantry.stockOf(line.ingredient),
        weighed: state.weighed
          .filter(({ ingredient }) => ingredient === line.ingredient)
          .map(({ recordId, holdingId, massG, by, personId, at }) => ({
            recordId,
            code: workshop.book.holding(holdingId).code,
            massG,
            by,
            person: views.person(personId),
            at,
          })),
      };
    }),
    plannedG: state.lines.reduce((sum, { plannedG }) => sum + plannedG, 0),
    weighedG: state.lines.reduce((sum, { weighedG }) => sum + weighedG, 0),
    figures: figuresOfLines(as(({ weighedG }) => weighedG)),
    planned: figuresOfLines(as(({ plannedG, weighedG }) => Math.max(plannedG, weighedG))),
    labelPct: kept?.recipe.labelPct ?? null,
    replanned: state.replanned,
  };
}

function bowlLines(views: Views, batchId: string): Line[] {
  return views.workshop.book.balance(batchId).massMg > 0 ? [bowlOf(views, batchId)] : [];
}
