import { DomainError } from '../errors/domain-error';
import { celsiusFrom, type TemperatureUnit } from '../units/temperature';
import { curveOf, type Curve } from './curve';
import { gapsOf, type Span } from '../run/gaps';

/** What a column of a logger's file is. */
export const COLUMN_ROLES = ['time', 'bean', 'air', 'none'] as const;
export type ColumnRole = (typeof COLUMN_ROLES)[number];
export const TIME_FORMS = ['seconds', 'minutes', 'milliseconds', 'clock', 'elapsed', 'date'] as const;
export type TimeForm = (typeof TIME_FORMS)[number];

export interface CurveMapping {
  roles: ColumnRole[];
  time: TimeForm;
  unit: TemperatureUnit;
}

/** What the maker says instead of what was recognised. */
export type CurveWish = { [K in keyof CurveMapping]?: CurveMapping[K] | undefined };

export interface BadRow {
  /** Line of the file, from 1. */
  line: number;
  what: string;
}

export interface CurvePreview {
  columns: { name: string; samples: string[] }[];
  mapping: CurveMapping;
  /** Why the unit was taken to be so. */
  unitWhy: string;
  rows: number;
  bad: BadRow[];
  badCount: number;
  gaps: Span[];
  curve: Curve;
  /** Clock or date of the first reading as written; null for plain seconds. */
  startsAt: string | null;
}

const NUMBER = /^[-+]?(?:\d+(?:[.,]\d*)?|[.,]\d+)(?:e[-+]?\d+)?\s*(?:°?\s*[CF])?$/i;
/** What most cells are. */
const PLAIN = /^-?\d+(?:\.\d+)?$/;
const DATE = /^\d{4}-\d{2}-\d{2}[T ]\d{2}:\d{2}/;
const CLOCK = /^(\d{1,3}):(\d{2})(?::(\d{2}(?:[.,]\d+)?))?\s*([ap]\.?m\.?)?$/i;
const DAY_S = 86_400;
const MOST_BAD = 50;

const HEADINGS: [ColumnRole, RegExp][] = [
  ['time', /^(?:time|t|date|datetime|timestamp|clock|elapsed|seconds?|secs?|s|minutes?|mins?|ms|zeit|tiempo|temps)\b/i],
  ['air', /\b(?:air|oven|exhaust|chamber|ambient|environment|environmental|inlet|outlet|ofen|luft|horno|four)\b/i],
  ['bean', /\b(?:beans?|product|mass|core|load|bohnen?|granos?|fèves?)\b/i],
];
const SECOND_PROBE = /(?:probe|channel|ch|temp(?:erature)?|sensor|t|tc)[\s_.-]*#?([12])\b/i;

/** A temperature or a plain number; NaN for an empty cell, null for one that cannot be read. */
export function readCell(text: string): number | null {
  if (PLAIN.test(text)) return Number(text);
  const clean = text.trim();
  if (clean === '' || /^(?:nan|null|n\/a|-+|err(?:or)?|open|ol)$/i.test(clean)) return NaN;
  if (!NUMBER.test(clean)) return null;
  return Number(clean.replace(/\s*°?\s*[CF]$/i, '').replace(',', '.'));
}

const isTime = (text: string): boolean => DATE.test(text.trim()) || CLOCK.test(text.trim());

/** Where the table begins: the first row with two cells that read as figures or times. */
function firstRow(rows: readonly (readonly string[])[]): number {
  return rows.findIndex((row) => {
    const figures = row.filter((cell) => isTime(cell) || Number.isFinite(readCell(cell) ?? NaN));
    return figures.length >= 2;
  });
}

/**
 * Recognises columns, units and time of a logger's table and reads it.
 *
 * Bad rows are named, not guessed at. A time that jumps back over midnight goes on into the next day.
 *
 * @param rows cells as they stand in the file, line by line
 * @param wanted what the maker says instead of what was recognised
 * @throws DomainError `roast/no-table`, `roast/no-time`, `roast/no-temperature`, `roast/no-readings`
 */
