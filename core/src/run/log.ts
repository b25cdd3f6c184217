/* A log that grows while its run goes on: readings come late, twice, for weeks. */

/** A reading at a moment, UTC ms: the values of the run's channels in their order, NaN where one is silent. */
export interface LogRow {
  at: number;
  values: readonly number[];
}

/**
 * Takes a reading into a log, oldest first: a late one takes its place in the order, one of the same moment that of the
 * other.
 */
export function takeReading(log: LogRow[], row: LogRow): void {
  const last = log.at(-1);
  if (!last || row.at > last.at) {
    log.push(row);
    return;
  }
  const place = log.findIndex(({ at }) => at >= row.at);
  log.splice(place, log[place]?.at === row.at ? 1 : 0, row);
}

/** Readings so close are of one moment, ms of the run; and so far apart they are kept then. */
const SAME_MS = 1000;
const LEAST_MS = 1;

/**
 * Adds a reading to a log that is only ever added to: one that comes within the same moment as the newest stands right
 * behind it; one that is older, because the clock of this machine was set back, is not taken.
 *
 * @param speed how much faster than the clock its run goes
 * @returns whether it was taken
 */
export function addReading(log: LogRow[], row: LogRow, speed = 1): boolean {
  const last = log.at(-1)?.at ?? -Infinity;
  if (row.at <= last - SAME_MS / speed) return false;
  log.push(row.at > last ? row : { ...row, at: last + LEAST_MS / speed });
  return true;
}

/** How readings are thinned as they age. */
export interface Thinning {
  /** What is younger is kept as it was read, ms. */
  fineMs: number;
  /** What is older is kept so often, ms. */
  everyMs: number;
}

/** A log with its newest rows as they were read, and of what is older one in so long. @param now UTC ms */
export function thinned<R extends { at: number }>(log: readonly R[], now: number, { fineMs, everyMs }: Thinning): R[] {
  let kept = -Infinity;
  return log.filter(({ at }) => {
    if (at < now - fineMs && at - kept < everyMs) return false;
    kept = at;
    return true;
  });
}

/** Whether nothing came for so long. @param lastAt when something came last, UTC ms; null: never @param since when the run began */
export const isSilent = (lastAt: number | null, since: number, now: number, longestMs: number): boolean =>
  now - Math.max(lastAt ?? since, since) > longestMs;
