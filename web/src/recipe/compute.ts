import { wrap, type Remote } from 'comlink';
import type { PantryRow, PantryView } from '@wunsch/core/api/recipe';
import type { Choice } from '@wunsch/core/recipe/solve';
import { useApi } from '../parts/api';
import type { Kitchen } from './worker';

let remote: Remote<Kitchen> | null = null;

/** The worker, begun when first asked. */
export function kitchen(): Remote<Kitchen> {
  remote ??= wrap<Kitchen>(new Worker(new URL('./worker.ts', import.meta.url), { type: 'module' }));
  return remote;
}

export const usePantry = () => useApi('/api/recipe/pantry');

/** Rows of the pantry as the solver takes them. */
export const choicesOf = (rows: readonly PantryRow[], fromStock: boolean): Choice[] =>
  rows.map((ingredient) => ({ ingredient, stockG: fromStock ? ingredient.stockG : null }));

/** Rows of some ids, in that order; those that are gone are left out. */
export const rowsOf = (pantry: PantryView, ids: readonly string[]): PantryRow[] =>
  ids.flatMap((id) => pantry.rows.find((row) => row.id === id) ?? []);
