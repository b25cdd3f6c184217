import { dewPointC } from '../units/humidity';
import { formatTemperature, type TemperatureUnit } from '../units/temperature';

/** What the bean store should be: usual figures, the maker's own may differ. */
export const STORE_ROOM = { mostC: 25, mostPct: 65, leastPct: 40 } as const;

export interface RoomVerdict {
  tone: 'good' | 'watch' | 'unknown';
  sentence: string;
  todo: string | null;
  dewPointC: number;
}

/**
 * What the air of the bean store does to the sacks.
 *
 * @param tempC room temperature; @param humidityPct relative humidity; @param unit in which it is said
 */
export function judgeRoom(tempC: number, humidityPct: number, unit: TemperatureUnit = 'C'): RoomVerdict {
  const dew = dewPointC(tempC, humidityPct);
  const air = `${formatTemperature(tempC, unit)} at ${humidityPct.toFixed(0)} % humidity`;
  if (humidityPct > STORE_ROOM.mostPct)
    return {
      tone: 'watch',
      sentence: `${air}: beans take up water over ${STORE_ROOM.mostPct} %.`,
      todo: 'Dry the air, and keep the sacks off floor and wall. Measure a sack that has stood there longest.',
      dewPointC: dew,
    };
  if (tempC > STORE_ROOM.mostC)
    return {
      tone: 'watch',
      sentence: `${air}: warm enough for moth to breed fast.`,
      todo: 'Cool the room, and count the traps twice a week while it lasts.',
      dewPointC: dew,
    };
  if (humidityPct < STORE_ROOM.leastPct)
    return { tone: 'watch', sentence: `${air}: dry; shells will turn brittle over weeks.`, todo: null, dewPointC: dew };
  return { tone: 'good', sentence: `${air}: beans keep.`, todo: null, dewPointC: dew };
}
