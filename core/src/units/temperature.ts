import { formatNumber, parseNumber, type DecimalMark } from './number';

export type TemperatureUnit = 'C' | 'F';

/** °F to °C. */
export const celsiusFrom = (value: number, unit: TemperatureUnit): number =>
  unit === 'C' ? value : ((value - 32) * 5) / 9;

/** °C to the maker's unit. */
export const celsiusTo = (celsius: number, unit: TemperatureUnit): number =>
  unit === 'C' ? celsius : (celsius * 9) / 5 + 32;

/**
 * A temperature as people type it: `31,5`, `150 °C`, `302F`.
 *
 * @param unit what a bare number means
 * @returns °C; null when it is empty or cannot be read
 */
export function parseTemperature(text: string, unit: TemperatureUnit, mark: DecimalMark): number | null {
  const match = /^(.*?)\s*°?\s*([CF])?$/i.exec(text.trim());
  const value = parseNumber(match?.[1] ?? '', mark);
  return value === null ? null : celsiusFrom(value, (match?.[2]?.toUpperCase() as TemperatureUnit | undefined) ?? unit);
}

/** A temperature for people: `31.5 °C`, `88.7 °F`. */
export function formatTemperature(celsius: number, unit: TemperatureUnit = 'C'): string {
  const value = celsiusTo(celsius, unit);
  return `${formatNumber(value, 1, 0).replace('-', '−')}\u00a0°${unit}`;
}

/** A temperature to so many decimals, always: `120.0 °C`. */
export const fixedTemperature = (celsius: number, unit: TemperatureUnit = 'C', digits = 1): string =>
  `${celsiusTo(celsius, unit).toFixed(digits)} °${unit}`;

/** A difference of temperatures (or an area, °·min) in the maker's unit; no zero is moved. */
export const degreesTo = (difference: number, unit: TemperatureUnit): number =>
  unit === 'C' ? difference : (difference * 9) / 5;

/** How far two temperatures lie apart, for people: `1.8 °C`, `3.2 °F`; without its sign. */
export const formatDegrees = (difference: number, unit: TemperatureUnit = 'C', digits = 1): string =>
  `${Math.abs(degreesTo(difference, unit)).toFixed(digits)} °${unit}`;
