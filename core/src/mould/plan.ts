import { dewPointC } from '../units/humidity';
import { formatDegrees, formatTemperature, type TemperatureUnit } from '../units/temperature';
import { barsFrom } from './mould';

/** What a bowl is filled into. */
export interface MouldSet {
  /** Bars a mould, and moulds that are owned. */
  cavities: number;
  owned: number;
  /** Moulds that set at once, and minutes they take; 0 moulds: as many as there are. */
  cabinetMoulds: number;
  setMin: number;
}

/** What a bowl gives. */
export interface MouldPlan {
  bars: number;
  /** Moulds that are filled, the last perhaps not wholly. */
  moulds: number;
  /** How often the moulds that are owned are filled, and how often the cabinet. */
  fills: number;
  runs: number;
  /** Minutes from the first mould in the cabinet to the last one out, at the least. */
  setMin: number;
  overG: number;
}

/**
 * Bars, moulds, fills and cabinet runs of a bowl.
 *
 * @param chocolateG in the bowl; @param holdUpG that stays in it; @param barG a bar
 * @example planMoulds(9000, 200, 70, { cavities: 3, owned: 20, cabinetMoulds: 20, setMin: 25 }) // 125 bars, 42 moulds, 3 fills
 */
export function planMoulds(chocolateG: number, holdUpG: number, barG: number, set: MouldSet): MouldPlan {
  const { bars, overG } = barsFrom(chocolateG, holdUpG, barG, set.cavities);
  const moulds = set.cavities > 0 ? Math.ceil(bars / set.cavities) : 0;
  const atOnce = set.owned > 0 ? set.owned : moulds;
  const inCabinet = set.cabinetMoulds > 0 ? Math.min(set.cabinetMoulds, Math.max(1, atOnce)) : Math.max(1, atOnce);
  const runs = moulds === 0 ? 0 : Math.ceil(moulds / inCabinet);
  return {
    bars,
    moulds,
    fills: moulds === 0 ? 0 : Math.ceil(moulds / Math.max(1, atOnce)),
    runs,
    setMin: runs * set.setMin,
    overG,
  };
}

/** What the air and the moulds say before anything is filled. */
export interface Warning {
  id: 'sweat' | 'damp' | 'cold-mould' | 'warm-mould' | 'warm-set';
  sentence: string;
  todo: string;
}

/** Moulds are warm enough from, and too warm over; a place is too warm to set over, °C; air is damp over, % RH. */
const MOULD_C = { least: 18, most: 30 };
const SET_MOST_C = 21;
const DAMP_PCT = 60;
/** So close to the dew point it sweats where the sensor is a little off, °C. */
const CLOSE_C = 1;

/** What would go wrong with the set, before the mistake. Whatever is not known is not judged. */
export function setWarnings(
  {
    mouldC,
    setC,
    air,
  }: {
    mouldC: number | null;
    setC: number | null;
    air: { tempC: number; humidityPct: number | null } | null;
  },
  unit: TemperatureUnit = 'C',
): Warning[] {
  const c = (value: number): string => formatTemperature(Math.round(10 * value) / 10, unit);
  const found: Warning[] = [];
  const dew = air?.humidityPct == null ? null : dewPointC(air.tempC, air.humidityPct);
  if (dew !== null && setC !== null && setC < dew + CLOSE_C)
    found.push({
      id: 'sweat',
      sentence:
        setC < dew
          ? `Bars that set at ${c(setC)} will sweat in this room: its dew point is ${c(dew)}.`
          : `Bars that set at ${c(setC)} come within ${formatDegrees(setC - dew, unit)} of the dew point, ${c(dew)}.`,
      todo: `Set over ${c(dew + 2)}, dry the room, or let them come to it in a closed box.`,
    });
  if (air?.humidityPct != null && air.humidityPct > DAMP_PCT)
    found.push({
      id: 'damp',
      sentence: `The room has ${air.humidityPct.toFixed(0)} % humidity: over ${DAMP_PCT} sugar bloom threatens.`,
      todo: 'Dry it, or wait for a drier hour.',
    });
  if (mouldC !== null && mouldC < MOULD_C.least)
    found.push({
      id: 'cold-mould',
      sentence: `Moulds at ${c(mouldC)} shock the skin: dull patches.`,
      todo: `Warm them to ${c(20)} to ${c(26)}.`,
    });
  if (mouldC !== null && mouldC > MOULD_C.most)
    found.push({
      id: 'warm-mould',
      sentence: `Moulds at ${c(mouldC)} melt the crystal where they touch it: bars stick.`,
      todo: `Let them come down to ${c(26)}.`,
    });
  if (setC !== null && setC > SET_MOST_C)
    found.push({
      id: 'warm-set',
      sentence: `At ${c(setC)} it sets too slowly: streaks, and bars that stick.`,
      todo: `Set at ${c(12)} to ${c(18)}, in moving air.`,
    });
  return found;
}
