import type { PantryView } from '@wunsch/core/api/recipe';
import type { ReadyMade } from '@wunsch/core/recipe/ready-made';
import type { Limit, Recipe } from '@wunsch/core/recipe/records';
import { isUnroasted, type Route } from '@wunsch/core/work/stations';

/** A recipe while it is written: what is kept, and how it is looked for. */
export interface RecipeDraft extends Omit<Recipe, 'note'> {
  note: string;
  /** Grams follow from what is wanted, or what is wanted is compared with the grams. */
  by: 'targets' | 'grams';
  /** As much as there is and fits, or so many grams. */
  sizeG: number | null;
  fromStock: boolean;
  why: string;
  /** The version it was made from; 0: none yet. */
  base: number;
}

export const draftFrom = (recipe: Recipe, base: number): RecipeDraft => ({
  ...recipe,
  by: recipe.limits.length > 0 ? 'targets' : 'grams',
  sizeG: recipe.lines.reduce((sum, { grams }) => sum + grams, 0) || null,
  fromStock: false,
  why: '',
  base,
});

export const recipeOf = (draft: RecipeDraft): Recipe => ({
  name: draft.name,
  kind: draft.kind,
  labelPct: draft.labelPct,
  routeId: draft.routeId,
  machineId: draft.machineId,
  targetMicron: draft.targetMicron,
  lines: draft.lines,
  limits: draft.limits,
  stepG: draft.stepG,
  note: draft.note,
});

export const blankLimit = (of: string): Limit => ({ of, aim: null, least: null, most: null, weight: 1 });
export const blankLine = (ingredient: string): Recipe['lines'][number] => ({
  ingredient,
  grams: 0,
  atMinutes: null,
  portions: null,
});

/** A ready-made recipe with the ingredients that are here; those that are not are named. */
export function draftOfReadyMade(
  made: ReadyMade | undefined,
  pantry: PantryView,
): { draft: RecipeDraft; missing: string[] } {
  const missing: string[] = [];
  const lines = (made?.wants ?? [{ role: 'nibs' as const, name: 'Nibs' }]).flatMap((want) => {
    const fits = pantry.rows.filter(
      (row) => row.role === want.role && (want.word === undefined || want.word.test(row.name)),
    );
    const row = fits.find(({ id }) => id === 'nibs') ?? fits.sort((a, b) => b.stockG - a.stockG)[0];
    if (row) return [blankLine(row.id)];
    missing.push(want.name);
    return [];
  });
  return {
    missing,
    draft: {
      name: '',
      kind: made?.kind ?? 'dark',
      labelPct: made?.labelPct ?? null,
      routeId: null,
      machineId: null,
      targetMicron: 20,
      lines,
      limits: made ? [...made.limits] : [],
      stepG: 1,
      note: '',
      by: made ? 'targets' : 'grams',
      sizeG: 1000,
      fromStock: false,
      why: '',
      base: 0,
    },
  };
}

/** The route a recipe goes by where it names none: an unroasted one without a roast, others the first. */
export const routeFor = (
  { routeId, kind }: Pick<Recipe, 'routeId' | 'kind'>,
  routes: readonly Route[],
): string | null =>
  routeId ?? (kind === 'unroasted' ? routes.find(isUnroasted) : undefined)?.id ?? routes[0]?.id ?? null;
