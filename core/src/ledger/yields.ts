import { forNext, individuals, signalAtEnd, type Individuals, type Signal } from '../stats/individuals';
import type { Book } from './book';
import type { Station } from '../work/stations';
import { isByProduct, type Step } from './types';

/** Whose yield speaks at each station. */
export const YIELD_STEP = {
  sort: 'sort',
  roast: 'roast',
  winnow: 'winnow',
  grind: 'discharge',
  mould: 'mould',
} as const satisfies Partial<Record<Station, Step['kind']>>;

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

/** Ordinary trade ranges, used only while a workshop has no history of its own. */
export const USUAL_YIELD: Partial<Record<Step['kind'], readonly [number, number]>> = {
  sort: [0.9, 0.99],
  roast: [0.92, 0.96],
  winnow: [0.78, 0.88],
  discharge: [0.96, 0.995],
  mould: [0.93, 0.99],
};

const WHEN_LOW: Partial<Record<Step['kind'], string>> = {
  sort: 'Look at the reject piles by reason: one reason driving it is a claim; all of them is a harder hand.',
  roast: 'More weight went than usual: hotter, longer or wetter beans. Break one and taste before cracking.',
  winnow: 'Nib may be leaving with the husk. Pick over one scoop of husk, weigh the nib in it, turn the air down.',
  discharge: 'Scrape bowl and stones and weigh what comes: it is hold-up, not loss. Check the last charge was weighed.',
  mould: 'Check bowl, hoses and depositor for what stayed behind, and weigh ten bars against the declared weight.',
};

const WHEN_HIGH: Partial<Record<Step['kind'], string>> = {
  sort: 'Fewer rejects than usual: a good sack, or a hurried table. Look over one tray again.',
  roast: 'Less weight went than usual: a short or cool load, or drier beans. Check for raw, vinegary centres.',
  winnow: 'Shell may be staying in the nibs. Pick over a hundred grams of nibs and weigh the shell.',
  discharge: 'More came out than usual: check that the last additions were weighed and entered.',
  mould: 'Bars may run heavy: weigh ten against the declared weight.',
};

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
 * @param kind which step; @param value share 0–1; @param past earlier yields of that family in time order;
 *   @param family what they have in common, in words
 */
export function judgeYield(kind: Step['kind'], value: number, past: readonly number[], family: string): YieldJudgement {
  const known = past.length >= ENOUGH ? individuals(past) : null;
  const chart = known && forNext(known);
  if (!chart) {
    const usual = USUAL_YIELD[kind];
    if (!usual) {
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
    const [low, high] = usual;
    const inside = value >= low && value <= high;
    return {
      tone: inside ? 'good' : 'watch',
      value,
      sentence: inside
        ? `${percent(value)}: within what is usual in the trade.`
        : `${percent(value)}: outside what is usual in the trade.`,
      evidence: `Usual ${percent(low)} to ${percent(high)}. Only ${past.length} earlier of ${family}: your own limits need ${ENOUGH}.`,
      todo: inside ? null : ((value < low ? WHEN_LOW : WHEN_HIGH)[kind] ?? null),
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
    todo: (low ? WHEN_LOW : WHEN_HIGH)[kind] ?? null,
    signal,
    chart,
  };
}
