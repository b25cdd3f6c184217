import type { Screen } from '../parts/screen';
import { Cooling } from './Cooling';
import { RoastBench } from './RoastBench';

export const screen: Screen = {
  Bench: RoastBench,
  elsewhere: { winnow: Cooling },
  cautions: [
    'Never leave a roast: beans and husk burn. Trays, drums and smoke are hot.',
    'A roast is a kill step only if it was validated for this load; your food-safety plan decides.',
  ],
  nibRoast: 'Nib roast: nibs scorch sooner than beans and smoke early. Thin layer, stir, stay.',
};
