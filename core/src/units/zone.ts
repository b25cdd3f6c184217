import { TZDate } from '@date-fns/tz';
import { dateFormat } from './formats';

const two = (value: number): string => String(value).padStart(2, '0');

/**
 * The instant that a clock on the workshop's wall means.
 *
 * @param text `2026-10-25T06:30`, seconds allowed; @param zone IANA name
 * @returns UTC ms; null where the text is no time. An hour that the clocks leap over in spring counts on from the
 *   hour before; one that comes twice in autumn is the first
 */
export function instantOf(text: string, zone: string): number | null {
  const match = /^(\d{4})-(\d{2})-(\d{2})(?:T(\d{2}):(\d{2})(?::(\d{2}))?)?$/.exec(text.trim());
  if (!match) return null;
  const [year, month, day, hour, minute, second] = match
    .slice(1)
    .map((part: string | undefined) => Number(part ?? 0)) as [number, number, number, number, number, number];
  const found = new TZDate(year, month - 1, day, hour, minute, second, zone);
  const at = found.getTime();
  const wrongDay = found.getFullYear() !== year || found.getMonth() !== month - 1 || found.getDate() !== day;
  if (Number.isNaN(at) || wrongDay || hour > 23 || minute > 59 || second > 59) return null;
  // An hour that comes twice: clocks fall back by an hour, or by half of one.
  const shown = clockText(at, zone);
  return [60, 30].map((minutes) => at - minutes * 60_000).find((first) => clockText(first, zone) === shown) ?? at;
}

/** An instant as the workshop's clock shows it: `2026-10-25T06:30`. */
export function clockText(at: number, zone: string): string {
  const local = new TZDate(at, zone);
  return `${dayText(at, zone)}T${two(local.getHours())}:${two(local.getMinutes())}`;
}

/** The day in the workshop: `2026-10-25`. */
export function dayText(at: number, zone: string): string {
  const local = new TZDate(at, zone);
  return `${local.getFullYear()}-${two(local.getMonth() + 1)}-${two(local.getDate())}`;
}

/** What the workshop's clock shows, as the ms of the same hour in UTC: an axis of UTC has its days and hours then. */
export const wallClock = (at: number, zone: string): number => at - new TZDate(at, zone).getTimezoneOffset() * 60_000;

/** UTC ms of Monday 00:00 of the week that an instant is in, in the workshop's zone. */
export function mondayOf(at: number, zone: string): number {
  const local = new TZDate(at, zone);
  const sinceMonday = (local.getDay() + 6) % 7;
  return new TZDate(local.getFullYear(), local.getMonth(), local.getDate() - sinceMonday, zone).getTime();
}

/** Minute of the day and weekday (1 is Monday) of an instant in a zone. */
export const localIn =
  (zone: string) =>
  (at: number): { minute: number; weekday: number } => {
    const local = new TZDate(at, zone);
    return { minute: 60 * local.getHours() + local.getMinutes(), weekday: local.getDay() === 0 ? 7 : local.getDay() };
  };

/** Days of a zone in words: `26 November 2026`. */
export const dayIn = (timeZone: string) => {
  const format = dateFormat({ timeZone, day: 'numeric', month: 'long', year: 'numeric' });
  return (at: number): string => format.format(at);
};
