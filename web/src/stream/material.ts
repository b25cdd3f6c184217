import type { HoldingKind } from '@wunsch/core/ledger/types';
import type { Station } from '@wunsch/core/work/stations';

/** What stands at a station looks like this: the material scale, pulp white to bar. */
export const MATERIAL: Record<Station, string> = {
  beans: 'var(--bean)',
  sort: 'var(--sorted)',
  roast: 'var(--sorted)',
  winnow: 'var(--roasted)',
  grind: 'var(--nib)',
  rest: 'var(--liquor)',
  temper: 'var(--block)',
  mould: 'var(--block)',
  pack: 'var(--bar)',
  taste: 'var(--bar)',
};

/** The same scale by what goods are, for a trace; what joins is leaf, what leaves the house ripe. */
export const TRACE_MATERIAL: Record<HoldingKind | 'buyer' | 'loss', string> = {
  lot: 'var(--bean)',
  beans: 'var(--sorted)',
  roasted: 'var(--roasted)',
  nibs: 'var(--nib)',
  husk: 'var(--bean)',
  mass: 'var(--liquor)',
  block: 'var(--block)',
  tempered: 'var(--block)',
  remelt: 'var(--liquor)',
  bars: 'var(--bar)',
  seconds: 'var(--nib)',
  packed: 'var(--bar)',
  ingredient: 'var(--leaf)',
  packaging: 'var(--leaf)',
  buyer: 'var(--ripe)',
  loss: 'var(--hatch)',
};
