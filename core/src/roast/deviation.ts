import type { SmoothCurve } from './curve';
import { follower } from './model';

export interface Deviation {
  /** Mean of roasted minus planned bean temperature, °C. */
  meanC: number;
  rmsC: number;
  most: { byC: number; second: number };
  endByC: number;
  /** How much longer it was in than planned, minutes. */
  minutes: number;
}

const SETTLED_S = 120;

/**
 * How a roast differed from its plan, from the second minute on.
 *
 * @param plan bean temperature as foretold for the program, minutes from the start
 * @returns null where they have no time in common
 */
export function deviationFrom(
  curve: SmoothCurve,
  plan: { minutes: ArrayLike<number>; beanC: ArrayLike<number> },
): Deviation | null {
  const planned = follower({ minutes: plan.minutes, tempC: plan.beanC });
  const planEndS = 60 * (plan.minutes[plan.minutes.length - 1] ?? 0);
  let [sum, squares, n, byC, at, endByC] = [0, 0, 0, 0, 0, 0];
  for (let i = 0; i < curve.seconds.length; i += 1) {
    const [second, tempC] = [curve.seconds[i] ?? 0, curve.beanC[i] ?? NaN];
    if (second < SETTLED_S || second > planEndS || !Number.isFinite(tempC)) continue;
    const by = tempC - planned(second / 60);
    sum += by;
    squares += by * by;
    n += 1;
    endByC = by;
    if (Math.abs(by) > Math.abs(byC)) [byC, at] = [by, second];
  }
  if (n === 0) return null;
  return {
    meanC: sum / n,
    rmsC: Math.sqrt(squares / n),
    most: { byC, second: at },
    endByC,
    minutes: ((curve.seconds.at(-1) ?? 0) - planEndS) / 60,
  };
}
