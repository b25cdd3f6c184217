import { DomainError } from '../errors/domain-error';

/*
 * In which order each taster gets which bar, so that every bar stands equally often in every place and follows every
 * other equally often: Williams' squares (E. J. Williams, Experimental designs balanced for the estimation of residual
 * effects of treatments, Aust. J. Sci. Res. A 2, 1949).
 */

/** More bars at once than a tongue bears; fewer have no order. */
const MOST_BARS = 12;

/**
 * A square balanced for carry-over: n rows for an even number of bars, twice as many for an odd one.
 *
 * @param bars from 2 to 12
 * @returns rows of bar numbers, from 0
 * @example williams(4) // [[0, 1, 3, 2], [1, 2, 0, 3], [2, 3, 1, 0], [3, 0, 2, 1]]
 */
export function williams(bars: number): number[][] {
  if (!Number.isInteger(bars) || bars < 2 || bars > MOST_BARS)
    throw new DomainError('taste/bars', `Two to ${MOST_BARS} bars can be put in order.`, [
      { path: 'bars', message: `is not 2 to ${MOST_BARS}` },
    ]);
  // 0, 1, n−1, 2, n−2, …: every difference between neighbours comes once.
  const first = Array.from({ length: bars }, (_, i) => (i === 0 ? 0 : i % 2 === 1 ? (i + 1) / 2 : bars - i / 2));
  const rows = Array.from({ length: bars }, (_, shift) => first.map((bar) => (bar + shift) % bars));
  return bars % 2 === 0 ? rows : [...rows, ...rows.map((row) => [...row].reverse())];
}

/** What each taster gets, in order. */
export interface Serving {
  taster: number;
  order: number[];
}

/**
 * Orders for so many tasters: whole squares as far as they go, which bar is which number and which taster has which row
 * by chance.
 *
 * @param chance numbers from 0 to 1
 */
export function servings(bars: number, tasters: number, chance: () => number): Serving[] {
  const square = williams(bars);
  const relabel = shuffled(
    Array.from({ length: bars }, (_, i) => i),
    chance,
  );
  const rows: number[][] = [];
  while (rows.length < tasters) rows.push(...shuffled(square, chance));
  return rows.slice(0, tasters).map((row, taster) => ({ taster, order: row.map((bar) => relabel[bar] ?? bar) }));
}

/** How far orders are from balance: in how many places, and after how many others, a bar stands too often or too seldom. */
export function imbalance(
  orders: readonly (readonly number[])[],
  bars: number,
): { places: number; neighbours: number } {
  const place = Array.from({ length: bars }, () => new Array<number>(bars).fill(0));
  const after = Array.from({ length: bars }, () => new Array<number>(bars).fill(0));
  for (const order of orders)
    order.forEach((bar, i) => {
      const row = place[bar];
      if (row) row[i] = (row[i] ?? 0) + 1;
      const before = order[i - 1];
      const follows = before === undefined ? undefined : after[before];
      if (follows) follows[bar] = (follows[bar] ?? 0) + 1;
    });
  const spread = (values: readonly number[]): number => Math.max(...values) - Math.min(...values);
  return {
    places: spread(place.flat()),
    neighbours: spread(after.flatMap((row, a) => row.filter((_, b) => a !== b))),
  };
}

/** Three-digit codes, all different, none that says something by itself (100, 111, 123). */
export function blindCodes(count: number, chance: () => number): string[] {
  const telling = (code: number): boolean => {
    const [a = 0, b = 0, c = 0] = [...String(code)].map(Number);
    return (a === b && b === c) || (b - a === c - b && Math.abs(b - a) === 1) || code % 100 === 0;
  };
  const all = Array.from({ length: 900 }, (_, i) => i + 100).filter((code) => !telling(code));
  if (count > all.length)
    throw new DomainError('taste/codes', `There are ${all.length} codes only.`, [
      { path: 'count', message: 'is too many' },
    ]);
  return shuffled(all, chance).slice(0, count).map(String);
}

function shuffled<T>(values: readonly T[], chance: () => number): T[] {
  const rows = [...values];
  for (let i = rows.length - 1; i > 0; i -= 1) {
    const j = Math.floor(chance() * (i + 1));
    [rows[i], rows[j]] = [rows[j] as T, rows[i] as T];
  }
  return rows;
}

/** What one taster of a triangle gets: three samples by their codes, one of them another bar. */
export interface Triangle {
  taster: number;
  codes: [string, string, string];
  /** Which bar stands at each place, `A` or `B`. */
  bars: ('A' | 'B')[];
  /** The code of the odd one: the right answer. */
  odd: string;
}

const TRIANGLES = ['AAB', 'ABA', 'BAA', 'BBA', 'BAB', 'ABB'] as const;

/** Triangles for so many tasters: the six orders equally often as far as it goes, every sample with its own code. */
export function triangles(tasters: number, chance: () => number): Triangle[] {
  const orders: string[] = [];
  while (orders.length < tasters) orders.push(...shuffled(TRIANGLES, chance));
  const codes = blindCodes(3 * Math.min(tasters, 200), chance);
  return orders.slice(0, tasters).map((order, taster): Triangle => {
    const at = (3 * taster) % codes.length;
    const own: [string, string, string] = [codes[at] ?? '', codes[at + 1] ?? '', codes[at + 2] ?? ''];
    const bars = [...order] as ('A' | 'B')[];
    const lone = bars.filter((bar) => bar === 'A').length === 1 ? 'A' : 'B';
    return { taster, codes: own, bars, odd: own[bars.indexOf(lone)] ?? '' };
  });
}

/** What tasters called the odd one. */
export interface TrianglesRead {
  given: number;
  right: number;
  /** Tasters whose answer is none of their three codes, from 0. */
  strange: number[];
}

/** Holds answers against their triangles. @param answers codes by taster; empty: not answered yet */
export function readTriangles(sheet: readonly Triangle[], answers: Readonly<Record<string, string>>): TrianglesRead {
  const found: TrianglesRead = { given: 0, right: 0, strange: [] };
  for (const { taster, codes, odd } of sheet) {
    const answer = (answers[taster] ?? '').trim();
    if (answer === '') continue;
    found.given += 1;
    if (answer === odd) found.right += 1;
    else if (!codes.includes(answer)) found.strange.push(taster);
  }
  return found;
}