export function readCurveTable(rows: readonly (readonly string[])[], wanted: CurveWish = {}): CurvePreview {
  const start = firstRow(rows);
  const first = rows[start];
  if (!first) {
    throw new DomainError('roast/no-table', 'No table of readings was found: no line has a time and a temperature.');
  }
  const width = first.length;
  const above = rows.slice(0, start).findLast((row) => row.some((cell) => cell.trim() !== ''));
  const headed = above !== undefined && above.length === width && above.some((cell) => /[a-z]/i.test(cell));
  const names = Array.from({ length: width }, (_, i) => (headed ? (above[i] ?? '').trim() : '') || `Column ${i + 1}`);
  const body = rows.slice(start);
  const roles = (wanted.roles?.length === width ? wanted.roles : undefined) ?? recognise(names, body, headed);
  const at = { time: roles.indexOf('time'), bean: roles.indexOf('bean'), air: roles.indexOf('air') };
  if (at.time < 0) throw new DomainError('roast/no-time', 'Say which column is the time.');
  if (at.bean < 0 && at.air < 0)
    throw new DomainError('roast/no-temperature', 'Say which column is the bean or the air temperature.');
  const time =
    wanted.time ??
    timeForm(
      names[at.time] ?? '',
      body.map((row) => row[at.time] ?? ''),
    );
  const guess = unitOf(names, roles, body);
  const unit = wanted.unit ?? guess.unit;
  const { readings, bad } = readRows(body, start, width, at, time, unit);
  if (readings.length < 2)
    throw new DomainError(
      'roast/no-readings',
      `Fewer than two rows could be read${bad[0] ? `; the first that could not is line ${bad[0].line}: ${bad[0].what}` : ''}.`,
    );
  const zero = readings[0]?.[0] ?? 0;
  const curve = curveOf(
    readings.map(([second, beanC, airC]) => [Math.round((second - zero) * 100) / 100, beanC, airC]),
  );
  return {
    columns: names.map((name, i) => ({ name, samples: body.slice(0, 3).map((row) => row[i] ?? '') })),
    mapping: { roles: [...roles], time, unit },
    unitWhy: wanted.unit === undefined ? guess.why : 'as you said',
    rows: readings.length,
    bad: bad.slice(0, MOST_BAD),
    badCount: bad.length,
    gaps: at.bean < 0 ? gapsOf(curve.seconds, curve.airC) : gapsOf(curve.seconds, curve.beanC),
    curve,
    startsAt: time === 'clock' || time === 'date' ? (body[0]?.[at.time] ?? '').trim() : null,
  };
}

function recognise(names: readonly string[], body: readonly (readonly string[])[], headed: boolean): ColumnRole[] {
  const roles: ColumnRole[] = names.map(() => 'none');
  const take = (index: number, role: ColumnRole): void => {
    if (index >= 0 && roles[index] === 'none' && !roles.includes(role)) roles[index] = role;
  };
  if (headed)
    for (const [role, words] of HEADINGS)
      take(
        names.findIndex((name, i) => roles[i] === 'none' && words.test(name)),
        role,
      );
  take(
    names.findIndex((_, i) => body.slice(0, 5).some((row) => isTime(row[i] ?? ''))),
    'time',
  );
  if (headed) {
    take(
      names.findIndex((name) => SECOND_PROBE.exec(name)?.[1] === '1'),
      'bean',
    );
    take(
      names.findIndex((name) => SECOND_PROBE.exec(name)?.[1] === '2'),
      'air',
    );
  }
  const figures = names.map((_, i) => body.slice(0, 50).every((row) => readCell(row[i] ?? '') !== null));
  const spare = (): number => roles.findIndex((role, i) => role === 'none' && (figures[i] ?? false));
  if (!roles.includes('time')) take(spare(), 'time');
  if (!roles.includes('bean')) take(spare(), 'bean');
  if (!headed && !roles.includes('air')) take(spare(), 'air');
  return roles;
}

function timeForm(name: string, cells: readonly string[]): TimeForm {
  const some = cells
    .slice(0, 200)
    .map((cell) => cell.trim())
    .filter((cell) => cell !== '');
  if (some.some((cell) => DATE.test(cell))) return 'date';
  const clocks = some.map((cell) => CLOCK.exec(cell)).filter((match) => match !== null);
  if (clocks.length > some.length / 2) {
    // Minutes and seconds begin near nothing; a clock does not.
    const [head] = clocks;
    const early = head?.[3] === undefined ? Number(head?.[1]) < 3 : Number(head[1]) === 0 && Number(head[2]) < 3;
    return early && head?.[4] === undefined ? 'elapsed' : 'clock';
  }
  if (/\bms\b|milli/i.test(name)) return 'milliseconds';
  if (/\bmin/i.test(name)) return 'minutes';
  const values = some.map((cell) => readCell(cell) ?? NaN).filter((value) => Number.isFinite(value));
  return (values[0] ?? 0) > 1e11 ? 'milliseconds' : 'seconds';
}

