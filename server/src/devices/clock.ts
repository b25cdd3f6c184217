import { z } from 'zod/mini';
import type { Router } from '../http/router';

const HOUR_MS = 3_600_000;
const FASTEST = 3600;

/** A workshop's clock: the machine's own, or for practice one that runs ahead. */
export interface Clock {
  now: () => number;
  /** How many times as fast as a real one. */
  speed: number;
  /** Goes on by so many hours at once; only a clock for practice can. */
  skip: ((hours: number) => void) | null;
}

/**
 * The clock that a server goes by.
 *
 * @param speed what was asked for, as `600`; empty or 1: the machine's own clock
 * @throws Error where it is no speed
 */
export function clockOf(speed: string | undefined, real: () => number = Date.now): Clock {
  if (speed === undefined || speed === '' || speed === '1') return { now: onward(real), speed: 1, skip: null };
  const times = Number(speed);
  if (!(times >= 1 && times <= FASTEST))
    throw new Error(`WUNSCH_CLOCK_SPEED is 1 to ${FASTEST} times a real clock, not “${speed}”.`);
  const began = real();
  let skipped = 0;
  return {
    now: () => Math.round(began + (real() - began) * times + skipped),
    speed: times,
    skip: (hours) => {
      skipped += hours * HOUR_MS;
    },
  };
}

/**
 * A clock that never goes back: where the machine's was set back, this one goes on at half its speed until that has
 * caught up. A roast that is followed would stand still otherwise.
 */
export function onward(real: () => number): () => number {
  let [said, seen] = [-Infinity, -Infinity];
  return () => {
    const now = real();
    said = now >= said ? now : said + Math.max(0, now - seen) / 2;
    seen = now;
    return Math.round(said);
  };
}

/** A clock for practice can be asked, and sent ahead. */
export function clockRoutes(router: Router, clock: Clock): void {
  const { skip } = clock;
  if (skip === null) return;
  const said = () => ({ now: clock.now(), speed: clock.speed });
  router.read('/api/devices/clock', 'The practice clock: its time, and how fast it runs', said);
  router.calc(
    '/api/devices/clock',
    'Send the practice clock ahead',
    z.object({ hours: z.number().check(z.minimum(0, 'cannot go back'), z.maximum(240, 'is more than ten days')) }),
    ({ hours }) => {
      skip(hours);
      return said();
    },
  );
}
