import type { HoldingKind } from '@wunsch/core/ledger/types';
import type { Station } from '@wunsch/core/work/stations';

/** How goods look at a station: the material scale, pulp white to bar. */
interface Material {
  /** What stands there. */
  stands: string;
  /** What comes out; null where only samples are taken. */
  made: string | null;
  /** What several steps there are called, where they have a name. */
  steps?: string;
}

export const MATERIAL: Record<Station, Material> = {
  beans: { stands: 'var(--bean)', made: 'var(--bean)' },
  sort: { stands: 'var(--sorted)', made: 'var(--sorted)' },
  roast: { stands: 'var(--sorted)', made: 'var(--roasted)', steps: 'loads' },
  winnow: { stands: 'var(--roasted)', made: 'var(--nib)' },
  grind: { stands: 'var(--nib)', made: 'var(--liquor)' },
  rest: { stands: 'var(--liquor)', made: 'var(--liquor)' },
  temper: { stands: 'var(--block)', made: 'var(--block)' },
  mould: { stands: 'var(--block)', made: 'var(--block)' },
  pack: { stands: 'var(--bar)', made: 'var(--bar)' },
  taste: { stands: 'var(--bar)', made: null },
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
