import type { Screen } from '../parts/screen';
import { TemperBench } from './TemperBench';

export const screen: Screen = {
  Bench: TemperBench,
  cautions: ['A drop of water seizes a bowl; steam near it is enough. Hot fat burns.'],
};
