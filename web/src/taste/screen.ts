import { counted, type Screen } from '../parts/screen';
import { TasteBench } from './TasteBench';

export const screen: Screen = {
  Bench: TasteBench,
  cautions: ['Warm water and a pause between pieces. Raw beans are not for tasting.'],
  unroasted: 'Unroasted: taste only what was made fit to eat another way.',
  state: ({ view }) =>
    view.untasted.length === 0
      ? 'Everything on the shelf has been tasted.'
      : `${counted(view.untasted.length, 'batch is', 'batches are')} waiting to be tasted.`,
};
