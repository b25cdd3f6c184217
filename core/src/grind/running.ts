/* Stones run, stop and run again: what grinds is counted in running hours, what people do by the clock. */

const HOUR_MS = 3_600_000;

/** What happens to a bowl: the stones stop or run, are lifted or let down, or it goes into another machine. */
export type RunEvent = { at: number } & (
  | { what: 'stop' | 'run' | 'up' | 'down' }
  /** @property conches it keeps the mass warm and moving, and grinds nothing */
  | { what: 'into'; machineId: string; conches: boolean }
);

/** A stretch in which something went on, UTC ms; one without an end goes on still. */
export interface Stretch {
  from: number;
  to: number | null;
}

/** How a bowl stands. */
export interface RunState {
  running: boolean;
  /** The stones are lifted: the mass is moved, nothing is ground. */
  lifted: boolean;
  /** It is in a conche. */
  conches: boolean;
  machineId: string | null;
}

/** A bowl's life: how it stood from when to when. */
export type Life = (Stretch & RunState)[];

/**
 * How a bowl stood from its first charge on.
 *
 * @param first the machine it began in; @param endedAt when the bowl was emptied; null: it is not
 */
export function lifeOf(
  startedAt: number,
  events: readonly RunEvent[],
  endedAt: number | null,
  first: { machineId: string | null; conches: boolean } = { machineId: null, conches: false },
): Life {
  let now: RunState = { running: true, lifted: false, ...first };
  let from = startedAt;
  const found: Life = [];
  for (const event of [...events].sort((a, b) => a.at - b.at)) {
    if (event.at < startedAt || (endedAt !== null && event.at > endedAt)) continue;
    const next = after(now, event);
    if (event.at > from) found.push({ ...now, from, to: event.at });
    [now, from] = [next, event.at];
  }
  found.push({ ...now, from, to: endedAt });
  return found;
}

function after(now: RunState, event: RunEvent): RunState {
  switch (event.what) {
    case 'stop':
      return { ...now, running: false };
    case 'run':
      return { ...now, running: true };
    case 'up':
      return { ...now, lifted: true };
    case 'down':
      return { ...now, lifted: false };
    case 'into':
      // Whoever moves a mass on starts the machine it goes into.
      return { running: true, lifted: false, conches: event.conches, machineId: event.machineId };
  }
}

/** Stretches of a life, those next to each other as one. */
function stretchesWhere(life: Life, is: (state: RunState) => boolean): Stretch[] {
  const found: Stretch[] = [];
  for (const row of life) {
    if (!is(row)) continue;
    const last = found.at(-1);
    if (last && last.to === row.from) last.to = row.to;
    else found.push({ from: row.from, to: row.to });
  }
  return found;
}

/** When the stones ground it. */
export const grinding = (life: Life): Stretch[] =>
  stretchesWhere(life, ({ running, lifted, conches }) => running && !lifted && !conches);

/** When the mass was moved: ground, or only conched. */
export const moving = (life: Life): Stretch[] => stretchesWhere(life, ({ running }) => running);

/** When it kept a machine running. */
export const runningIn = (life: Life, machineId: string): Stretch[] =>
  stretchesWhere(life, (state) => state.running && state.machineId === machineId);

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
