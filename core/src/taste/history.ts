import { forNext, individuals } from '../stats/individuals';
import { median, MEDIAN_TO_SD } from '../stats/spread';

/* Last year's bar: scores of one product over its batches, which of them is outside its usual band, what differed. */

export interface TastedBatch {
  code: string;
  /** UTC ms of its moulding. */
  at: number;
  score: number;
  /** Facts of its making, by key; null: not logged. */
  facts: Readonly<Record<string, number | null>>;
}

export interface Differed {
  fact: string;
  value: number;
  usual: number;
  /** How many usual deviations it is off. */
  off: number;
}

export interface HistoryVerdict {
  mean: number;
  lower: number;
  upper: number;
  outside: { code: string; score: number; differed: Differed[] }[];
  sentence: string;
}

/** So few batches have no usual band yet. */
const FEWEST = 5;
/** Usual deviations from which on a fact is named. */
const FAR = 2;

/**
 * Holds each batch against the band of all the others.
 *
 * @param batches in order of time; @param names facts in words, by key
 */
export function judgeHistory(
  batches: readonly TastedBatch[],
  names: Readonly<Record<string, string>>,
): HistoryVerdict | null {
  if (batches.length < FEWEST) return null;
  const scores = batches.map(({ score }) => score);
  const all = individuals(scores);
  if (!all) return null;
  const outside = batches.flatMap((batch, i) => {
    const others = batches.filter((_, j) => j !== i);
    const usual = individuals(others.map(({ score }) => score));
    if (!usual) return [];
    const { lower, upper } = forNext(usual);
    if (batch.score >= lower && batch.score <= upper) return [];
    return [{ code: batch.code, score: batch.score, differed: differed(batch, others, names) }];
  });
  const last = batches.at(-1);
  const named = outside.map(({ code, score, differed: far }) => {
    const [most] = far;
    const what = most
      ? `: ${names[most.fact] ?? most.fact} was ${short(most.value)}, usually ${short(most.usual)}`
      : ', and nothing that was logged of it differs';
    return `${code} (${score.toFixed(1)})${what}`;
  });
  return {
    mean: all.mean,
    lower: Math.max(0, all.lower),
    upper: Math.min(10, all.upper),
    outside,
    sentence:
      outside.length === 0
        ? `As always: ${batches.length} batches between ${Math.min(...scores).toFixed(1)} and ${Math.max(...scores).toFixed(1)}, the last one ${(last?.score ?? 0).toFixed(1)}.`
        : `Not as always: ${named.join('; ')}.`,
  };
}

const short = (value: number): string => String(Math.round(10 * value) / 10);

/** What was unlike in its making, the most unlike first. */
function differed(
  { facts }: TastedBatch,
  others: readonly TastedBatch[],
  names: Readonly<Record<string, string>>,
): Differed[] {
  return Object.keys(names)
    .flatMap((fact): Differed[] => {
      const value = facts[fact];
      const known = others.flatMap((row) => (row.facts[fact] == null ? [] : [row.facts[fact]]));
      if (value == null || known.length < FEWEST - 1) return [];
      const usual = median(known);
      const spread = MEDIAN_TO_SD * median(known.map((other) => Math.abs(other - usual)));
      // What is always the same to the digit has no spread: a hundredth of it is one.
      const off = (value - usual) / Math.max(spread, 0.01 * Math.abs(usual), 1e-9);
      return Math.abs(off) >= FAR ? [{ fact, value, usual, off }] : [];
    })
    .sort((a, b) => Math.abs(b.off) - Math.abs(a.off));
}
