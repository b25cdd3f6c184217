import loadHighs from 'highs';
import type { LinearSolver } from '@wunsch/core/recipe/linear';

let loading: Promise<LinearSolver> | null = null;

/** The solver, loaded when first asked. */
export const linearSolver = (): Promise<LinearSolver> => (loading ??= loadHighs() as unknown as Promise<LinearSolver>);
