import { trapAlarm, type TrapWeek } from '../src/beans/traps';
import { stream } from './foreign-oven';

/**
 * Share of weeks of an unchanged store that are called an alarm.
 *
 * @param clump moths that come together on the mean; 1 is chance alone
 */
export function mothAlarms(runs: number, perWeek: number, clump: number, rise: number, seed: number): number {
  const chance = stream(seed);
  const poisson = (mean: number): number => {
    let k = 0;
    for (let p = chance.chance(); p > Math.exp(-mean); p *= chance.chance()) k += 1;
    return k;
  };
  const week = (mean: number): number => {
    // Groups come by chance, each of a size that is geometric about its mean.
    let moths = 0;
    for (let groups = poisson(mean / clump); groups > 0; groups -= 1)
      moths += clump <= 1 ? 1 : 1 + Math.floor(Math.log(Math.max(1e-12, chance.chance())) / Math.log(1 - 1 / clump));
    return moths;
  };
  let alarms = 0;
  for (let run = 0; run < runs; run += 1) {
    const weeks = Array.from({ length: 9 }, (_, i): TrapWeek => {
      const moths = week(i === 8 ? perWeek * rise : perWeek);
      return { from: i * 604_800_000, moths, trapDays: 14, rate: moths / 2 };
    });
    if (trapAlarm(weeks).tone === 'watch') alarms += 1;
  }
  return alarms / runs;
}
