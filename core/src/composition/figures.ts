import { otherDryPct, type Contents } from '../ledger/contents';

/** Densities, g/ml: fats and the dry matter of each kind. */
const DENSITY = { fat: 0.89, sugar: 1.59, cocoa: 1.45, milk: 1.3, other: 1.45, salt: 2.16, water: 1 } as const;

/** Solids by volume at which nothing flows any more (Krieger and Dougherty; particles of many sizes). */
export const MOST_SOLIDS = 0.68;

/** What some part of goods is, as far as the percentages ask. */
export interface FigurePart {
  share: number;
  /** Null: nobody knows what it is made of. */
  contents: Contents | null;
  /** Of 100 g of it: what counts as cocoa, and what of that is not butter added as such. */
  cocoaPct: number;
  withoutButterPct: number;
}

/** Everything in percent of the whole by weight; the first block adds up to 100. */
export interface Figures {
  cocoaButterPct: number;
  milkFatPct: number;
  otherFatPct: number;
  dryCocoaPct: number;
  sugarPct: number;
  polyolsPct: number;
  dryMilkPct: number;
  saltPct: number;
  waterPct: number;
  otherDryPct: number;
  /** Nobody said what it is made of. */
  unknownPct: number;

  cocoaPct: number;
  withoutButterPct: number;
  fatPct: number;
  milkPct: number;
  lecithinPct: number;
  sugarsPct: number;
  proteinPct: number;
  fibrePct: number;
  /** Solids by volume, 0 to 1, of what is known. */
  solids: number;
  /** Viscosity against that of its fat alone: a comparison with own batches, no viscometer; null: it would not flow. */
  flow: number | null;
}

/** Millilitres of fat and of everything else in 100 g. */
export function volumes(c: Contents): { fatMl: number; solidMl: number } {
  const fatMl = c.fatPct / DENSITY.fat;
  const solidMl =
    c.sugarPct / DENSITY.sugar +
    c.polyolsPct / DENSITY.sugar +
    c.dryCocoaPct / DENSITY.cocoa +
    c.dryMilkPct / DENSITY.milk +
    c.saltPct / DENSITY.salt +
    c.waterPct / DENSITY.water +
    otherDryPct(c) / DENSITY.other;
  return c.densityGPerMl === null ? { fatMl, solidMl } : { fatMl, solidMl: Math.max(0, 100 / c.densityGPerMl - fatMl) };
}

/**
 * Viscosity relative to the liquid alone: (1 − φ/φ_m)^(−2.5 φ_m) (Krieger and Dougherty 1959).
 *
 * @param solids share of solids by volume, 0 to 1
 * @returns null where nothing would flow
 * @example flowOf(0.5) // 9.58
 */
export const flowOf = (solids: number): number | null =>
  solids >= MOST_SOLIDS ? null : (1 - solids / MOST_SOLIDS) ** (-2.5 * MOST_SOLIDS);

/** The share of solids at which the relative viscosity is so much: the inverse of `flowOf`. */
export const solidsAt = (flow: number): number => MOST_SOLIDS * (1 - Math.max(1, flow) ** (-1 / (2.5 * MOST_SOLIDS)));

/**
 * Every percentage of goods, from what their parts are made of.
 *
 * @param parts with their shares by weight, adding up to 1
 */
export function figuresOf(parts: readonly FigurePart[]): Figures {
  const f = {
    cocoaButterPct: 0,
    milkFatPct: 0,
    otherFatPct: 0,
    dryCocoaPct: 0,
    sugarPct: 0,
    polyolsPct: 0,
    dryMilkPct: 0,
    saltPct: 0,
    waterPct: 0,
    otherDryPct: 0,
    unknownPct: 0,
    cocoaPct: 0,
    withoutButterPct: 0,
    lecithinPct: 0,
    sugarsPct: 0,
    proteinPct: 0,
    fibrePct: 0,
    fatPct: 0,
    milkPct: 0,
    solids: 0,
    flow: null as number | null,
  };
  let [fatMl, solidMl] = [0, 0];
  for (const { share, contents: c, cocoaPct, withoutButterPct } of parts) {
    f.cocoaPct += share * cocoaPct;
    f.withoutButterPct += share * withoutButterPct;
    if (c === null) {
      f.unknownPct += 100 * share;
      continue;
    }
    f.cocoaButterPct += share * c.cocoaButterPct;
    f.milkFatPct += share * c.milkFatPct;
    f.otherFatPct += share * Math.max(0, c.fatPct - c.cocoaButterPct - c.milkFatPct);
    f.dryCocoaPct += share * c.dryCocoaPct;
    f.sugarPct += share * c.sugarPct;
    f.polyolsPct += share * c.polyolsPct;
    f.dryMilkPct += share * c.dryMilkPct;
    f.saltPct += share * c.saltPct;
    f.waterPct += share * c.waterPct;
    f.otherDryPct += share * otherDryPct(c);
    f.lecithinPct += share * c.lecithinPct;
    f.sugarsPct += share * c.sugarsPct;
    f.proteinPct += share * c.proteinPct;
    f.fibrePct += share * c.fibrePct;
    const volume = volumes(c);
    fatMl += share * volume.fatMl;
    solidMl += share * volume.solidMl;
  }
  // Of one shape from the beginning: many of them are kept.
  f.fatPct = f.cocoaButterPct + f.milkFatPct + f.otherFatPct;
  f.milkPct = f.dryMilkPct + f.milkFatPct;
  f.solids = fatMl + solidMl > 0 ? solidMl / (fatMl + solidMl) : 0;
  f.flow = flowOf(f.solids);
  return f;
}
