import type { PourMark } from '../workshop/tempering';
import { addSeed, handle, pour, type Bar, type Crystal, type SeedKind } from './crystal';
import { judgePour, type TemperReading, type TemperVerdict } from './judge';
import { scoreOf, type Lesson } from './lessons';
import type { TemperatureUnit } from '../units/temperature';

/** What is around a bowl of two kilograms. */
export type Around = 'bath' | 'marble' | 'room';
/** Minutes in which it follows what is around it. */
const TAU_MIN: Readonly<Record<Around, number>> = { bath: 6, marble: 4, room: 45 };
export const MARBLE_C = 20;
const LOG_EVERY_S = 12;
/** Seed's and silk's own temperature, °C. */
const SEED_C: Readonly<Record<SeedKind, number>> = { chocolate: 20, silk: 33.5 };

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
  const { fatShare, lowerC, roomC } = lesson;
  const aroundC = around === 'bath' ? bathC : around === 'marble' ? MARBLE_C : roomC;
  const bowl = handle(now.bowl, { aroundC, tauMin: TAU_MIN[around], shear, fatShare, lowerC }, minutes);
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
