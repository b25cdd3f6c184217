import { LOSS_NAMES } from '../ledger/types';
import { formatMass, gramsFrom, type MassSystem } from '../units/mass';
import { HEAVY_WORDS, heavyUnit } from '../units/price';
import { STATION_NAMES } from '../work/stations';
import type { LossRow } from './losses';

/**
 * The way in a sentence: what of a kilogram or pound of green beans ends in bars, and what takes the most of the rest,
 * kept or lost.
 *
 * @param way of a kilogram, as `lossWay` says it; @param inBars whether it has been gone to its end
 */
export function lossHeadline(way: readonly LossRow[], inBars: boolean, massSystem: MassSystem = 'metric'): string {
  const last = way.at(-1);
  if (!last) return 'The loss book is empty.';
  const mass = (g: number): string => formatMass(ofHeavy(g, massSystem), massSystem);
  const largest = way
    .flatMap((row) => row.losses.map((loss) => ({ ...loss, station: row.station })))
    .sort((a, b) => b.g - a.g)[0];
  const ends = inBars ? 'end in bars' : `are left after ${STATION_NAMES[last.station]}`;
  const huskG = way.reduce((sum, { byProductG }) => sum + byProductG, 0);
  const kept = huskG > (largest?.g ?? 0) ? ` ${mass(huskG)} is husk, which is kept.` : '';
  const most = largest
    ? ` Most is lost as ${LOSS_NAMES[largest.cause].toLowerCase()} at ${STATION_NAMES[largest.station]}: ${mass(largest.g)}.`
    : '';
  return `Of a ${HEAVY_WORDS[heavyUnit(massSystem)]} of green beans ${mass(last.goesOnG)} ${ends}.${kept}${most}`;
}

/**
 * Milligrams of what is weighed in sacks, a kilogram or a pound.
 *
 * @param g of each kilogram
 * @example ofHeavy(500, 'metric') // 500_000
 */
export const ofHeavy = (g: number, massSystem: MassSystem = 'metric'): number =>
  Math.round(g * gramsFrom(1, heavyUnit(massSystem)));
