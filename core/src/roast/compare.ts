import { studentQuantile } from '../stats/distributions';
import type { SmoothCurve } from './curve';
import { degreesTo, fixedTemperature, type TemperatureUnit } from '../units/temperature';
import { BASE_C, reaches } from './figures';
import type { SignMark } from './records';

/** What several roasts are laid over one another by. */
export type AlignBy = { by: 'start' } | { by: 'bean'; tempC: number } | { by: 'sign'; what: string };

/** The second of a roast that becomes 0; null where it never came to that. */
export function zeroOf(load: { curve: SmoothCurve | null; signs: readonly SignMark[] }, align: AlignBy): number | null {
  if (align.by === 'start') return 0;
  if (align.by === 'sign') return load.signs.find(({ what }) => what === align.what)?.second ?? null;
  return load.curve === null ? null : reaches(load.curve.seconds, load.curve.beanC, align.tempC);
}

/** The figures by which the loads of one grinder fill are held against one another. */
export interface LoadMeasures {
  code: string;
  endC: number | null;
  area: number | null;
  weightLeft: number | null;
}

export interface Spread {
  measure: keyof typeof MEASURES;
  mean: number;
  sd: number;
  low: number;
  high: number;
  n: number;
}

export interface FillVerdict {
  spreads: Spread[];
  /** Loads to keep apart until tasted, and why. */
  odd: { code: string; why: string }[];
  sentence: string;
}

interface Measure {
  name: (unit: TemperatureUnit) => string;
  /** Scatter below which nobody would taste a difference. */
  least: number;
  words: (value: number, unit: TemperatureUnit) => string;
  /** The end that means most roasted. */
  most: 'high' | 'low';
}

export const MEASURES: Record<keyof Omit<LoadMeasures, 'code'>, Measure> = {
  endC: { name: () => 'bean temperature at the end', least: 1.5, words: fixedTemperature, most: 'high' },
  area: {
    name: (unit) => `area above ${fixedTemperature(BASE_C, unit, 0)}`,
    least: 15,
    words: (value, unit) => `${Math.round(degreesTo(value, unit))} °${unit}·min`,
    most: 'high',
  },
  weightLeft: {
    name: () => 'weight lost',
    least: 0.004,
    words: (value) => `${(100 * (1 - value)).toFixed(1)} %`,
    most: 'low',
  },
};

/** One load in a hundred may be called odd by chance, over all its figures. */
const LEVEL = 1 - 0.01 / 3;

const meanOf = (values: readonly number[]): number => values.reduce((sum, v) => sum + v, 0) / values.length;
const sdOf = (values: readonly number[]): number => {
  const mean = meanOf(values);
  return Math.sqrt(values.reduce((sum, v) => sum + (v - mean) ** 2, 0) / Math.max(1, values.length - 1));
};

/**
 * How far the loads of one fill lie apart, and whether one does not belong: further from the others than one more of
 * them would fall (Student's prediction interval from the rest, with the scatter nobody tastes as the least).
 *
 * @param unit that the maker reads
 */
export function judgeFill(loads: readonly LoadMeasures[], unit: TemperatureUnit = 'C'): FillVerdict {
  const names = Object.keys(MEASURES) as (keyof typeof MEASURES)[];
  const spreads: Spread[] = [];
  const odd = new Map<string, string[]>();
  for (const measure of names) {
    const rows = loads.flatMap((load) => (load[measure] === null ? [] : [{ code: load.code, value: load[measure] }]));
    if (rows.length < 2) continue;
    const values = rows.map(({ value }) => value);
    spreads.push({
      measure,
      mean: meanOf(values),
      sd: sdOf(values),
      low: Math.min(...values),
      high: Math.max(...values),
      n: values.length,
    });
    if (rows.length < 3) continue;
    for (const { code, value } of rows) {
      const others = rows.filter((row) => row.code !== code).map((row) => row.value);
      const sd = Math.max(MEASURES[measure].least, sdOf(others));
      // The least is known beforehand: it counts as well known as eight loads would make it.
      const dof = Math.max(others.length - 1, sd === MEASURES[measure].least ? 8 : 1);
      const half = studentQuantile(1 - (1 - LEVEL) / 2, dof) * sd * Math.sqrt(1 + 1 / others.length);
      if (Math.abs(value - meanOf(others)) <= half) continue;
      const { name, words, most } = MEASURES[measure];
      const ends = [Math.min(...others), Math.max(...others)].map((end) => words(end, unit));
      if (most === 'low') ends.reverse();
      const why = `${name(unit)} ${words(value, unit)}, the others ${ends.join(' to ')}`;
      odd.set(code, [...(odd.get(code) ?? []), why]);
    }
  }
  const list = [...odd].map(([code, why]) => ({ code, why: why.join('; ') }));
  return { spreads, odd: list, sentence: fillSentence(loads.length, list, spreads) };
}

function fillSentence(n: number, odd: FillVerdict['odd'], spreads: readonly Spread[]): string {
  if (n < 2 || spreads.length === 0) return 'One load alone: nothing to hold it against.';
  if (odd.length > 0)
    return `Keep ${odd.map(({ code }) => code).join(' and ')} apart until tasted: ${odd.map(({ why }) => why).join('. ')}.`;
  if (n === 2) return 'Two loads: taste both, two cannot say which of them is the odd one.';
  return 'They belong together: no load lies further off than the next one might.';
}
