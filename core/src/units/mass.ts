import { DomainError } from '../errors/domain-error';
import { formatNumber, parseNumber, type DecimalMark } from './number';

/** Milligrams in one gram. Masses are whole milligrams everywhere below the screen. */
export const MG_PER_G = 1000;

/** Grams in one ounce and one pound (international avoirdupois, exact by definition, 1959). */
export const G_PER_OZ = 28.349523125;
export const G_PER_LB = 453.59237;

/** The largest mass the ledger takes in one posting: 100 t. It keeps sums far inside exact integers. */
export const LARGEST_MG = 100_000_000_000;

export const MASS_UNITS = ['g', 'kg', 'oz', 'lb'] as const;
export type MassUnit = (typeof MASS_UNITS)[number];

const GRAMS_PER: Record<MassUnit, number> = { g: 1, kg: 1000, oz: G_PER_OZ, lb: G_PER_LB };

/**
 * Grams to whole milligrams.
 *
 * @param grams any finite number of grams, at most 100 t either way
 * @throws DomainError `units/mass` for NaN, infinities and masses beyond the ledger
 */
export function toMg(grams: number): number {
  const mg = Math.round(grams * MG_PER_G);
  if (!Number.isFinite(mg) || Math.abs(mg) > LARGEST_MG) {
    throw new DomainError('units/mass', `${grams} g is not a mass this ledger can hold.`);
  }
  return mg;
}

/** Milligrams to grams. */
export const toG = (mg: number): number => mg / MG_PER_G;

/** A number in the maker's unit to grams. */
export const gramsFrom = (value: number, unit: MassUnit): number => value * GRAMS_PER[unit];

/** Grams to a number in the maker's unit. */
export const gramsTo = (grams: number, unit: MassUnit): number => grams / GRAMS_PER[unit];

export type MassSystem = 'metric' | 'imperial';

const UNIT_WORDS: Readonly<Record<string, number>> = {
  mg: 0.001,
  g: 1,
  gr: 1,
  gram: 1,
  grams: 1,
  kg: 1000,
  kgs: 1000,
  kilo: 1000,
  kilos: 1000,
  t: 1_000_000,
  oz: G_PER_OZ,
  lb: G_PER_LB,
  lbs: G_PER_LB,
};

/**
 * A weight as people type it, with or without its unit: `1,2 kg`, `1 149 g`, `12.5`.
 *
 * @param unit what a bare number means
 * @returns grams; null when it is empty or cannot be read
 * @example parseMass('1,2 kg', 'g', '.') // 1200
 */
export function parseMass(text: string, unit: MassUnit, mark: DecimalMark): number | null {
  const match = /^(.*?)\s*([a-z]+)?\.?$/i.exec(text.trim());
  const word = match?.[2]?.toLowerCase();
  const per = word === undefined ? GRAMS_PER[unit] : UNIT_WORDS[word];
  const value = parseNumber(word === undefined ? text : (match?.[1] ?? ''), mark);
  return value === null || per === undefined ? null : value * per;
}

/** The one unit in which masses of that size are shown side by side: grams below ten kilograms. */
export function massUnitFor(largestMg: number, system: MassSystem): MassUnit {
  const grams = Math.abs(toG(largestMg));
  if (system === 'metric') return grams < 10_000 ? 'g' : 'kg';
  return grams < 10 * G_PER_LB ? 'oz' : 'lb';
}

/**
 * A weight of sacks for people, in the unit that sacks are weighed in.
 *
 * @example formatHeavy(1200, 'metric', 1) // '1.2 kg'
 */
export function formatHeavy(grams: number, system: MassSystem = 'metric', digits = 1): string {
  const unit = system === 'metric' ? 'kg' : 'lb';
  return `${gramsTo(grams, unit).toFixed(digits)} ${unit}`;
}

/** Digits after the point that a workshop scale of that size shows. */
function decimals(size: number, unit: MassUnit): number {
  if (unit === 'g') return size < 10 ? 1 : 0;
  if (unit === 'oz') return size < 100 ? 2 : 1;
  // Three decimals could be read as thousands: only behind a leading zero.
  return size >= 100 ? 1 : size >= 1 ? 2 : 3;
}

/**
 * A mass for people, with its unit: `840 g`, `5 790 g`, `12.40 kg`, `1 204.0 kg`; `29.63 oz`, `27.34 lb`. No figure
 * has a mark before three digits but behind a zero, so nobody reads thousands for decimals or the other way round.
 *
 * @param mg whole milligrams
 * @param unit the unit of the screen; left out, by size
 */
export function formatMass(mg: number, system: MassSystem = 'metric', unit = massUnitFor(mg, system)): string {
  const value = gramsTo(toG(mg), unit);
  const digits = decimals(Math.abs(value), unit);
  return `${formatNumber(value, digits, unit === 'g' ? 0 : digits)}\u00a0${unit}`;
}

/**
 * What one piece weighs or a cavity holds, to the hundredth of a gram where it was said so. Pieces are typed and declared in
 * grams everywhere; who weighs in ounces reads both.
 *
 * @example formatPiece(12.5, 'metric') // '12.5 g'
 * @example formatPiece(70, 'imperial') // '2.47 oz (70 g)'
 */
export function formatPiece(grams: number, system: MassSystem): string {
  const said = `${Math.round(100 * grams) / 100}\u00a0g`;
  return system === 'metric' ? said : `${formatMass(Math.round(1000 * grams), system)} (${said})`;
}

/**
 * A mass that is read beside another one, in the unit of the larger: nobody compares ounces with pounds.
 *
 * @example formatMassBeside(1_000_000, 12_000_000, 'metric') // '1.00 kg'
 */
export function formatMassBeside(mg: number, besideMg: number, system: MassSystem): string {
  return formatMass(mg, system, massUnitFor(Math.max(Math.abs(mg), Math.abs(besideMg)), system));
}
