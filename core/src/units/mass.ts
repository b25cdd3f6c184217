import { DomainError } from '../errors/domain-error';

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

/** Digits after the point that a workshop scale of that size shows. */
function decimals(value: number, unit: MassUnit): number {
  const size = Math.abs(value);
  if (unit === 'g') return size < 10 ? 1 : 0;
  if (size >= 100) return unit === 'kg' || unit === 'lb' ? 1 : 0;
  return size >= 10 ? 2 : unit === 'oz' ? 2 : 3;
}

/**
 * A mass for people, with its unit: `840 g`, `12.40 kg`, `1,204.0 kg`; `29.63 oz`, `27.34 lb`.
 *
 * @param mg whole milligrams
 */
export function formatMass(mg: number, system: MassSystem = 'metric'): string {
  const grams = toG(mg);
  const small = Math.abs(grams) < (system === 'metric' ? 1000 : G_PER_LB);
  const unit: MassUnit = system === 'metric' ? (small ? 'g' : 'kg') : small ? 'oz' : 'lb';
  const value = gramsTo(grams, unit);
  const digits = decimals(value, unit);
  return `${value.toLocaleString('en-GB', {
    minimumFractionDigits: unit === 'g' ? 0 : digits,
    maximumFractionDigits: digits,
  })}\u00a0${unit}`;
}
