import type { Screen } from '../parts/screen';
import { count } from '../parts/workshop';
import { PackBench } from './PackBench';

export const screen: Screen = {
  Bench: PackBench,
  cautions: [
    'Allergens, weights, claims and the date on a label: the local authority decides. Chocolate is toxic to dogs.',
  ],
  unroasted:
    'Unroasted: what makes it fit to eat has to be shown another way than by a roast; the local authority decides.',
  state: ({ free }) =>
    free.length === 0
      ? 'Nothing waits to be packed.'
      : `${count(free.reduce((sum, { pieces }) => sum + pieces, 0))} bars wait to be packed${free.some(({ pieces }) => pieces === 0) ? ', and what is weighed into packs' : ''}.`,
};
