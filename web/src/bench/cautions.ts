import type { Station } from '@wunsch/core/workshop/stations';

/** The usual cautions, at the place where they matter. Local codes and licensed practice decide. */
export const CAUTIONS: Record<Station, readonly string[]> = {
  beans: [
    'Raw beans are not ready to eat: they can carry pathogens. Keep raw and roasted apart: hands, tubs, air.',
    'A full sack weighs 60 kg and more. Lift it with two, or a hoist.',
  ],
  sort: ['Stones, wire and string turn up here or in a tooth. Mask against dust.'],
  roast: [
    'Never leave a roast: beans and husk burn. Trays, drums and smoke are hot.',
    'A roast is a kill step only if it was validated for this load; your food-safety plan decides.',
  ],
  winnow: [
    'Dust and husk: mask on, no flame near. Husk comes from the raw side; what it may be sold for is for the local authority.',
  ],
  grind: [
    'Pinch and entanglement: guards on, hair and sleeves tied. Above about 85 dB wear ear protection.',
    'Before a long unattended run: wiring, heat, and a cut-out that has been tested.',
    'Shared stones carry allergens over: look at what they ran last and how they were cleaned.',
  ],
  rest: ['Dark, dry, away from smells. Label every block.'],
  temper: ['A drop of water seizes a bowl; steam near it is enough. Hot fat burns.'],
  mould: [
    'Spirits used to clean or paint moulds are flammable: food grade, ventilated, no flame.',
    'Colder than the dew point of the room, a bar sweats: sugar bloom.',
  ],
  pack: [
    'Allergens, weights, claims and the date on a label: the local authority decides. Chocolate is toxic to dogs.',
  ],
  taste: ['Warm water and a pause between pieces. Raw beans are not for tasting.'],
};
