import type { Step } from './types';

/** What somebody noted at a step, with why it was done; empty where nothing was said. */
export function notedIn(step: Step): string {
  if (step.quiet === true) return '';
  const { note = '', why = '' } = (step.command ?? {}) as { note?: string; why?: string };
  return `${why} ${note}`.trim();
}
