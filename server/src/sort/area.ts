import type { Area } from '../ledger/area';

export const area: Area = {
  workWords: () => 'Weigh out the sorted beans',
  things: {
    sack: ({ workshop }, id) => {
      const [lotId = '', no = ''] = id.split(' ');
      const lot = workshop.book.holdings.get(lotId);
      return { words: `sack ${no} of ${lot?.code ?? 'its lot'}`, link: `/lot/${lot?.code ?? ''}` };
    },
  },
};
