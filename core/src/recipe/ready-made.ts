import type { Role } from './ingredient';
import type { Limit } from './records';
import { limit } from './records';
import type { RecipeKind } from './words';

/** Something that a ready-made recipe wants: by what it does, and a word of its name where that decides. */
export interface Wanted {
  role: Role;
  word?: RegExp;
  /** What it is called where there is none here. */
  name: string;
}

export interface ReadyMade {
  name: string;
  kind: RecipeKind;
  reason: string;
  labelPct: number | null;
  wants: readonly Wanted[];
  limits: readonly Limit[];
}

const want = (of: string, given: Partial<Omit<Limit, 'of'>>): Limit => limit.parse({ of, ...given });
const NIBS: Wanted = { role: 'nibs', name: 'Nibs' };
const SUGAR: Wanted = { role: 'sugar', name: 'Sugar' };
const BUTTER: Wanted = { role: 'butter', name: 'Cocoa butter' };
const MILK: Wanted = { role: 'milk', name: 'Whole milk powder' };

/** One to start from for each school; all of it can be changed. */
export const READY_MADE_RECIPES: readonly ReadyMade[] = [
  {
    name: 'Dark 72 %, two ingredients',
    kind: 'two-ingredient',
    reason: 'Nibs and sugar, nothing else: thick on the stones, clear in the mouth.',
    labelPct: 72,
    wants: [NIBS, SUGAR],
    limits: [want('cocoa', { aim: 72 })],
  },
  {
    name: 'Dark 70 % with butter',
    kind: 'dark',
    reason: 'A little cocoa butter so that it flows into moulds; the percent counts it, and says what it is without.',
    labelPct: 70,
    wants: [NIBS, BUTTER, SUGAR],
    limits: [want('cocoa', { aim: 70 }), want('fat', { least: 40 })],
  },
  {
    name: 'Milk 48 %',
    kind: 'milk',
    reason: 'A third more cocoa than most, milk enough to be called so.',
    labelPct: 48,
    wants: [NIBS, BUTTER, SUGAR, MILK],
    limits: [want('cocoa', { aim: 48 }), want('milk', { aim: 22 }), want('fat', { least: 36 })],
  },
  {
    name: 'Oat 55 %',
    kind: 'plant-milk',
    reason: 'Oat in the place of milk: dry it first, and mind gluten where the oats are not pure.',
    labelPct: 55,
    wants: [NIBS, BUTTER, SUGAR, { role: 'other', word: /oat/i, name: 'Oat flour' }],
    limits: [want('cocoa', { aim: 55 }), want('fat', { least: 38 }), want('sugar', { most: 32 })],
  },
  {
    name: 'White 34 %',
    kind: 'white',
    reason: 'Cocoa butter, milk and sugar; no fat-free cocoa.',
    labelPct: 34,
    wants: [BUTTER, SUGAR, MILK],
    limits: [want('cocoa', { aim: 34 }), want('milk', { aim: 26 })],
  },
  {
    name: 'Unroasted 80 %',
    kind: 'unroasted',
    reason:
      'Kept cool on the stones. No kill step: what makes it fit to eat is shown another way, and the local authority decides.',
    labelPct: 80,
    wants: [NIBS, SUGAR],
    limits: [want('cocoa', { aim: 80 })],
  },
  {
    name: 'Drinking tablet with cinnamon',
    kind: 'tablet',
    reason: 'Coarse, half sugar, a spice; sweetened by taste while it is ground.',
    labelPct: 52,
    wants: [NIBS, SUGAR, { role: 'other', word: /cinnamon|spice/i, name: 'Cinnamon' }],
    limits: [want('cocoa', { aim: 52 }), want('sugar', { aim: 47 })],
  },
];
