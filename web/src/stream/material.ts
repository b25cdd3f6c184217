import type { Station } from '@wunsch/core/workshop/stations';

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
