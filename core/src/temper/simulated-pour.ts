import { normals, seeded } from '../stats/chance';
import type { Windows } from './windows';

/** Minutes in which a made-up bowl comes two thirds of the way to what is around it. */
const TAU_MIN = 6;
const LOW_MIN = 4;
const BEGINS_C = 30;
const NOISE_C = 0.1;

/**
 * What a made-up probe in a made-up pour says, whoever works it knowing his windows: melted out, cooled, held low, warmed
 * back, and then slowly cooling as it is poured.
 *
 * @param second since the pour began; @param seeded silk or seed goes in at 33.5 °C: there is no low point
 */
export function simulatedPourC(second: number, { melt, cool, work }: Windows, seeded: boolean, seed: number): number {
  const to = (from: number, target: number, around: number): number =>
    TAU_MIN * Math.log(Math.max(1.01, (around - from) / (around - target)));
  const middle = (work.from + work.to) / 2;
  const low = seeded ? middle + 0.4 : (cool.from + cool.to) / 2;
  const stages: { minutes: number; from: number; around: number }[] = [];
  const push = (from: number, target: number, around: number): void => {
    stages.push({ minutes: to(from, target, around), from, around });
  };
  push(BEGINS_C, melt.from + 1.5, melt.from + 14);
  stages.push({ minutes: 8, from: melt.from + 1.5, around: melt.from + 1.5 });
  push(melt.from + 1.5, low, low - 9);
  if (!seeded) {
    stages.push({ minutes: LOW_MIN, from: low, around: low });
    push(low, middle + 0.2, middle + 5);
  }
  let left = second / 60;
  let tempC = middle;
  for (const { minutes, from, around } of stages) {
    tempC = around + (from - around) * Math.exp(-Math.min(left, minutes) / TAU_MIN);
    if (left <= minutes) return read(tempC, second, seed);
    left -= minutes;
  }
  // In the mould it cools by a few hundredths of a degree a minute.
  return read(tempC - 0.03 * left, second, seed);
}

const read = (tempC: number, second: number, seed: number): number =>
  Math.round(10 * (tempC + NOISE_C * normals(seeded(seed + Math.floor(second)))())) / 10;
