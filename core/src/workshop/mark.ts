import type { Step } from '../ledger/types';

/** Something that one has to know who looks at goods: it stands beside their code everywhere. */
export interface Mark {
  id:
    | 'hold'
    | 'blocked'
    | 'claim'
    | 'refused'
    | 'out-of-temper'
    | 'bloom'
    | 'sour'
    | 'disputed'
    | 'over-run'
    | 'remelted'
    | 'override';
  /** One or two words. */
  label: string;
  /** What it rests on, with the words of who said it. */
  why: string;
  stepId: string | null;
}

export const mark = (id: Mark['id'], label: string, why: string, stepId: string | null = null): Mark => ({
  id,
  label,
  why,
  stepId,
});

/** How steps of one kind mark what they are about. */
export interface StepMarks {
  /** @param targetMicron of the batch, where there is one */
  of: (step: Step, targetMicron: number | null) => Mark[];
  /** What the step speaks of: a later one of the same takes it back. Left out: it stays. */
  speaksOf?: (step: Step) => string;
  /** Whether all that is made from it carries the mark on, whatever batch it becomes. */
  carriesOn?: boolean;
  /** What steps of this kind mark something with all together. */
  together?: (steps: readonly Step[]) => Mark[];
}

/** Whether words say something, and do not say that it is not so. @example says('no bloom yet', /bloom/i) // false */
export const says = (text: string, word: RegExp): boolean =>
  word.test(text) && !new RegExp(`\\b(no|not|never|without|less|nothing)\\b[^.,;]{0,12}${word.source}`, 'i').test(text);
