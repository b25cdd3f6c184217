import type { Screen } from '../parts/screen';
import { GrindBench } from './GrindBench';

export const screen: Screen = {
  Bench: GrindBench,
  cautions: [
    'Pinch and entanglement: guards on, hair and sleeves tied. Above about 85 dB wear ear protection.',
    'Before a long unattended run: wiring, heat, and a cut-out that has been tested.',
    'Shared stones carry allergens over: look at what they ran last and how they were cleaned.',
  ],
  unroasted: ({ temp }) =>
    `Unroasted: keep the mass at ${temp(42)}, never over about ${temp(47)}, so grind slower. No heat kills what raw beans carry; the local authority decides.`,
};
