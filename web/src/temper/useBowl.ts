import { proxy, wrap, type Remote } from 'comlink';
import { useEffect, useState } from 'react';
import { beginPractice, USUAL_BOWL_KG, type Practice, type PracticeEnd } from '@wunsch/core/temper/practice';
import type { SeedKind } from '@wunsch/core/temper/crystal';
import type { Lesson } from '@wunsch/core/temper/lessons';
import type { TemperatureUnit } from '@wunsch/core/units/temperature';
import type { BowlWorker, Controls } from './worker';

let remote: Remote<BowlWorker> | null = null;

/** The worker, begun when first asked. */
export function bowlWorker(): Remote<BowlWorker> {
  remote ??= wrap<BowlWorker>(new Worker(new URL('./worker.ts', import.meta.url), { type: 'module' }));
  return remote;
}

/** A bowl on the model's clock, which runs beside the page as fast as was chosen. */
export function useBowl(lesson: Lesson, controls: Controls) {
  const [practice, setPractice] = useState<Practice>(() => beginPractice(lesson));
  const [round, setRound] = useState(0);
  useEffect(() => {
    let here = true;
    void bowlWorker().begin(
      lesson.id,
      { massKg: lesson.massKg ?? USUAL_BOWL_KG, fatShare: lesson.fatShare },
      proxy((next: Practice) => {
        if (here) setPractice(next);
      }),
    );
    return () => {
      here = false;
    };
  }, [lesson, round]);
  useEffect(() => {
    void bowlWorker().control(controls);
  }, [controls, round]);
  useEffect(
    () => () => void bowlWorker().control({ around: 'room', bathC: 20, shear: 0, speed: 1, running: false }),
    [],
  );
  return {
    practice,
    add: (kind: SeedKind, share: number) => void bowlWorker().add(kind, share),
    again: () => setRound((n) => n + 1),
    pour: (unit: TemperatureUnit): Promise<PracticeEnd | null> => bowlWorker().pour(unit),
  };
}
