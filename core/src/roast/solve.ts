import { expectedRoaster, type RoasterFit } from './fit';
import type { BeanStart } from './model';
import { simulateProgram } from './simulate';

/** Settings between which one is looked for, °C. */
const [LOWEST, HIGHEST] = [60, 260];
/** The roaster is preheated so much warmer, for the door that opens, °C. */
export const PREHEAT_OVER = 10;

/**
 * The one steady setting that brings a load to a bean temperature in so many minutes: halving, since beans end warmer
 * in warmer air.
 *
 * @param wanted bean temperature at the end °C, and minutes; @param load grams, and the depth of their layer mm
 * @returns whole °C; null where no setting between 60 and 260 °C does it
 */
export function steadySetting(
  wanted: { peakC: number; minutes: number },
  load: { massG: number; layerMm: number | null },
  fit: RoasterFit,
  start: BeanStart,
): number | null {
  const roaster = expectedRoaster(fit, load);
  const endC = (setC: number): number =>
    simulateProgram(
      { steps: [{ setC, minutes: wanted.minutes, until: null, note: '' }], preheatC: setC + PREHEAT_OVER },
      roaster,
      start,
    ).beanC.at(-1) ?? NaN;
  let [low, high] = [LOWEST, HIGHEST];
  if (endC(low) > wanted.peakC || endC(high) < wanted.peakC) return null;
  while (high - low > 0.25) {
    const middle = (low + high) / 2;
    if (endC(middle) < wanted.peakC) low = middle;
    else high = middle;
  }
  return Math.round((low + high) / 2);
}
