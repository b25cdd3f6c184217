import { createContext, useContext } from 'react';
import type { WorkshopView } from '@wunsch/core/api/types';
import { dateFormat } from '@wunsch/core/units/formats';
import {
  formatHeavy,
  formatMass,
  formatPiece,
  gramsFrom,
  gramsTo,
  massUnitFor,
  type MassUnit,
} from '@wunsch/core/units/mass';
import { formatNumber } from '@wunsch/core/units/number';
import { formatMoney } from '@wunsch/core/units/money';
import { HEAVY_WORDS, heavyUnit, priceOf, type HeavyUnit } from '@wunsch/core/units/price';
import { clockText, instantOf } from '@wunsch/core/units/zone';
import { celsiusFrom, celsiusTo, formatTemperature } from '@wunsch/core/units/temperature';
import { priceText } from './number';

/** Settings and lists that every screen needs, and who is at the bench. */
export interface Here {
  view: WorkshopView;
  personId: string | null;
  choosePerson: (id: string) => void;
}

export const HereContext = createContext<Here | null>(null);

export function useHere(): Here {
  const here = useContext(HereContext);
  if (!here) throw new Error('useHere outside the frame');
  return here;
}

export interface Show {
  mass: (mg: number) => string;
  /** A weight that is read beside a larger one: in the same unit. */
  massBeside: (mg: number, largerMg: number) => string;
  /** The weight of one piece, in the unit of its own size whatever the screen's is. */
  pieceMass: (mg: number) => string;
  /** The same as it was said: `12.5 g`, where that would be 13. @param grams of one */
  piece: (grams: number) => string;
  money: (milli: number) => string;
  /** A price of a kilogram, as it is said of the weight in `heavy`. */
  price: (perKgMilli: number) => string;
  /** A price of a kilogram in any money, with what it is said of: `5.1 USD a kg`. */
  priceIn: (perKg: number, currency: string) => string;
  temp: (c: number) => string;
  /** `°C` or `°F`. */
  tempUnit: string;
  /** What was typed as a temperature, in °C. */
  toCelsius: (typed: number) => number;
  /** A temperature as it is shown and typed here. */
  fromCelsius: (c: number) => number;
  day: (at: number) => string;
  time: (at: number) => string;
  moment: (at: number) => string;
  percent: (share: number, digits?: number) => string;
  /** The instant that a typed time means by the workshop's clock, as it is sent; undefined for none or nonsense. */
  instant: (text: string) => string | undefined;
  /** The same for what the server judges: what cannot be read goes as it was typed, and is refused at its field. */
  sent: (text: string) => string | undefined;
  /** A moment as a time field wants it, by the workshop's clock. */
  clock: (at: number) => string;
  /** Kilograms or pounds, as sacks are weighed and priced here; and that in a word. */
  heavy: HeavyUnit;
  heavyWord: string;
  /** A whole weight in it: `60 kg`, `132 lb`. */
  sack: (grams: number) => string;
  gramsFromHeavy: (value: number) => number;
  heavyFromGrams: (grams: number) => number;
}

/** The one unit in which a screen shows and takes weights, chosen by the largest on it; null: each by its size. */
export const MassUnitHere = createContext<MassUnit | null>(null);

/** The unit of a screen, from everything that is weighed on it. @param masses mg; none while it is fetched */
export function useUnitOf(masses: readonly number[]): MassUnit {
  const { massSystem } = useHere().view.settings;
  return massUnitFor(Math.max(0, ...masses), massSystem);
}

/** How many of something: `4 246`. */
export const count = (value: number): string => formatNumber(value);

/** Figures as this workshop wants them: units, currency, time zone. @param unit of masses, where the screen has none */
export function useShow(unit?: MassUnit): Show {
  const screen = useContext(MassUnitHere);
  const { settings } = useHere().view;
  const { timeZone, massSystem, temperatureUnit, currency } = settings;
  const format = (options: Intl.DateTimeFormatOptions) => {
    const formatter = dateFormat({ timeZone, ...options });
    return (at: number): string => formatter.format(at);
  };
  const day = format({ day: 'numeric', month: 'short', year: 'numeric' });
  const time = format({ hour: '2-digit', minute: '2-digit' });
  const short = format({ weekday: 'short', day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' });
  const heavy = heavyUnit(massSystem);
  const instant = (text: string): string | undefined => {
    const at = text === '' ? null : instantOf(text, timeZone);
    return at === null ? undefined : new Date(at).toISOString();
  };
  return {
    heavy,
    heavyWord: HEAVY_WORDS[heavy],
    sack: (grams) => formatHeavy(grams, massSystem, 0),
    gramsFromHeavy: (value) => gramsFrom(value, heavy),
    heavyFromGrams: (grams) => gramsTo(grams, heavy),
    mass: (mg) => formatMass(mg, massSystem, unit ?? screen ?? undefined),
    massBeside: (mg, largerMg) => formatMass(mg, massSystem, unit ?? screen ?? massUnitFor(largerMg, massSystem)),
    pieceMass: (mg) => formatMass(mg, massSystem),
    piece: (grams) => formatPiece(grams, massSystem),
    money: (milli) => formatMoney(milli, currency),
    priceIn: (perKg, money) => `${priceText(perKg, heavy)} ${money} a ${heavy}`,
    price: (perKgMilli) => formatMoney(priceOf(perKgMilli, heavy), currency),
    temp: (c) => formatTemperature(c, temperatureUnit),
    tempUnit: `°${temperatureUnit}`,
    toCelsius: (value) => celsiusFrom(value, temperatureUnit),
    fromCelsius: (c) => celsiusTo(c, temperatureUnit),
    day,
    time,
    moment: (at) => (Math.abs(Date.now() - at) > 300 * 86_400_000 ? `${day(at)}, ${time(at)}` : short(at)),
    instant,
    sent: (text) => (text === '' ? undefined : (instant(text) ?? text)),
    clock: (at) => clockText(at, timeZone),
    percent: (share, digits = 1) => `${(100 * share).toFixed(digits)}\u00a0%`,
  };
}

/** `3 h 20 min`, `12 days`: how long something is, roughly. */
export function span(ms: number): string {
  const minutes = Math.round(Math.abs(ms) / 60_000);
  if (minutes < 60) return `${minutes}\u00a0min`;
  const hours = Math.floor(minutes / 60);
  if (hours < 24)
    return minutes % 60 === 0 || hours > 9 ? `${hours}\u00a0h` : `${hours}\u00a0h\u00a0${minutes % 60}\u00a0min`;
  const days = Math.round(hours / 24);
  return `${days}\u00a0${days === 1 ? 'day' : 'days'}`;
}
