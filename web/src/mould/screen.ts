import type { Screen } from '../parts/screen';
import { MouldBench } from './MouldBench';

export const screen: Screen = {
  Bench: MouldBench,
  cautions: [
    'Spirits used to clean or paint moulds are flammable: food grade, ventilated, no flame.',
    'Colder than the dew point of the room, a bar sweats: sugar bloom.',
  ],
};
