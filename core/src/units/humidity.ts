/**
 * Dew point of air.
 *
 * Magnus formula with the constants of Sonntag (1990), 17.62 and 243.12 °C.
 *
 * @param tempC −45…60; @param humidityPct relative, over 0 to 100
 * @returns °C
 */
export function dewPointC(tempC: number, humidityPct: number): number {
  const gamma = Math.log(humidityPct / 100) + (17.62 * tempC) / (243.12 + tempC);
  return (243.12 * gamma) / (17.62 - gamma);
}
