import type { BenchView } from '@wunsch/core/api/types';
import type { Route, Station } from '@wunsch/core/work/stations';

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

/** What a way without a roast, or with a roast of nibs, asks for at a station. */
const UNROASTED: Partial<Record<Station, string>> = {
  winnow: 'Unroasted beans are here: raw shell and dust. Keep tubs, hands and air apart from what is roasted.',
  grind:
    'Unroasted: keep the mass at 42 °C, never over about 47, so grind slower. No heat kills what raw beans carry; the local authority decides.',
  pack: 'Unroasted: what makes it fit to eat has to be shown another way than by a roast; the local authority decides.',
  taste: 'Unroasted: taste only what was made fit to eat another way.',
};
const NIB_ROAST: Partial<Record<Station, string>> = {
  winnow:
    'Nib roast: these beans are raw. The short heat that loosened the shell is no kill step; raw dust travels, so winnow away from what is roasted.',
  roast: 'Nib roast: nibs scorch sooner than beans and smoke early. Thin layer, stir, stay.',
};

/** Cautions for what is at a station now, by the routes that it takes. */
export function routeCautions({ station, waiting, grinds }: BenchView, routes: readonly Route[]): string[] {
  const here = new Set([...waiting.map(({ routeId }) => routeId), ...grinds.map(({ batch }) => batch.routeId)]);
  const taken = routes.filter(({ id }) => here.has(id));
  const unroasted = taken.some(({ stations }) => stations.includes('winnow') && !stations.includes('roast'));
  const nib = taken.some(({ stations }) => {
    const [winnow, roast] = [stations.indexOf('winnow'), stations.indexOf('roast')];
    return winnow >= 0 && roast > winnow;
  });
  return [...(unroasted ? [UNROASTED[station]] : []), ...(nib ? [NIB_ROAST[station]] : [])].filter(
    (text) => text !== undefined,
  );
}
