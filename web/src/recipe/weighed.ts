import { useMemo } from 'react';
import type { PantryView } from '@wunsch/core/api/recipe';
import type { Line } from '@wunsch/core/recipe/ingredient';
import { limit as limitSchema } from '@wunsch/core/recipe/records';
import type { Answer, Question } from '@wunsch/core/recipe/solve';
import { useWorked } from '../parts/worked';
import { useHere } from '../parts/workshop';
import { choicesOf, kitchen, rowsOf } from './compute';
import type { RecipeDraft } from './draft';

/** What one of the limits cannot mean, by its place. */
export function limitProblems(limits: RecipeDraft['limits']): Record<string, string> {
  return Object.fromEntries(
    limits.flatMap((row, index) => {
      const issue = limitSchema.safeParse(row).error?.issues[0];
      return issue ? [[`limits.${index}`, issue.message]] : [];
    }),
  );
}

/** What a draft weighs: as the solver says, or as typed. */
export interface Weighed {
  lines: Line[];
  answer: Answer | null;
  /** The answer is to what was asked before the newest change. */
  pending: boolean;
}

/**
 * Grams of a draft, worked out in the worker while it is changed.
 *
 * @param asKept nothing was changed: the grams are those of the version that was saved
 */
export function useWeighed(draft: RecipeDraft, pantry: PantryView, asKept: boolean): Weighed {
  const { view } = useHere();
  const machine = view.machines.find(({ id }) => id === draft.machineId);
  const rows = rowsOf(
    pantry,
    draft.lines.map(({ ingredient }) => ingredient),
  );
  const readable = Object.keys(limitProblems(draft.limits)).length === 0;
  const bounded = draft.sizeG !== null || machine?.maxG != null || draft.fromStock;
  const question: Question | null =
    draft.by === 'targets' && !asKept && rows.length > 0 && readable && bounded
      ? {
          choices: choicesOf(rows, draft.fromStock),
          limits: draft.limits,
          leastG: machine?.minG ?? null,
          mostG: machine?.maxG ?? null,
          machine: machine?.name ?? '',
          size: draft.sizeG === null ? 'most' : { grams: draft.sizeG },
          stepG: draft.stepG,
          currency: view.settings.currency,
          massSystem: view.settings.massSystem,
        }
      : null;
  const key = question === null ? null : JSON.stringify([question, rows.map(({ perKgMilli }) => perKgMilli)]);
  const worked = useWorked(
    key,
    async () => ({ key, answer: question === null ? null : await kitchen().solve(question) }),
    'recipe-solve',
  );
  const answer = question === null ? null : (worked?.answer ?? null);
  return useMemo(() => {
    const typed = new Map(draft.lines.map(({ ingredient, grams }) => [ingredient, grams]));
    const solved = new Map((answer?.lines ?? []).map(({ id, grams }) => [id, grams]));
    return {
      lines: rows.map((ingredient) => ({
        ingredient,
        grams:
          (question === null ? typed.get(ingredient.id) : solved.get(ingredient.id)) ?? typed.get(ingredient.id) ?? 0,
      })),
      answer,
      pending: question !== null && worked?.key !== key,
    };
    // `key` says all that the rows and the answer depend on.
    // oxlint-disable-next-line react/exhaustive-deps
  }, [answer, key, draft.lines, draft.by, pantry]);
}