/** Seconds of one cell; null when it cannot be read. */
function secondsOf(cell: string, form: TimeForm): number | null {
  const text = cell.trim();
  if (form === 'date') {
    const iso = text.replace(' ', 'T').replace(/(\.\d{3})\d+/, '$1');
    // Without a zone both ends are read alike, so the difference is right.
    const at = Date.parse(/[zZ]$|[+-]\d{2}:?\d{2}$/.test(iso) ? iso : `${iso}Z`);
    return Number.isFinite(at) ? at / 1000 : null;
  }
  if (form === 'clock' || form === 'elapsed') {
    const match = CLOCK.exec(text);
    if (!match) return null;
    const [a, b, c] = [Number(match[1]), Number(match[2]), Number((match[3] ?? '0').replace(',', '.'))];
    if (b > 59 || c >= 60) return null;
    if (match[3] === undefined) return form === 'elapsed' ? a * 60 + b : a * 3600 + b * 60;
    const half = match[4]?.toLowerCase();
    const hour = half === undefined ? a : (a % 12) + (half.startsWith('p') ? 12 : 0);
    return form === 'clock' && hour > 23 ? null : hour * 3600 + b * 60 + c;
  }
  const value = readCell(text);
  if (value === null || !Number.isFinite(value)) return null;
  return form === 'minutes' ? value * 60 : form === 'milliseconds' ? value / 1000 : value;
}

function unitOf(
  names: readonly string[],
  roles: readonly ColumnRole[],
  body: readonly (readonly string[])[],
): { unit: TemperatureUnit; why: string } {
  const of = roles.flatMap((role, i) => (role === 'bean' || role === 'air' ? [i] : []));
  for (const i of of) {
    const said = /(?:°|deg(?:rees?)?\.?\s*|[([/_\s])([CF])\b|\b(celsius|fahrenheit)\b/i.exec(`${names[i] ?? ''} `);
    const letter = (said?.[1] ?? said?.[2]?.[0])?.toUpperCase();
    if (letter === 'C' || letter === 'F') return { unit: letter, why: `the heading “${names[i] ?? ''}” says so` };
    const cell = body
      .slice(0, 20)
      .map((row) => /([CF])\s*$/i.exec((row[i] ?? '').trim())?.[1])
      .find(Boolean);
    if (cell) return { unit: cell.toUpperCase() as TemperatureUnit, why: 'it stands behind the figures' };
  }
  let most = -Infinity;
  const i = roles.indexOf('bean') >= 0 ? roles.indexOf('bean') : (of[0] ?? 0);
  for (const row of body) most = Math.max(most, readCell(row[i] ?? '') ?? -Infinity);
  return most > 190
    ? { unit: 'F', why: `beans at ${Math.round(most)} °C would have burnt, so it is taken for °F` }
    : { unit: 'C', why: `the figures end at ${Math.round(most)}, so they are taken for °C` };
}

type Reading = readonly [second: number, beanC: number, airC: number];

function readRows(
  body: readonly (readonly string[])[],
  skipped: number,
  width: number,
  at: { time: number; bean: number; air: number },
  form: TimeForm,
  unit: TemperatureUnit,
): { readings: Reading[]; bad: BadRow[] } {
  const readings: Reading[] = [];
  const bad: BadRow[] = [];
  let [last, days] = [-Infinity, 0];
  const cell = (row: readonly string[], column: number): number | null =>
    column < 0 ? NaN : readCell(row[column] ?? '');
  body.forEach((row, index) => {
    const fail = (what: string): void => void bad.push({ line: skipped + index + 1, what });
    if (row.length === 1 && (row[0] ?? '').trim() === '') return;
    if (row.length < width) return fail(`has ${row.length} columns of ${width}`);
    const time = secondsOf(row[at.time] ?? '', form);
    if (time === null) return fail(`“${row[at.time] ?? ''}” is not a time`);
    let second = time + days * DAY_S;
    if (form === 'clock' && last - second > DAY_S / 2) {
      days += 1;
      second += DAY_S;
    }
    if (second < last) return fail('goes back in time');
    if (second === last) return undefined;
    // A slip of the clock: nothing roasts for a week, and what is read at even steps would fill the memory.
    if (second - (readings[0]?.[0] ?? second) > 7 * DAY_S) return fail('is more than a week after the first reading');
    const [bean, air] = [cell(row, at.bean), cell(row, at.air)];
    if (bean === null) return fail(`“${row[at.bean] ?? ''}” is not a temperature`);
    if (air === null) return fail(`“${row[at.air] ?? ''}” is not a temperature`);
    const [beanC, airC] = [celsiusFrom(bean, unit), celsiusFrom(air, unit)];
    if (beanC < -60 || beanC > 400 || airC < -60 || airC > 700) return fail('is no temperature of a roast');
    last = second;
    readings.push([second, Math.round(beanC * 100) / 100, Math.round(airC * 100) / 100]);
    return undefined;
  });
  return { readings, bad };
}

/** A curve as rows of a table, for CSV: seconds, °C; empty where a probe was silent. */
export function curveRows({ seconds, beanC, airC }: Curve): (string | number | null)[][] {
  const cell = (value: number | undefined): number | null =>
    value === undefined || !Number.isFinite(value) ? null : Math.round(value * 100) / 100;
  return [
    ['second', 'bean temperature (C)', 'air temperature (C)'],
    ...Array.from(seconds, (second, i) => [cell(second), cell(beanC[i]), cell(airC[i])]),
  ];
}
