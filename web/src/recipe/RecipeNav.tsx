import { SubNav } from '../parts/SubNav';

const PLACES = [
  ['/recipes', 'Recipes'],
  ['/ingredients', 'Ingredients'],
] as const;

export const RecipeNav = () => <SubNav name="Recipes" places={PLACES} />;
