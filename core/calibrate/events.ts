import { clean, curveOf, smooth } from '../src/roast/curve';
import { jumpsIn, stallsIn, type Stall } from '../src/roast/events';
import { settingsOf, someProgram, stream, roastForeign, type ForeignTrouble } from './foreign-oven';
import { someOven } from '../src/roast/simulated-oven';

export interface EventsFound {
  what: 'nothing' | 'door' | 'element' | 'whole degrees';
  air: boolean;
  when: 'early' | 'late';
  of: number;
  /** Share in which it was found (for `nothing` and `whole degrees`: in which something was). */
  stalls: number;
  jumps: number;
  stuck: number;
}

/** Roasts of foreign ovens, clean or with trouble, and what is found in their curves. */
export function findEvents(
  seeds: readonly number[],
  what: EventsFound['what'],
  air: boolean,
  when: EventsFound['when'],
): EventsFound {
  let [stalls, jumps, stuck] = [0, 0, 0];
  for (const seed of seeds) {
    const oven = someOven(seed);
    const chance = stream(seed * 31 + 7);
    const plan = someProgram(chance);
    const total = plan.steps.reduce((sum, { minutes }) => sum + minutes, 0);
    const atMin = when === 'early' ? chance.between(3, 7) : chance.between(total - 9, total - 4);
    const trouble: ForeignTrouble | undefined =
      what === 'door' ? { what, atMin, minutes: 2 } : what === 'element' ? { what, atMin, minutes: 99 } : undefined;
    const curve = roastForeign(oven, { massG: 4500, moisture: 0.07, ...plan }, chance.normal, trouble, 1);
    const whole = what === 'whole degrees';
    const logged = curveOf(
      curve.minutes.map((minute, i) => {
        const [bean, hot] = [curve.beanC[i] ?? NaN, curve.airC[i] ?? NaN];
        const noise = whole ? 0 : 0.4 * chance.normal();
        return [
          Math.round(minute * 60),
          whole ? Math.round(bean) : Math.round(10 * (bean + noise)) / 10,
          air ? hot + 0.6 * chance.normal() : NaN,
        ];
      }),
    );
    const cleaned = clean(logged);
    const smoothed = smooth(cleaned);
    const settings = settingsOf(plan.steps);
    const found = stallsIn(smoothed, settings);
    const near = ({ fromS, toS }: Stall): boolean =>
      trouble === undefined || (fromS / 60 <= atMin + (what === 'door' ? 3 : 6) && toS / 60 >= atMin - 0.5);
    if (found.some(near)) stalls += 1;
    if (jumpsIn(smoothed, settings, found).length > 0) jumps += 1;
    if (cleaned.stuck.length > 0) stuck += 1;
  }
  const of = seeds.length;
  return { what, air, when, of, stalls: stalls / of, jumps: jumps / of, stuck: stuck / of };
}
