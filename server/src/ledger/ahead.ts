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

/** A slice of work and the pause after it in which others get their turn, ms; steps after which the clock is looked at. */
interface Pace {
  sliceMs: number;
  pauseMs: number;
  steps: number;
}
const ALONE: Pace = { sliceMs: 4, pauseMs: 4, steps: 32 };
/** Whoever asks something now is hardly to notice it. */
const BESIDE: Pace = { sliceMs: 1, pauseMs: 5, steps: 6 };
/** So long after it was last asked for something nobody asks, ms. */
const QUIET_MS = 50;

/** @returns whether it is done within its slice */
function followsFor({ sliceMs, steps }: Pace, follower: Ahead): boolean {
  const until = performance.now() + sliceMs;
  while (!follower.catchUp(steps)) if (performance.now() > until) return false;
  return true;
}

/**
 * Takes in what was entered before the start while nobody waits for it, a few milliseconds at a time, so that who looks
 * first does not wait. What is asked for meanwhile is made at once, as it always was.
 *
 * @param quietMs since when nobody has asked for anything, ms
 * @returns stop
 */
export function workAhead(
  followers: readonly Ahead[],
  log: (error: unknown) => void,
  quietMs: () => number = () => Infinity,
): () => void {
  const left = [...followers];
  let timer: NodeJS.Timeout | null = null;
  const slice = (): void => {
    const pace = quietMs() < QUIET_MS ? BESIDE : ALONE;
    try {
      if (left[0] && followsFor(pace, left[0])) left.shift();
    } catch (error) {
      left.shift();
      log(error);
    }
    timer = left.length > 0 ? setTimeout(slice, pace.pauseMs).unref() : null;
  };
  timer = setTimeout(slice, ALONE.pauseMs).unref();
  return () => {
    if (timer) clearTimeout(timer);
  };
}
