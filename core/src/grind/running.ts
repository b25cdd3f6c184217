/* Stones run, stop and run again: what grinds is counted in running hours, what people do by the clock. */

const HOUR_MS = 3_600_000;

/** The stones stopped or ran again at a moment, UTC ms. */
export interface Switch {
  at: number;
  on: boolean;
}

/** A stretch in which the stones ran; one without an end runs still. */
export interface Stretch {
  from: number;
  to: number | null;
}

/**
 * When the stones ran: from the first charge on, but for the stops that were written down.
 *
 * @param endedAt when the bowl was emptied; null: it is not
 */
export function stretchesOf(startedAt: number, switches: readonly Switch[], endedAt: number | null): Stretch[] {
  const found: Stretch[] = [];
  let from: number | null = startedAt;
  for (const { at, on } of [...switches].sort((a, b) => a.at - b.at)) {
    if (at < startedAt || (endedAt !== null && at > endedAt)) continue;
    if (on && from === null) from = at;
    else if (!on && from !== null) {
      found.push({ from, to: at });
      from = null;
    }
  }
  if (from !== null) found.push({ from, to: endedAt });
  return found;
}

/** Running hours up to a moment. */
export const runningHours = (stretches: readonly Stretch[], at: number): number =>
  stretches.reduce((sum, { from, to }) => sum + Math.max(0, Math.min(to ?? at, at) - from), 0) / HOUR_MS;

/** Whether the stones run at the end of what is known. */
export const isRunning = (stretches: readonly Stretch[]): boolean => stretches.at(-1)?.to === null;

/** Hours of the day in which somebody is there, and on which days. */
export interface Attended {
  /** Minutes after midnight. */
  fromMin: number;
  toMin: number;
  /** 1 is Monday. */
  days: readonly number[];
}

/** Local minute of the day and weekday of a moment. */
export type LocalTime = (at: number) => { minute: number; weekday: number };

export const isAttended = ({ fromMin, toMin, days }: Attended, local: { minute: number; weekday: number }): boolean =>
  days.includes(local.weekday) && local.minute >= fromMin && local.minute < toMin;

const SLOT_MS = HOUR_MS / 4;
/** Beyond it nothing is planned. */
const MOST_SLOTS = 4 * 24 * 21;

/**
 * The moment at which so many running hours will be reached, if the stones go on.
 *
 * @param unattended whether they run while nobody is there; if not, they stand from the end of the day to its beginning
 * @returns null when it is further off than three weeks, or never
 */
export function momentOf(
  hours: number,
  now: { at: number; hours: number },
  unattended: boolean,
  attended: Attended,
  local: LocalTime,
): number | null {
  if (!Number.isFinite(hours)) return null;
  if (hours <= now.hours) return now.at;
  if (unattended) return now.at + (hours - now.hours) * HOUR_MS;
  let left = (hours - now.hours) * HOUR_MS;
  for (let slot = 0; slot < MOST_SLOTS; slot += 1) {
    const at = now.at + slot * SLOT_MS;
    if (!isAttended(attended, local(at))) continue;
    if (left <= SLOT_MS) return at + left;
    left -= SLOT_MS;
  }
  return null;
}

/** Running hours that will be reached at a moment to come. */
export function hoursAt(
  at: number,
  now: { at: number; hours: number },
  unattended: boolean,
  attended: Attended,
  local: LocalTime,
): number {
  if (at <= now.at) return now.hours;
  if (unattended) return now.hours + (at - now.at) / HOUR_MS;
  let sum = 0;
  for (let slot = now.at; slot < at; slot += SLOT_MS)
    if (isAttended(attended, local(slot))) sum += Math.min(SLOT_MS, at - slot);
  return now.hours + sum / HOUR_MS;
}

/** The first moment from one on at which somebody is there; the moment itself where nobody ever is. */
export function nextAttended(from: number, attended: Attended, local: LocalTime): number {
  for (let at = from; at < from + 8 * 24 * HOUR_MS; at += SLOT_MS) if (isAttended(attended, local(at))) return at;
  return from;
}

/** Full hours to come at which somebody is there, at most so many. */
export function attendedHours(now: number, attended: Attended, local: LocalTime, most: number): number[] {
  const found: number[] = [];
  const first = Math.ceil(now / HOUR_MS) * HOUR_MS;
  for (let at = first; found.length < most && at < now + 21 * 24 * HOUR_MS; at += HOUR_MS)
    if (isAttended(attended, local(at))) found.push(at);
  return found;
}
