import type { Composition } from '../composition/composition';
import type { Figures } from '../composition/figures';
import type { Contents } from '../ledger/contents';
import type { Ingredient } from './ingredient';

/** What 100 g of goods are made of, back from their figures; what nobody knows counts as other dry matter. */
export const contentsOfFigures = (f: Figures): Contents => ({
  fatPct: f.fatPct,
  cocoaButterPct: f.cocoaButterPct,
  milkFatPct: f.milkFatPct,
  dryCocoaPct: f.dryCocoaPct,
  sugarPct: f.sugarPct,
  polyolsPct: f.polyolsPct,
  dryMilkPct: f.dryMilkPct,
  saltPct: f.saltPct,
  waterPct: f.waterPct,
  lecithinPct: f.lecithinPct,
  sugarsPct: f.sugarsPct,
  proteinPct: f.proteinPct,
  fibrePct: f.fibrePct,
  densityGPerMl: null,
});

/** The id under which a bowl's own contents stand among ingredients. */
export const IN_BOWL = 'bowl';

/** What is in a bowl (or any tub) as one ingredient, so that it can be reckoned with like the others. */
export const bowlIngredient = (name: string, composition: Composition, perKgMilli: number | null): Ingredient => ({
  id: IN_BOWL,
  name,
  role: 'bowl',
  contents: contentsOfFigures(composition.figures),
  source: 'from the ledger',
  assumed: composition.figures.unknownPct > 0.01,
  cocoaPct: composition.cocoaPct,
  withoutButterPct: composition.withoutButterPct,
  allergens: composition.allergens,
  perKgMilli,
  lots: composition.lots,
});
