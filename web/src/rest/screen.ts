import { counted, type Screen } from '../parts/screen';
import { RestBench } from './RestBench';

export const screen: Screen = {
  Bench: RestBench,
  cautions: ['Dark, dry, away from smells. Label every block.'],
  state: ({ free, mass, waitingMg }) =>
    free.length === 0
      ? 'The shelf is empty.'
      : `${mass(waitingMg)} on the shelf in ${counted(free.length, 'block', 'blocks')}.`,
};
