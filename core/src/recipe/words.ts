/* What recipes are spoken of in. */

export const RECIPE_KINDS = {
  'two-ingredient': 'Two ingredients',
  dark: 'Dark',
  milk: 'Milk',
  'plant-milk': 'Plant milk',
  white: 'White',
  unroasted: 'Unroasted',
  inclusions: 'With inclusions',
  part: 'Part of a filled piece',
  tablet: 'Drinking tablet',
} as const;
export type RecipeKind = keyof typeof RECIPE_KINDS;

/** What can be aimed at or bounded, beside single ingredients. */
export const FIGURES = {
  cocoa: { name: 'Cocoa', unit: '%', most: 100 },
  withoutButter: { name: 'Cocoa without added butter', unit: '%', most: 100 },
  fat: { name: 'Fat', unit: '%', most: 100 },
  cocoaButter: { name: 'Cocoa butter', unit: '%', most: 100 },
  dryCocoa: { name: 'Fat-free cocoa', unit: '%', most: 100 },
  sugar: { name: 'Sugar', unit: '%', most: 100 },
  sweet: { name: 'Sugar and sweeteners', unit: '%', most: 100 },
  milk: { name: 'Milk solids', unit: '%', most: 100 },
  milkFat: { name: 'Milk fat', unit: '%', most: 100 },
  lecithin: { name: 'Lecithin', unit: '%', most: 5 },
  water: { name: 'Water', unit: '%', most: 100 },
  flow: { name: 'Thickness', unit: '×', most: 1000 },
  cost: { name: 'Cost', unit: '', most: 1_000_000 },
} as const;
export type FigureId = keyof typeof FIGURES;
export const FIGURE_IDS = Object.keys(FIGURES) as FigureId[];
