/* Somebody is there at some hours of some days: what may not run alone stands in between. */

const HOUR_MS = 3_600_000;

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

/** The last moment up to one, and not before another, at which somebody is there; null: nobody is in between. */
export function lastAttended(until: number, notBefore: number, attended: Attended, local: LocalTime): number | null {
  for (let at = until; at >= notBefore; at -= SLOT_MS) if (isAttended(attended, local(at))) return at;
  return null;
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
