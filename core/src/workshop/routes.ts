import type { Route } from '../work/stations';

/**
 * Route templates for the schools of the trade. They are starting points: a workshop copies and
 * changes them, and every batch keeps the route it was started on.
 */
export const ROUTE_TEMPLATES: readonly Route[] = [
  {
    id: 'whole-bean',
    name: 'Whole bean, rested',
    note: 'Roast whole, crack and winnow, stone-grind and conche in one machine, rest as blocks, temper, mould.',
    stations: ['beans', 'sort', 'roast', 'winnow', 'grind', 'rest', 'temper', 'mould', 'pack', 'taste'],
  },
  {
    id: 'straight-through',
    name: 'Whole bean, not rested',
    note: 'As whole bean, but the grinder is poured straight into the temper: no blocks on the shelf.',
    stations: ['beans', 'sort', 'roast', 'winnow', 'grind', 'temper', 'mould', 'pack', 'taste'],
  },
  {
    id: 'nib-roast',
    name: 'Nib roast',
    note: 'A short heat loosens the shell, nibs are roasted afterwards. Roast the nibs as a second load. Raw shell dust travels further: keep raw and roasted apart.',
    stations: ['beans', 'sort', 'winnow', 'roast', 'grind', 'rest', 'temper', 'mould', 'pack', 'taste'],
  },
  {
    id: 'unroasted',
    name: 'Unroasted',
    note: 'No roast, so no kill step: what makes it fit to eat must be shown another way, and the local authority decides. Keep the mass at 42 °C, never over about 47.',
    stations: ['beans', 'sort', 'winnow', 'grind', 'rest', 'temper', 'mould', 'pack', 'taste'],
  },
  {
    id: 'from-nibs',
    name: 'From bought nibs',
    note: 'Nibs come in ready; the work starts at the grinder.',
    stations: ['beans', 'grind', 'rest', 'temper', 'mould', 'pack', 'taste'],
  },
  {
    id: 'tablet',
    name: 'Stone-ground drinking tablet',
    note: 'Coarse on purpose: one pass over the stones, pressed into tablets without tempering.',
    stations: ['beans', 'sort', 'roast', 'winnow', 'grind', 'mould', 'pack', 'taste'],
  },
  {
    id: 'couverture',
    name: 'Blocks only',
    note: 'Ground and poured into untempered blocks for a pastry kitchen; the kitchen tempers.',
    stations: ['beans', 'sort', 'roast', 'winnow', 'grind', 'rest', 'pack', 'taste'],
  },
];
