import type { PourMark } from '../work/tempering';
import { addSeed, FRESH, handleAt, pour, type Bar, type Crystal, type SeedKind } from './crystal';
import type { TemperReading } from './judge';
import type { Windows } from './windows';

/** A pour that was logged, as the model takes it. */
export interface Replayed {
  readings: readonly TemperReading[];
  marks: readonly PourMark[];
  windows: Windows;
  fatShare: number;
  /** °C by which soft fats lower its melting points. */
  lowerC: number;
  /** What went in as seed, and its share of the whole; null: nothing. */
  seed: { kind: SeedKind; share: number } | null;
}

export interface Replay {
  /** Crystal along the way, minutes since it began. */
  points: { minute: number; tempC: number; iv: number; v: number }[];
  bar: Bar;
}

const POINTS = 240;
/** °C at which seed and silk go in, under it: seed and silk's own, °C. */
const GOES_IN_C = { chocolate: 34, silk: 33.6 } as const;
const ROOM_C = 20;

/**
 * What the model makes of a logged pour: its temperatures as they were, stirred but where it was marked as standing.
 *
 * @returns null for fewer than three readings
 */
export function replay({ readings, marks, windows, fatShare, lowerC, seed }: Replayed): Replay | null {
  const rows = [...readings].filter(({ tempC }) => Number.isFinite(tempC)).sort((a, b) => a.second - b.second);
  const [first, last] = [rows[0], rows.at(-1)];
  if (!first || !last || rows.length < 3 || last.second <= first.second) return null;
  let index = 0;
  const tempAt = (minute: number): number => {
    const second = first.second + 60 * minute;
    while (index > 0 && (rows[index]?.second ?? 0) > second) index -= 1;
    while (index < rows.length - 2 && (rows[index + 1]?.second ?? 0) <= second) index += 1;
    const [a, b] = [rows[index] ?? first, rows[index + 1] ?? last];
    const along = b.second > a.second ? Math.min(1, Math.max(0, (second - a.second) / (b.second - a.second))) : 0;
    return a.tempC + along * (b.tempC - a.tempC);
  };
  const minutes = (last.second - first.second) / 60;
  const step = minutes / POINTS;
  let bowl: Crystal =
    first.tempC > windows.work.to + 4 ? { tempC: first.tempC, iv: 0, v: 0 } : { ...FRESH, tempC: first.tempC };
  const points: Replay['points'] = [{ minute: 0, ...bowl }];
  let hasMelted = first.tempC > windows.melt.from - 1;
  let isSeeded = seed === null;
  const seedMark = marks.find(({ what }) => what === 'seed' || what === 'silk');
  for (let i = 0; i < POINTS; i += 1) {
    const minute = i * step;
    hasMelted ||= bowl.tempC > windows.melt.from - 1;
    const isDue = seedMark
      ? first.second + 60 * minute >= seedMark.second
      : hasMelted && seed !== null && bowl.tempC <= GOES_IN_C[seed.kind] - lowerC;
    if (!isSeeded && seed !== null && isDue) {
      bowl = { ...addSeed(bowl, seed.kind, seed.share, ROOM_C, fatShare), tempC: bowl.tempC };
      isSeeded = true;
    }
    const shear = isStanding(marks, first.second + 60 * minute) ? 0 : 1;
    bowl = handleAt(bowl, tempAt, { shear, fatShare, lowerC }, minute, step);
    points.push({ minute: minute + step, ...bowl });
  }
  return { points, bar: pour(bowl, fatShare, lowerC) };
}

function isStanding(marks: readonly PourMark[], second: number): boolean {
  const last = marks.findLast((mark) => mark.second <= second && (mark.what === 'still' || mark.what === 'stirred'));
  return last?.what === 'still';
}

/** What is asked of the model beside what was: one thing done another way. */
export const WHAT_IFS = [
  { id: 'low-colder', words: 'one degree colder at the low point', at: 'low', by: -1 },
  { id: 'low-warmer', words: 'one degree warmer at the low point', at: 'low', by: 1 },
  { id: 'work-colder', words: 'worked one degree colder', at: 'work', by: -1 },
  { id: 'work-warmer', words: 'worked one degree warmer', at: 'work', by: 1 },
] as const;
export type WhatIf = (typeof WHAT_IFS)[number];

/**
 * The same pour with its low point, or its work, some degrees off: as far as it is under the middle between both, or
 * over it after the low point, it is moved; around the middle the move fades in.
 */
export function shifted(pourOf: Replayed, { at, by }: Pick<WhatIf, 'at' | 'by'>): Replayed {
  const { readings, windows } = pourOf;
  const melt = readings.reduce((best, { tempC }, i) => (tempC > (readings[best]?.tempC ?? 0) ? i : best), 0);
  const low = readings.reduce(
    (best, { tempC }, i) => (i > melt && tempC < (readings[best]?.tempC ?? Infinity) ? i : best),
    melt,
  );
  // A bowl with seed in it has no low point: it is at its work once it has come down to it.
  const reached = readings.findIndex(({ tempC }, i) => i > melt && tempC <= windows.work.to + 0.5);
  const workFrom = pourOf.seed === null ? low : reached < 0 ? readings.length : reached;
  const middle = (windows.cool.to + windows.work.from) / 2;
  const half = (windows.work.from - windows.cool.to) / 2;
  const moved = readings.map((row, i) => {
    const above = Math.min(1, Math.max(0, (row.tempC - (middle - half)) / (2 * half)));
    const isWork = i > workFrom ? above : 0;
    const isLow = i > melt ? 1 - above : 0;
    return { ...row, tempC: row.tempC + by * (at === 'low' ? isLow : isWork) };
  });
  return { ...pourOf, readings: moved };
}
