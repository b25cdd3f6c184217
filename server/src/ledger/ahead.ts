import type { Follower } from '@wunsch/core/ledger/follower';

/** What can be caught up with the book before somebody asks. */
export type Ahead = Pick<Follower, 'catchUp'>;

/**
 * Works something out for each of some things, ahead of who asks first.
 *
 * @param list asked for when it begins
 * @param atOnce so many between two looks at the clock
 */
export function eachAhead<T>(list: () => Iterable<T>, atOnce: number, work: (one: T) => void): Ahead {
  let left: Iterator<T> | null = null;
  return {
    catchUp: (most = Infinity) => {
      left ??= list()[Symbol.iterator]();
      for (let done = 0; done < Math.min(most, atOnce); done += 1) {
        const next = left.next();
        if (next.done === true) return true;
        work(next.value);
      }
      return false;
    },
  };
}

/** A slice of work, ms, and the pause after it in which others get their turn. */
const SLICE_MS = 4;
const PAUSE_MS = 4;
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
