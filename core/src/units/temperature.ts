export type TemperatureUnit = 'C' | 'F';

/** °F to °C. */
export const celsiusFrom = (value: number, unit: TemperatureUnit): number =>
  unit === 'C' ? value : ((value - 32) * 5) / 9;

/** °C to the maker's unit. */
export const celsiusTo = (celsius: number, unit: TemperatureUnit): number =>
  unit === 'C' ? celsius : (celsius * 9) / 5 + 32;

/** A temperature for people: `31.5 °C`, `88.7 °F`. */
export function formatTemperature(celsius: number, unit: TemperatureUnit = 'C'): string {
  const value = celsiusTo(celsius, unit);
  return `${value.toLocaleString('en-GB', { maximumFractionDigits: 1 })}\u00a0°${unit}`;
}
