import type { CurveData } from '@wunsch/core/api/roast';
import type { Setting } from '@wunsch/core/roast/records';
import { thin } from '@wunsch/core/roast/thin';
import type { TimePoint } from '../charts/labels';
import { curveFrom } from './data';

/** Points that a line on a screen can show. */
export const DRAWN = 360;

/** From °C to what is shown. */
type Shown = (celsius: number) => number;

const shownOf = (value: number | null | undefined, out: Shown): number | null =>
  value == null || !Number.isFinite(value) ? null : Math.round(out(value) * 10) / 10;

/** Bean and air of a logged curve as lines, thinned to what can be seen. @param zeroS the second that stands at 0 */
export function curveLines(
  data: CurveData,
  out: Shown,
  zeroS = 0,
  most = DRAWN,
): { bean: TimePoint[]; air: TimePoint[] } {
  const { seconds, beanC, airC } = thin(curveFrom(data), most);
  const points = (values: Float64Array): TimePoint[] =>
    Array.from(seconds, (second, i) => ({ x: round((second - zeroS) / 60), y: shownOf(values[i], out) }));
  return { bean: points(beanC), air: airC.some((tempC) => Number.isFinite(tempC)) ? points(airC) : [] };
}

const round = (minutes: number): number => Math.round(minutes * 1000) / 1000;

/** Settings as stairs. @param endS until when the last one stands */
export function settingLine(settings: readonly Setting[], endS: number, out: Shown): TimePoint[] {
  return settings.flatMap(({ second, setC }, i) => {
    const next = Math.max(second, settings[i + 1]?.second ?? endS);
    const y = shownOf(setC, out);
    return [
      { x: round(second / 60), y },
      { x: round(next / 60), y },
    ];
  });
}

/** Any line worked out by the core, every so many points. */
export function plainLine(minutes: ArrayLike<number>, tempC: ArrayLike<number>, out: Shown, most = DRAWN): TimePoint[] {
  const every = Math.max(1, Math.ceil(minutes.length / most));
  const points: TimePoint[] = [];
  for (let i = 0; i < minutes.length; i += 1)
    if (i % every === 0 || i === minutes.length - 1)
      points.push({ x: round(minutes[i] ?? 0), y: shownOf(tempC[i], out) });
  return points;
}
