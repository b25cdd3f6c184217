import { counted, type Screen } from '../parts/screen';
import { BeansBench } from './BeansBench';

export const screen: Screen = {
  Bench: BeansBench,
  cautions: [
    'Raw beans are not ready to eat: they can carry pathogens. Keep raw and roasted apart: hands, tubs, air.',
    ({ sack }) => `A full sack weighs ${sack(60_000)} and more. Lift it with two, or a hoist.`,
  ],
  state: ({ view, mass, waitingMg }) =>
    view.waiting.length === 0
      ? 'No beans in the house yet.'
      : `${mass(waitingMg)} in ${counted(view.waiting.length, 'lot', 'lots')}.`,
};
