import type { Follower } from '@wunsch/core/ledger/follower';

/** What can be caught up with the book before somebody asks. */
type Ahead = Pick<Follower, 'catchUp'>;

/** A slice of work, ms, and the pause after it in which others get their turn. */
const SLICE_MS = 4;
const PAUSE_MS = 8;
/** Steps after which the clock is looked at. */
const LOOKS = 32;

/** @returns whether it is done by a moment of the machine's clock */
function followsUntil(until: number, follower: Ahead): boolean {
  while (!follower.catchUp(LOOKS)) if (performance.now() > until) return false;
  return true;
}

/**
 * Takes in what was entered before the start while nobody waits for it, a few milliseconds at a time, so that who looks
 * first does not wait. What is asked for meanwhile is made at once, as it always was.
 *
 * @returns stop
 */
export function workAhead(followers: readonly Ahead[], log: (error: unknown) => void): () => void {
  const left = [...followers];
  let timer: NodeJS.Timeout | null = null;
  const slice = (): void => {
    try {
      if (left[0] && followsUntil(performance.now() + SLICE_MS, left[0])) left.shift();
    } catch (error) {
      left.shift();
      log(error);
    }
    timer = left.length > 0 ? setTimeout(slice, PAUSE_MS).unref() : null;
  };
  timer = setTimeout(slice, PAUSE_MS).unref();
  return () => {
    if (timer) clearTimeout(timer);
  };
}
