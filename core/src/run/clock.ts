/** The clock of a run that goes on: when it began, how fast it runs, when it was stopped. */
export interface RunClock {
  startedAt: number;
  /** Seconds of the run in a second of the clock: 1, or more with a simulated probe. */
  speed: number;
  /** Seconds at which it was stopped; null: it goes on. */
  seconds: number | null;
}

/** Seconds since a run began. @param now UTC ms */
export const elapsedS = ({ startedAt, speed, seconds }: RunClock, now: number): number =>
  seconds ?? Math.max(0, ((now - startedAt) / 1000) * speed);

/** The moment of a run's second, UTC ms. */
export const momentOfS = ({ startedAt, speed }: Pick<RunClock, 'startedAt' | 'speed'>, second: number): number =>
  startedAt + (1000 * second) / speed;
