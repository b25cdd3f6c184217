import { useEffect, useRef, useState } from 'react';
import { addSeed, handle, type Crystal, type SeedKind } from '@wunsch/core/temper/crystal';
import type { TemperReading } from '@wunsch/core/temper/judge';
import type { Lesson } from '@wunsch/core/temper/lessons';

/** What is around a bowl of two kilograms. */
export type Around = 'bath' | 'marble' | 'room';
/** Minutes in which it follows what is around it. */
const TAU_MIN: Readonly<Record<Around, number>> = { bath: 6, marble: 4, room: 45 };
export const MARBLE_C = 20;
const LOG_EVERY_MIN = 0.1;
/** A page that was not looked at does not run ahead. */
const MOST_FRAME_MS = 100;

export interface Practice {
  bowl: Crystal;
  minute: number;
  log: TemperReading[];
  seeded: boolean;
}

export interface Controls {
  around: Around;
  bathC: number;
  shear: number;
  speed: number;
  running: boolean;
}

const begin = ({ start }: Lesson): Practice => ({
  bowl: start,
  minute: 0,
  log: [{ second: 0, tempC: start.tempC }],
  seeded: false,
});

/** A bowl on the model's clock: each frame carries it on by what passed, as fast as was chosen. */
export function useBowl(lesson: Lesson, controls: Controls) {
  const [practice, setPractice] = useState(() => begin(lesson));
  const latest = useRef(controls);
  useEffect(() => {
    latest.current = controls;
  });
  const { running } = controls;
  useEffect(() => {
    if (!running) return;
    let before = performance.now();
    let frame = requestAnimationFrame(function turn(at) {
      const passed = Math.min(MOST_FRAME_MS, at - before);
      before = at;
      const { around, bathC, shear, speed } = latest.current;
      const minutes = (passed / 60_000) * speed;
      const aroundC = around === 'bath' ? bathC : around === 'marble' ? MARBLE_C : lesson.roomC;
      setPractice((now) => {
        const bowl = handle(now.bowl, { aroundC, tauMin: TAU_MIN[around], shear, fatShare: lesson.fatShare }, minutes);
        const minute = now.minute + minutes;
        const last = now.log.at(-1)?.second ?? 0;
        const log =
          60 * minute - last >= 60 * LOG_EVERY_MIN ? [...now.log, { second: 60 * minute, tempC: bowl.tempC }] : now.log;
        return { ...now, bowl, minute, log };
      });
      frame = requestAnimationFrame(turn);
    });
    return () => cancelAnimationFrame(frame);
  }, [running, lesson]);
  return {
    practice,
    add: (kind: SeedKind, share: number) =>
      setPractice((now) => ({
        ...now,
        seeded: true,
        bowl: addSeed(now.bowl, kind, share, kind === 'silk' ? 33.5 : 20, lesson.fatShare),
      })),
    again: () => setPractice(begin(lesson)),
  };
}
