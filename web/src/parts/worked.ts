import { useEffect, useRef, useState } from 'react';

/** Does the work and notes how long it took, for whoever measures (User Timing). */
export async function timed<T>(name: string, work: () => Promise<T>): Promise<T> {
  const start = performance.now();
  const answer = await work();
  performance.measure(name, { start });
  return answer;
}

/**
 * Something worked out elsewhere from what is on screen: one question is under way at a time, and when it is answered
 * the newest is asked, so that a dragged line is followed as fast as the worker can. The last answer stays meanwhile.
 *
 * @param question changes when it has to be asked again; null for not yet; @param name what it is measured as
 */
export function useWorked<T>(question: string | null, work: () => Promise<T>, name = 'worked'): T | null {
  const [answer, setAnswer] = useState<T | null>(null);
  const state = useRef<{ asked: string | null; busy: boolean; next: (() => void) | null }>({
    asked: null,
    busy: false,
    next: null,
  });
  useEffect(() => {
    const now = state.current;
    if (question === null || question === now.asked) return;
    const ask = (): void => {
      now.asked = question;
      now.busy = true;
      void timed(name, work)
        .then((value) => setAnswer(value))
        .catch(() => undefined)
        .finally(() => {
          now.busy = false;
          const { next } = now;
          now.next = null;
          next?.();
        });
    };
    if (now.busy) now.next = ask;
    else ask();
    // The question says what the work depends on.
    // oxlint-disable-next-line react/exhaustive-deps
  }, [question]);
  return answer;
}
