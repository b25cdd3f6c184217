import { dayText } from '../units/zone';
import type { Settings } from '../workshop/schemas';

/** What an hour of work and a kilowatt-hour cost, major units. */
export interface Rates {
  wagePerHour: number;
  energyPerKwh: number;
}

/** The rates that held at a moment: those of the day, in the workshop's zone. */
export function ratesAt(settings: Settings, at: number): Rates {
  const day = dayText(at, settings.timeZone);
  const earlier = settings.earlierRates
    .filter(({ until }) => day < until)
    .sort((a, b) => (a.until < b.until ? -1 : 1))[0];
  return earlier ?? { wagePerHour: settings.wagePerHour, energyPerKwh: settings.energyPerKwh };
}

/**
 * Settings after a change of what work or energy costs: the old rates stay with the days they held for.
 *
 * @param from first day of the new rates, `2026-10-25`; the new ones take the place of any that were to hold later
 */
export function changeRates(old: Settings, next: Settings, from: string): Settings {
  const { wagePerHour, energyPerKwh } = old;
  if (wagePerHour === next.wagePerHour && energyPerKwh === next.energyPerKwh)
    return { ...next, earlierRates: old.earlierRates };
  const kept = old.earlierRates.filter(({ until }) => until < from);
  // What held on the day before: the oldest of those that end later, or what held until now.
  const before =
    old.earlierRates.filter(({ until }) => until >= from).sort((a, b) => (a.until < b.until ? -1 : 1))[0] ?? old;
  return {
    ...next,
    earlierRates: [...kept, { until: from, wagePerHour: before.wagePerHour, energyPerKwh: before.energyPerKwh }],
  };
}
