import type { Screen } from '../parts/screen';
import { SortBench } from './SortBench';

export const screen: Screen = {
  Bench: SortBench,
  cautions: ['Stones, wire and string turn up here or in a tooth. Mask against dust.'],
};
