import { mark, type Mark, type StepMarks } from '../workshop/mark';
import type { DischargeCommand } from './commands';
import type { ReadingCommand } from './reading-command';

/** Under it mass turns gummy, µm; and this far under its own target a batch has run over. */
const GUMMY_MICRON = 12;
const OVER_SHARE = 0.75;
/** A sourness noted at the stones that is felt in the bar, of ten. */
const SOUR = 6;

function overRun(micron: number | null, targetMicron: number | null, stepId: string): Mark[] {
  const least = Math.max(GUMMY_MICRON, (targetMicron ?? 0) * OVER_SHARE);
  if (micron === null || micron >= least) return [];
  const meant = targetMicron === null ? '' : `, ${targetMicron} µm were meant`;
  return [mark('over-run', 'over-run', `${micron} µm${meant}.`, stepId)];
}

/** What was read or seen of mass, blocks and bars. */
export const readingMarks: StepMarks = {
  speaksOf: (step) => (step.command as ReadingCommand).what,
  of: (step, targetMicron) => {
    const { what, value, seen = [], bloom } = step.command as ReadingCommand;
    if (what === 'sourness' && (value ?? 0) >= SOUR)
      return [mark('sour', 'sour', `Sourness ${value} of 10 at the stones.`, step.id)];
    if (what === 'seen' && (bloom != null || seen.includes('veil'))) {
      const why =
        bloom == null ? 'A grey veil is seen on it.' : `${bloom === 'fat' ? 'Fat' : 'Sugar'} bloom is seen on it.`;
      return [mark('bloom', 'bloomed', why, step.id)];
    }
    return what === 'micron' ? overRun(value, targetMicron, step.id) : [];
  },
};

/** How fine it was when it came out of the bowl. */
export const dischargeMarks: StepMarks = {
  of: (step, targetMicron) => overRun((step.command as DischargeCommand).micron, targetMicron, step.id),
};
