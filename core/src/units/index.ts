/* Contents: what others use of this room, file by file. Kept by scripts/contents.mjs. */

export { apportion } from './apportion';
export { type Cell, TABLE_OUT, harmlessCell } from './cells';
export { dateFormat, numberFormat } from './formats';
export { dewPointC } from './humidity';
export {
  MASS_UNITS,
  type MassSystem,
  type MassUnit,
  formatHeavy,
  formatMass,
  formatMassBeside,
  formatPiece,
  gramsFrom,
  gramsTo,
  massUnitFor,
  parseMass,
  toMg,
} from './mass';
export { coinDigits, formatMoney, isCurrency, majorFromMilli, milliFromMajor } from './money';
export { DECIMAL_MARKS, type DecimalMark, formatNumber, parseNumber, writeNumber } from './number';
export { HEAVY_WORDS, type HeavyUnit, type Pricing, heavyUnit, perKg, priceOf } from './price';
export { WEIGHT_UNITS, type WeightUnit, guessUnit, readTableDate, readTableNumber } from './table';
export {
  type TemperatureUnit,
  celsiusFrom,
  celsiusTo,
  degreesTo,
  fixedTemperature,
  formatDegrees,
  formatTemperature,
  parseTemperature,
} from './temperature';
export { readDay, readMoment, sayTyped } from './typed-day';
export { clockText, dayIn, dayText, instantOf, localIn, mondayOf, wallClock } from './zone';
