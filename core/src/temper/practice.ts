import type { PourMark } from '../work/tempering';
import { addSeed, handle, pour, type Bar, type Crystal, type SeedKind } from './crystal';
import { judgePour, type TemperReading, type TemperVerdict } from './judge';
import { scoreOf, type Lesson } from './lessons';
import type { TemperatureUnit } from '../units/temperature';

/** What is around a bowl. */
export type Around = 'bath' | 'marble' | 'room';
/** The bowl that lessons are told for, kg. */
export const USUAL_BOWL_KG = 2;
/** Minutes in which a bowl of two kilograms follows what is around it. */
const TAU_MIN: Readonly<Record<Around, number>> = { bath: 6, marble: 4, room: 45 };
/** A bowl's surface grows with its mass to two thirds; a slab stays as large as it is. */
const TAU_GROWS: Readonly<Record<Around, number>> = { bath: 1 / 3, marble: 1, room: 1 / 3 };
/** Minutes in which a bowl of some kilograms follows what is around it. */
export const tauOf = (around: Around, massKg: number): number =>
  TAU_MIN[around] * (massKg / USUAL_BOWL_KG) ** TAU_GROWS[around];
export const MARBLE_C = 20;
const LOG_EVERY_S = 12;
/** Seed's and silk's own temperature, °C. */
const SEED_C: Readonly<Record<SeedKind, number>> = { chocolate: 20, silk: 33.5 };

/** A lesson's bowl as somebody's own: how much there is, and how much of it is fat. */
export interface OwnBowl {
  massKg: number;
  fatShare: number;
}
export const OWN_BOWL_LIMITS = { massKg: { from: 0.2, to: 30 }, fatShare: { from: 0.25, to: 0.6 } } as const;
/** What seed and silk can be put in at once, shares of the bowl. */
export const SEED_SHARES: Readonly<Record<SeedKind, { from: number; to: number; step: number }>> = {
  chocolate: { from: 0.01, to: 0.25, step: 0.01 },
  silk: { from: 0.002, to: 0.04, step: 0.002 },
};

/** A lesson with one's own bowl; a larger one takes longer, also on the best run. */
export const lessonWith = (lesson: Lesson, own: OwnBowl): Lesson => ({
  ...lesson,
  ...own,
  bestMin: Math.round(10 * lesson.bestMin * Math.max(1, tauOf('bath', own.massKg) / tauOf('bath', USUAL_BOWL_KG))) / 10,
});

/** A bowl that is practised with. */
export interface Practice {
  bowl: Crystal;
  minute: number;
  log: readonly TemperReading[];
  marks: readonly PourMark[];
  seeded: boolean;
}

/** What hands do with it. */
export interface Hands {
  around: Around;
  bathC: number;
  /** 0 nobody stirs, 1 steadily, 2 hard. */
  shear: number;
}

export const beginPractice = ({ start }: Lesson): Practice => ({
  bowl: start,
  minute: 0,
  log: [{ second: 0, tempC: start.tempC }],
  marks: [],
  seeded: false,
});

/** Carries a bowl on by some minutes of the model's clock. */
export function carryOn(now: Practice, lesson: Lesson, { around, bathC, shear }: Hands, minutes: number): Practice {
  const { fatShare, lowerC, roomC, massKg = USUAL_BOWL_KG } = lesson;
  const aroundC = around === 'bath' ? bathC : around === 'marble' ? MARBLE_C : roomC;
  const bowl = handle(now.bowl, { aroundC, tauMin: tauOf(around, massKg), shear, fatShare, lowerC }, minutes);
  const minute = now.minute + minutes;
  const second = 60 * minute;
  const isDue = second - (now.log.at(-1)?.second ?? 0) >= LOG_EVERY_S;
  const isStill = now.marks.at(-1)?.what === 'still';
  const what = shear === 0 && !isStill ? 'still' : shear > 0 && isStill ? 'stirred' : null;
  return {
    ...now,
    bowl,
    minute,
    log: isDue ? [...now.log, { second, tempC: bowl.tempC }] : now.log,
    marks: what === null ? now.marks : [...now.marks, { second: 60 * now.minute, what }],
  };
}

/** Puts seed or silk in. @param share of the whole */
export const withSeed = (now: Practice, { fatShare }: Lesson, kind: SeedKind, share: number): Practice => ({
  ...now,
  seeded: true,
  bowl: addSeed(now.bowl, kind, share, SEED_C[kind], fatShare),
});

export interface PracticeEnd {
  bar: Bar;
  minutes: number;
  score: number;
  verdict: TemperVerdict;
}

/** Pours a bowl: the bar, its points, and what went wrong first, in the words of the judge of real pours. */
export function pourPractice(
  { bowl, minute, log, marks, seeded }: Practice,
  lesson: Lesson,
  unit: TemperatureUnit,
): PracticeEnd {
  const bar = pour(bowl, lesson.fatShare, lesson.lowerC);
  return {
    bar,
    minutes: minute,
    score: scoreOf(bar, minute, lesson),
    verdict: judgePour(log, { windows: lesson.windows, seeded, marks, unit }),
  };
}
