import { median } from '../stats/spread';
import { studentQuantile } from '../stats/distributions';
import { wilson } from '../stats/intervals';
import { formatDegrees, formatTemperature, type TemperatureUnit } from '../units/temperature';
import type { Span, Windows } from './windows';

/** A pour that is done: what it was set to, and how its test came out. */
export interface PastPour {
  /** Where it is read, and when it was, UTC ms. */
  stepId?: string;
  at?: number;
  meltC: number;
  coolC: number;
  workC: number;
  test: 'set' | 'slow' | 'failed' | 'none';
  /** Minutes that it was kept in temper, where they were followed. */
  heldMin?: number | null;
}

export interface LearnedSetting {
  /** °C, the middle of those that set. */
  meltC: number;
  coolC: number;
  workC: number;
  /** Pours that set, of all that were tested. */
  good: number;
  of: number;
  /** Windows around it, for a recipe that wants them as its own. */
  windows: Windows;
  /** How many of all such pours would set, %, nine and a half times in ten. */
  lowPct: number;
  highPct: number;
  sentence: string;
}

/** Windows reach so far to either side of a learned setting, °C. */
const AROUND = { melt: 2, cool: 0.5, work: 0.5, hold: 1 };
/** Minutes that are always borne; longer ones are learned from pours that were kept so long and set. */
const LEAST_HELD_MIN = 30;

/** Pours that set below which nothing is learned. */
const FEWEST = 3;
/** Degrees by which those that did not set have to differ, beyond chance. */
const LEAST_C = 0.3;

/**
 * The best known setting of a bean on a machine: the middle of its pours that set, and in what those that did not were
 * different, where they were beyond chance (Welch, at nine in ten).
 *
 * @param on machine or method, in words; @param unit that temperatures are shown in
 * @returns null for fewer than three that set
 */
export function learnedSetting(
  pours: readonly PastPour[],
  on: string,
  unit: TemperatureUnit = 'C',
): LearnedSetting | null {
  const show = (c: number): string => formatTemperature(c, unit);
  const tested = pours.filter(({ test }) => test !== 'none');
  const good = tested.filter(({ test }) => test === 'set');
  const bad = tested.filter(({ test }) => test !== 'set');
  if (good.length < FEWEST) return null;
  const middle = (key: 'meltC' | 'coolC' | 'workC'): number =>
    Math.round(10 * median(good.map((row) => row[key]))) / 10;
  const found = { meltC: middle('meltC'), coolC: middle('coolC'), workC: middle('workC') };
  const unlike = (['meltC', 'coolC', 'workC'] as const).flatMap((key) => {
    const off = difference(
      bad.map((row) => row[key]),
      good.map((row) => row[key]),
    );
    if (off === null) return [];
    const what = { meltC: 'melted out', coolC: 'cooled', workC: 'worked' }[key];
    return [`${what} ${formatDegrees(Math.abs(off), unit)} ${off > 0 ? 'warmer' : 'cooler'}`];
  });
  const { low, high } = wilson(good.length, tested.length);
  const share = `${good.length} of ${tested.length} tested`;
  const around = (middleC: number, half: number): Span => ({ from: middleC - half, to: middleC + half });
  return {
    ...found,
    good: good.length,
    of: tested.length,
    lowPct: 100 * low,
    highPct: 100 * high,
    windows: {
      melt: around(found.meltC, AROUND.melt),
      cool: around(found.coolC, AROUND.cool),
      work: around(found.workC, AROUND.work),
      ...holdFrom(good, around(found.workC, AROUND.hold)),
    },
    sentence: `Set best on ${on}: melt ${show(found.meltC)}, cool ${show(found.coolC)}, work ${show(found.workC)} (${share}).${
      unlike.length > 0 ? ` Those that did not set were ${unlike.join(', ')}.` : ''
    }`,
  };
}

/** How long pours were kept that set: the longest but one, since a single long one may have been luck. */
function holdFrom(good: readonly PastPour[], span: Span): Pick<Windows, 'hold'> {
  const held = good.flatMap(({ heldMin }) => (heldMin == null ? [] : [heldMin])).sort((a, b) => b - a);
  const longest = held[1];
  if (held.length < FEWEST || longest === undefined) return {};
  return { hold: { ...span, minutes: Math.max(LEAST_HELD_MIN, 5 * Math.round(longest / 5)) } };
}

/** How far apart two means are where it is more than chance; null where it is not, or there are too few. */
function difference(a: readonly number[], b: readonly number[]): number | null {
  if (a.length === 0 || b.length < FEWEST) return null;
  const [meanA, meanB] = [mean(a), mean(b)];
  const off = meanA - meanB;
  // One that did not set is held against how those that did differ.
  const spreadB = variance(b, meanB);
  const spreadA = a.length > 1 ? variance(a, meanA) : spreadB;
  const error = Math.sqrt(spreadA / a.length + spreadB / b.length + (a.length === 1 ? spreadB : 0));
  const dof = Math.max(1, a.length + b.length - 2);
  return Math.abs(off) >= LEAST_C && Math.abs(off) > studentQuantile(0.95, dof) * Math.max(error, 0.05) ? off : null;
}
const mean = (values: readonly number[]): number => values.reduce((sum, value) => sum + value, 0) / values.length;
const variance = (values: readonly number[], around: number): number =>
  values.reduce((sum, value) => sum + (value - around) ** 2, 0) / Math.max(1, values.length - 1);
