import type { Screen } from '../parts/screen';
import { WinnowBench } from './WinnowBench';

export const screen: Screen = {
  Bench: WinnowBench,
  cautions: [
    'Dust and husk: mask on, no flame near. Husk comes from the raw side; what it may be sold for is for the local authority.',
  ],
  unroasted: 'Unroasted beans are here: raw shell and dust. Keep tubs, hands and air apart from what is roasted.',
  nibRoast:
    'Nib roast: these beans are raw. The short heat that loosened the shell is no kill step; raw dust travels, so winnow away from what is roasted.',
};
