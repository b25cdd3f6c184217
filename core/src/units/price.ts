import { gramsTo, type MassSystem } from './mass';

/* Prices by weight: of a kilogram below the screen, of a kilogram or a pound on it. */

/** What sacks are weighed in, and what a price by weight is said of. */
export type HeavyUnit = 'kg' | 'lb';

export const heavyUnit = (system: MassSystem = 'metric'): HeavyUnit => (system === 'metric' ? 'kg' : 'lb');

export const HEAVY_WORDS: Record<HeavyUnit, string> = { kg: 'kilogram', lb: 'pound' };

/** How a workshop says prices: in which money, and of a kilogram or a pound. */
export interface Pricing {
  /** ISO 4217 code. */
  currency: string;
  massSystem?: MassSystem | undefined;
}

/**
 * A price of a kilogram, as it is said of another weight; any money.
 *
 * @example Number(priceOf(10, 'lb').toFixed(2)) // 4.54
 */
export const priceOf = (perKg: number, unit: HeavyUnit): number => perKg / gramsTo(1000, unit);

/**
 * The price of a kilogram that a price of another weight means.
 *
 * @example Number(perKg(4.54, 'lb').toFixed(2)) // 10.01
 */
export const perKg = (price: number, unit: HeavyUnit): number => price * gramsTo(1000, unit);
