import { forNext, individuals, signalAtEnd, type Individuals, type Signal } from '../stats/individuals';
import type { Book } from './book';
import { isByProduct, type Step } from './types';

export interface YieldPoint {
  stepId: string;
  at: number;
  inMg: number;
  goodMg: number;
  /** Good out over in, 0 to 1. */
  value: number;
}

/** Good grams out over grams in of one step; null where nothing went in. */
export function stepYield(book: Book, step: Step): YieldPoint | null {
  let inMg = 0;
  let goodMg = 0;
  for (const p of step.postings) {
    if (p.holdingId === null) continue;
    if (p.massMg < 0) inMg -= p.massMg;
    else if (!isByProduct(book.holding(p.holdingId).kind)) goodMg += p.massMg;
  }
  return inMg > 0 ? { stepId: step.id, at: step.at, inMg, goodMg, value: goodMg / inMg } : null;
}

/** What is known of a yield before there is a history, and what to do when it is off. */
export interface UsualYield {
  /** What is usual in the trade, 0 to 1: used only while a workshop has no history of its own. */
  usual: readonly [low: number, high: number];
  /** What to do when it is lower than usual, and when it is higher. */
  whenLow: string;
  whenHigh: string;
}

export interface YieldJudgement {
  tone: 'good' | 'watch' | 'unknown';
  value: number;
  sentence: string;
  /** Evidence in words: how many steps, whose, which limits. */
  evidence: string;
  todo: string | null;
  signal: Signal | null;
  chart: Individuals | null;
}

/** Fewer earlier points than this and the trade's range speaks instead of the workshop's own. */
const ENOUGH = 6;

/** A share as a percentage with one decimal: `81.4 %`. */
export const percent = (share: number): string => `${(100 * share).toFixed(1)} %`;

/**
 * What one yield says against the maker's own past of the same family, or against the trade's usual range.
 *
 * @param of what is known of such a yield anyway; @param value share 0–1; @param past earlier yields of that family in time
 *   order; @param family what they have in common, in words
 */
export function judgeYield(
  of: UsualYield | undefined,
  value: number,
  past: readonly number[],
  family: string,
): YieldJudgement {
  const known = past.length >= ENOUGH ? individuals(past) : null;
  const chart = known && forNext(known);
  if (!chart) {
    if (!of) {
      return {
        tone: 'unknown',
        value,
        sentence: `${percent(value)} came through.`,
        evidence: 'No history to compare with yet.',
        todo: null,
        signal: null,
        chart: null,
      };
    }
    const [low, high] = of.usual;
    const inside = value >= low && value <= high;
    return {
      tone: inside ? 'good' : 'watch',
      value,
      sentence: inside
        ? `${percent(value)}: within what is usual in the trade.`
        : `${percent(value)}: outside what is usual in the trade.`,
      evidence: `Usual ${percent(low)} to ${percent(high)}. Only ${past.length} earlier of ${family}: your own limits need ${ENOUGH}.`,
      todo: inside ? null : value < low ? of.whenLow : of.whenHigh,
      signal: null,
      chart: null,
    };
  }
  const signal = signalAtEnd([...past, value], chart);
  const evidence = `${chart.n} earlier of ${family}: mean ${percent(chart.mean)}, natural limits ${percent(Math.max(0, chart.lower))} to ${percent(Math.min(1, chart.upper))}.`;
  if (signal === null) {
    return {
      tone: 'good',
      value,
      sentence: `${percent(value)}: as usual for ${family}.`,
      evidence,
      todo: null,
      signal,
      chart,
    };
  }
  const low = value < chart.mean;
  const how =
    signal === 'beyond-limits'
      ? `${low ? 'lower' : 'higher'} than chance explains`
      : signal === 'eight-on-one-side'
        ? `eight running ${low ? 'below' : 'above'} the mean: something has shifted`
        : `the second of three far ${low ? 'below' : 'above'} the mean`;
  return {
    tone: 'watch',
    value,
    sentence: `${percent(value)}: ${how}.`,
    evidence,
    todo: (low ? of?.whenLow : of?.whenHigh) ?? null,
    signal,
    chart,
  };
}
