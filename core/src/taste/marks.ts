import type { Step } from '../ledger/types';
import { mark, says, type StepMarks } from '../workshop/mark';
import type { TasteCommand } from './commands';

/** Tasters this far apart do not speak of the same bar, points of ten. */
const DISPUTED_POINTS = 3;

const commandOf = (step: Step): TasteCommand => step.command as TasteCommand;

/** What tasters wrote down, and whether they agree. */
export const tasteMarks: StepMarks = {
  of: (step) => {
    const { note } = commandOf(step);
    return [
      ...(says(note, /\bsour\b|\bacetic\b|\bvinegar/i) ? [mark('sour', 'sour', note, step.id)] : []),
      ...(says(note, /bloom/i) ? [mark('bloom', 'bloomed', note, step.id)] : []),
    ];
  },
  together: (steps) => {
    const scores = steps.map((step) => commandOf(step).score);
    const spread = scores.length > 1 ? Math.max(...scores) - Math.min(...scores) : 0;
    return spread >= DISPUTED_POINTS
      ? [mark('disputed', 'disputed', `Tasters ${spread.toFixed(1)} points apart: taste again, blind.`)]
      : [];
  },
};
