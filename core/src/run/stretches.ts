/* A run goes on, stands still and goes on again: what wears or works by running is counted in running hours. */

const HOUR_MS = 3_600_000;

/** A stretch in which something went on, UTC ms; one without an end goes on still. */
export interface Stretch {
  from: number;
  to: number | null;
}

/** The moment at which so many running hours were reached; null: they are not yet. */
export function momentReached(stretches: readonly Stretch[], hours: number, now: number): number | null {
  let left = hours * HOUR_MS;
  for (const { from, to } of stretches) {
    const length = Math.max(0, (to ?? now) - from);
    if (left <= length) return from + left;
    left -= length;
  }
  return null;
}

/** Running hours up to a moment. */
export const runningHours = (stretches: readonly Stretch[], at: number): number =>
  stretches.reduce((sum, { from, to }) => sum + Math.max(0, Math.min(to ?? at, at) - from), 0) / HOUR_MS;

/** Whether it runs at the end of what is known. */
export const isRunning = (stretches: readonly Stretch[]): boolean => stretches.at(-1)?.to === null;
