import { normals, seeded } from '../stats/chance';
import type { TemperReading } from './judge';

/** A sample in a cold well: how fast its crystal grows, what heat that gives, how late it runs out. */
const GROWS = 2;
const HEAT_C = 24;
const SLOWS = 2;
const SETS_UNDER_C = 32;
const WELL_C = 12;
const TAU_MIN = 2.5;
const FROM_C = 31.5;
const LASTS_S = 600;
const NOISE_C = 0.04;

/**
 * What a made-up cooling-curve meter logs: a lumped sample whose crystal grows on what was there (Avrami-like, with heat
 * of setting), every other second, with the noise of a cheap probe.
 *
 * @param crystal share of its fat that is crystal as it is drawn, 0 to 1
 */
export function simulatedMeter(crystal: number, seed: number): TemperReading[] {
  const normal = normals(seeded(seed));
  const rows: TemperReading[] = [];
  const h = 1 / 60;
  let [tempC, set] = [FROM_C, 0];
  for (let second = 0; second <= LASTS_S; second += 1) {
    if (second % 2 === 0) rows.push({ second, tempC: Math.round(100 * (tempC + NOISE_C * normal())) / 100 });
    const under = Math.max(0, SETS_UNDER_C - tempC) / 10;
    const rate = GROWS * (4 * crystal + set) * Math.max(0, 1 - set) ** SLOWS * under;
    set = Math.min(1, set + h * rate);
    tempC += h * ((WELL_C - tempC) / TAU_MIN + HEAT_C * rate);
  }
  return rows;
}
