import { mark, says, type StepMarks } from '../workshop/mark';
import type { RemeltCommand, TemperCommand } from './commands';

/** A pour that was not in temper; one that was tempered again is. */
export const temperMarks: StepMarks = {
  carriesOn: true,
  speaksOf: () => 'temper',
  of: (step) =>
    (step.command as TemperCommand).test === 'failed'
      ? [mark('out-of-temper', 'failed temper', 'Its temper test failed.', step.id)]
      : [],
};

/** What was sent back to be melted, and why. */
export const remeltMarks: StepMarks = {
  carriesOn: true,
  of: (step) => {
    const { why, note } = step.command as RemeltCommand;
    const words = [why, note].filter((text) => text !== '').join(', ');
    return [
      ...(says(words, /bloom/i) ? [mark('bloom', 'bloomed', words, step.id)] : []),
      mark('remelted', 'remelted', words === '' ? 'Sent back to be melted.' : words, step.id),
    ];
  },
};
