import { expose } from 'comlink';
import type { SeedKind } from '@wunsch/core/temper/crystal';
import { LESSONS, type Lesson } from '@wunsch/core/temper/lessons';
import {
  beginPractice,
  carryOn,
  lessonWith,
  pourPractice,
  withSeed,
  type Hands,
  type OwnBowl,
  type Practice,
  type PracticeEnd,
} from '@wunsch/core/temper/practice';
import { replay, shifted, WHAT_IFS, type Replay, type Replayed, type WhatIf } from '@wunsch/core/temper/replay';
import type { TemperatureUnit } from '@wunsch/core/units/temperature';

/** Milliseconds between looks at the bowl: forty a second. */
const TICK_MS = 25;
/** A page that was not looked at does not run ahead. */
const MOST_TICK_MS = 100;

export interface Controls extends Hands {
  speed: number;
  running: boolean;
}

let lesson: Lesson | undefined;
let now: Practice | undefined;
let controls: Controls | undefined;
let tell: ((practice: Practice) => void) | undefined;
let before = 0;

setInterval(() => {
  const at = performance.now();
  const passed = Math.min(MOST_TICK_MS, at - before);
  before = at;
  if (!lesson || !now || controls?.running !== true) return;
  now = carryOn(now, lesson, controls, (passed / 60_000) * controls.speed);
  tell?.(now);
}, TICK_MS);

/** A bowl that runs beside the page, and pours that are run through the model once more. */
const bowl = {
  begin(lessonId: string, own: OwnBowl, say: (practice: Practice) => void): void {
    const found = LESSONS.find(({ id }) => id === lessonId);
    tell = say;
    if (!found) return;
    lesson = lessonWith(found, own);
    now = beginPractice(lesson);
    say(now);
  },
  control(next: Controls): void {
    controls = next;
  },
  add(kind: SeedKind, share: number): void {
    if (!lesson || !now) return;
    now = withSeed(now, lesson, kind, share);
    tell?.(now);
  },
  pour: (unit: TemperatureUnit): PracticeEnd | null => (lesson && now ? pourPractice(now, lesson, unit) : null),
  replay: (asked: Replayed): { was: Replay | null; others: { what: WhatIf; made: Replay }[] } => ({
    was: replay(asked),
    others: WHAT_IFS.flatMap((what) => {
      const made = asked.seed !== null && what.at === 'low' ? null : replay(shifted(asked, what));
      return made ? [{ what, made }] : [];
    }),
  }),
};
export type BowlWorker = typeof bowl;

expose(bowl);
