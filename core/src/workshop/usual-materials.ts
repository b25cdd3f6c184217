import type { Material } from '../ledger/types';

type Usual = Omit<Material, 'id'>;

const ingredient = (name: string, more: Partial<Usual> = {}): Usual => ({
  name,
  kind: 'ingredient',
  cocoa: 'none',
  sugar: false,
  allergens: [],
  ...more,
});
const packaging = (name: string): Usual => ({ ...ingredient(name), kind: 'packaging' });

/** What most workshops have in the pantry, to be taken over by a press and changed; allergens as they usually are. */
export const USUAL_MATERIALS: readonly Usual[] = [
  ingredient('Sugar', { sugar: true }),
  ingredient('Cocoa butter', { cocoa: 'butter' }),
  ingredient('Silk', { cocoa: 'butter' }),
  ingredient('Cocoa powder', { cocoa: 'powder' }),
  ingredient('Couverture', { cocoa: 'couverture' }),
  ingredient('Whole milk powder', { allergens: ['milk'] }),
  ingredient('Oat flour', { allergens: ['gluten'] }),
  ingredient('Hazelnut paste', { allergens: ['hazelnut'], keepsMonths: 6 }),
  ingredient('Almonds', { allergens: ['almond'] }),
  ingredient('Sesame', { allergens: ['sesame'] }),
  ingredient('Lecithin, soy', { allergens: ['soy'] }),
  ingredient('Lecithin, sunflower'),
  ingredient('Vanilla'),
  ingredient('Sea salt'),
  ingredient('Raw cane sugar', { sugar: true }),
  ingredient('Coconut blossom sugar', { sugar: true }),
  ingredient('Muscovado', { sugar: true }),
  ingredient('Erythritol'),
  ingredient('Xylitol'),
  ingredient('Maltitol'),
  ingredient('Inulin'),
  ingredient('Cocoa liquor', { cocoa: 'liquor' }),
  ingredient('Skimmed milk powder', { allergens: ['milk'] }),
  ingredient('Butter oil', { allergens: ['milk'] }),
  ingredient('Coconut milk powder'),
  ingredient('Cinnamon'),
  ingredient('Chilli'),
  ingredient('Cardamom'),
  ingredient('Coffee, ground'),
  ingredient('Freeze-dried raspberry', { keepsMonths: 9 }),
  packaging('Foil'),
  packaging('Wrapper'),
  packaging('Sticker'),
  packaging('Box'),
];
