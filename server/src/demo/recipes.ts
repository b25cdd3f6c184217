import type { Recipe } from '@wunsch/core/recipe/records';
import type { Workshop } from '../journal/workshop';
import { ORIGINS, round, type Origin } from './scenario';
import { Doors } from './schedule';

const DAY = 86_400_000;
/** Long before now somebody found the Fiji too thick to pour, and its recipe got more butter. */
const CHANGED = { country: 'Fiji', daysAgo: 160, before: 0.03 };
const BUTTER = 0.055;
const BATCH_G = 20_000;

export const recipeId = ({ lot }: Origin): string => `dark-${lot.country.toLowerCase().replace(/[^a-z]+/g, '-')}`;

/** Butter for each gram of nibs, and the version of the recipe that says so, on a day. */
export function recipeAt({ lot }: Origin, at: number, now: number): { butterShare: number; version: number } {
  if (lot.country !== CHANGED.country) return { butterShare: BUTTER, version: 1 };
  return at < now - CHANGED.daysAgo * DAY
    ? { butterShare: CHANGED.before, version: 1 }
    : { butterShare: BUTTER, version: 2 };
}

function darkOf({ lot, bar, cocoaPct }: Origin, butterShare: number, note: string): Recipe {
  const cocoaG = (BATCH_G * cocoaPct) / 100;
  const nibsG = round(cocoaG / (1 + butterShare));
  const butterG = round(nibsG * butterShare);
  const line = (ingredient: string, grams: number): Recipe['lines'][number] => ({
    ingredient,
    grams,
    atMinutes: null,
    portions: null,
  });
  return {
    name: `${bar} ${cocoaPct} %`,
    kind: 'dark',
    labelPct: cocoaPct,
    routeId: 'whole-bean',
    machineId: 'stone-large',
    targetMicron: 19,
    lines: [line('nibs', nibsG), line('butter', butterG), line('sugar', BATCH_G - nibsG - butterG)],
    limits: [
      { of: 'cocoa', aim: cocoaPct, least: null, most: null, weight: 1 },
      { of: 'share:butter', aim: Number(((100 * butterG) / BATCH_G).toFixed(2)), least: null, most: null, weight: 0.5 },
    ],
    stepG: 5,
    note: lot.country === CHANGED.country ? note : '',
  };
}

/** The recipes that the workshop's bars are made by, with one that changed, and a milk that is being tried. */
export function writeRecipes(workshop: Workshop, from: number, now: number): void {
  const doors = new Doors(workshop.settings);
  const at = (when: number) => new Date(Math.min(doors.beforeClosing(when), now)).toISOString();
  const keep = (id: string, version: number, recipe: Recipe, when: number, personId: string, why = ''): void =>
    void workshop.addRecipeRecord({ kind: 'recipe', recipeId: id, version, recipe, why }, { personId, at: at(when) });
  for (const origin of ORIGINS) {
    const id = recipeId(origin);
    const changed = origin.lot.country === CHANGED.country;
    keep(id, 1, darkOf(origin, changed ? CHANGED.before : BUTTER, ''), from, 'ilse');
    if (changed)
      keep(
        id,
        2,
        darkOf(origin, BUTTER, 'Butter raised: it would not leave the depositor.'),
        now - CHANGED.daysAgo * DAY,
        'perpetua',
        'Too thick to pour: more butter, the percent kept',
      );
  }
  const milk: Recipe = {
    name: 'Harbour milk 48 %',
    kind: 'milk',
    labelPct: 48,
    routeId: 'whole-bean',
    machineId: 'stone-small',
    targetMicron: 18,
    lines: [
      { ingredient: 'nibs', grams: 3050, atMinutes: null, portions: null },
      { ingredient: 'butter', grams: 1750, atMinutes: null, portions: null },
      { ingredient: 'sugar', grams: 2930, atMinutes: null, portions: null },
      { ingredient: 'milk', grams: 2270, atMinutes: null, portions: null },
    ],
    limits: [
      { of: 'cocoa', aim: 48, least: null, most: null, weight: 1 },
      { of: 'milk', aim: 22, least: null, most: null, weight: 1 },
      { of: 'fat', aim: null, least: 38, most: null, weight: 1 },
    ],
    stepG: 5,
    note: 'Not made yet: the small stone is cleaned of milk afterwards, and that is written down.',
  };
  keep('harbour-milk', 1, milk, now - 12 * DAY, 'ilse');
}

/** A ladder of the milk on the lot of which most nibs are there at the time. */
export function planLadder(workshop: Workshop, at: number): void {
  const { book, valuation } = workshop;
  const nibs = [...book.live].map((id) => book.holding(id)).filter(({ kind }) => kind === 'nibs');
  const most = nibs.sort((a, b) => book.balance(b.id).massMg - book.balance(a.id).massMg)[0];
  const lots = most ? [...valuation.makeUp(most.id)].sort(([, a], [, b]) => b - a) : [];
  const ingredient = lots[0] ? `lot:${lots[0][0]}` : 'nibs';
  workshop.addRecipeRecord(
    {
      kind: 'ladder',
      ladderId: 'milk-ladder',
      recipeId: 'harbour-milk',
      name: 'How much milk',
      what: 'Milk solids',
      arms: [18, 22, 26].map((pct) => {
        const milkG = Math.round((1000 * pct) / 97);
        const nibsG = 305;
        const butterG = 175;
        return {
          name: `${pct} %`,
          machineId: null,
          lines: [
            { ingredient, grams: nibsG },
            { ingredient: 'butter', grams: butterG },
            { ingredient: 'sugar', grams: 1000 - nibsG - butterG - milkG },
            { ingredient: 'milk', grams: milkG },
          ],
        };
      }),
    },
    { personId: 'ilse', at: new Date(at).toISOString() },
  );
}
