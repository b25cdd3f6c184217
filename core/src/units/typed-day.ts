import { isValid, parse } from 'date-fns';

/* Days and moments as people type them, read back as `2026-11-26` and `2026-11-26T19:05`. */

const DAY_FORMS = [
  'yyyy-MM-dd',
  'd.M.yyyy',
  'd.M.yy',
  'd.M.',
  'd.M',
  'd/M/yyyy',
  'd/M/yy',
  'd/M',
  'd MMM yyyy',
  'd MMMM yyyy',
  'd MMM',
  'd MMMM',
  'MMM d yyyy',
  'MMMM d yyyy',
  'MMM d',
  'MMMM d',
];

const WEEKDAY = /^(?:mon|tue|wed|thu|fri|sat|sun)[a-z]*\.?,?\s+/i;
const TIME = /(?:^|[\s,T]\s*)(?:(\d{1,2}):(\d{2})\s*([ap]m)?|(\d{1,2})\s*([ap]m))$/i;
const AWAY: Record<string, number> = { yesterday: -1, today: 0, tomorrow: 1 };

const two = (value: number): string => String(value).padStart(2, '0');
const isoOf = (day: Date): string => `${day.getFullYear()}-${two(day.getMonth() + 1)}-${two(day.getDate())}`;

/** The day of an ISO text at noon by this machine's clock: only its year, month and day mean anything. */
const dateOf = (iso: string): Date => {
  const [year = 0, month = 1, day = 1] = iso.slice(0, 10).split('-').map(Number);
  return new Date(year, month - 1, day, 12);
};

/**
 * A day as people type it: `26 Nov`, `26 November 2026`, `26.11.26`, `26/11`, `Thu 26 Nov 2026`, `2026-11-26`,
 * `yesterday`. The day stands before the month where both are figures; without a year it is this one.
 *
 * @param today `2026-11-26` in the workshop
 * @returns `2026-11-26`; null where it is no day of the years 1900 to 2199
 * @example readDay('3/4', '2026-11-26') // '2026-04-03'
 */
export function readDay(text: string, today: string): string | null {
  const clean = text.trim().replace(/\s+/g, ' ');
  const away = AWAY[clean.toLowerCase()];
  const here = dateOf(today);
  if (away !== undefined) return isoOf(new Date(here.getFullYear(), here.getMonth(), here.getDate() + away, 12));
  const bare = clean
    .replace(WEEKDAY, '')
    .replace(/\bsept\b/i, 'sep')
    .replace(/,/g, '')
    .replace(/(\d)(?:st|nd|rd|th)\b/i, '$1');
  for (const form of DAY_FORMS) {
    const found = parse(bare, form, here);
    if (isValid(found) && found.getFullYear() >= 1900 && found.getFullYear() < 2200) return isoOf(found);
  }
  return null;
}

/**
 * A moment as people type it: a day as `readDay` takes it and a time behind it; a time alone is today's.
 *
 * @param now `2026-11-26T19:05` by the workshop's clock
 * @returns `2026-11-26T19:05`; null where day or time cannot be read
 * @example readMoment('yesterday 7:05 pm', '2026-11-26T08:00') // '2026-11-25T19:05'
 */
export function readMoment(text: string, now: string): string | null {
  const clean = text.trim();
  const match = TIME.exec(clean);
  if (!match) return null;
  const half = (match[3] ?? match[5])?.toLowerCase();
  const said = Number(match[1] ?? match[4]);
  const minute = Number(match[2] ?? 0);
  if (half === undefined ? said > 23 : said < 1 || said > 12) return null;
  if (minute > 59) return null;
  const hour = half === undefined ? said : (said % 12) + (half === 'pm' ? 12 : 0);
  const before = clean.slice(0, match.index).trim();
  const day = before === '' ? now.slice(0, 10) : readDay(before, now.slice(0, 10));
  return day === null ? null : `${day}T${two(hour)}:${two(minute)}`;
}

const spoken = new Intl.DateTimeFormat('en-GB', { weekday: 'short', day: 'numeric', month: 'short', year: 'numeric' });

/** What was read, said back: `Thu 26 Nov 2026` or `Thu 26 Nov 2026, 19:05`; what is neither stays as it is. */
export function sayTyped(text: string): string {
  const match = /^\d{4}-\d{2}-\d{2}(?:T(\d{2}:\d{2}))?$/.exec(text);
  if (!match) return text;
  const day = spoken.format(dateOf(text)).replace(',', '');
  return match[1] === undefined ? day : `${day}, ${match[1]}`;
}
