import { DomainError } from '../errors/domain-error';
import type { SameTest } from './same';

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

/**
 * The least number of tasters, from so many on, with whom every bar stands in every place, and after every other, equally
 * often.
 */
export function fairTasters(bars: number, tasters: number): number {
  const square = williams(bars).length;
  return square * Math.max(1, Math.ceil(tasters / square));
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

/** What one taster gets in one round of a test of sameness: samples by their codes, each of one bar or of the other. */
export interface SameRound {
  taster: number;
  /** From 0; more than one where tasters taste again. */
  round: number;
  codes: string[];
  /** Which bar stands at each place, `A` or `B`. */
  bars: ('A' | 'B')[];
  /** Codes that are right to name: the odd one; the one that belongs to the first; the one that is said to have more. */
  right: string;
}

/** Every order there can be: of a triangle, of a tetrad (two and two), of a pair. */
const ORDERS: Readonly<Record<SameTest, readonly string[]>> = {
  triangle: ['AAB', 'ABA', 'BAA', 'BBA', 'BAB', 'ABB'],
  tetrad: ['AABB', 'ABAB', 'ABBA', 'BBAA', 'BABA', 'BAAB'],
  paired: ['AB', 'BA'],
};

/** The place that is right to name. */
function rightPlace(test: SameTest, bars: readonly ('A' | 'B')[]): number {
  if (test === 'triangle') return bars.findIndex((bar) => bars.filter((other) => other === bar).length === 1);
  if (test === 'tetrad') return bars.findIndex((bar, i) => i > 0 && bar === bars[0]);
  // Of a pair the other bar, B, is the one that is expected to have more.
  return bars.indexOf('B');
}

/**
 * Rounds for so many tasters: all orders equally often as far as it goes, every sample of a round with its own code.
 *
 * @param rounds how often each taster tastes
 */
export function sameRounds(test: SameTest, tasters: number, rounds: number, chance: () => number): SameRound[] {
  const size = ORDERS[test][0]?.length ?? 0;
  const count = tasters * rounds;
  const orders: string[] = [];
  while (orders.length < count) orders.push(...shuffled(ORDERS[test], chance));
  const codes = blindCodes(size * Math.min(count, 200), chance);
  return orders.slice(0, count).map((order, i): SameRound => {
    const at = (size * i) % codes.length;
    const own = Array.from({ length: size }, (_, j) => codes[(at + j) % codes.length] ?? '');
    const bars = [...order] as ('A' | 'B')[];
    return {
      taster: Math.floor(i / rounds),
      round: i % rounds,
      codes: own,
      bars,
      right: own[rightPlace(test, bars)] ?? '',
    };
  });
}

/** What tasters answered. */
export interface RoundsRead {
  given: number;
  right: number;
  /** People behind the answers. */
  tasters: number;
  /** Rounds, by their place in the sheet, whose answer is none that can be given. */
  strange: number[];
}

/** Holds answers against their rounds. @param answers codes by place in the sheet; empty: not answered yet */
export function readRounds(
  test: SameTest,
  sheet: readonly SameRound[],
  answers: Readonly<Record<string, string>>,
): RoundsRead {
  const found: RoundsRead = { given: 0, right: 0, tasters: 0, strange: [] };
  const people = new Set<number>();
  sheet.forEach(({ taster, codes, right }, i) => {
    const answer = (answers[i] ?? '').trim();
    if (answer === '') return;
    found.given += 1;
    people.add(taster);
    // Of a tetrad the first sample is what the others are held against: it answers nothing.
    const can = test === 'tetrad' ? codes.slice(1) : codes;
    if (answer === right) found.right += 1;
    else if (!can.includes(answer)) found.strange.push(i);
  });
  return { ...found, tasters: people.size };
}
