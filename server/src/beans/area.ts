import type { Area } from '../ledger/area';
import { beansDue } from './store';

export const area: Area = {
  due: beansDue,
  things: {
    lot: ({ workshop }, id) => {
      const lot = workshop.book.holdings.get(id);
      return { words: `lot ${lot?.code ?? ''}, ${lot?.name ?? ''}`, link: `/lot/${lot?.code ?? ''}` };
    },
  },
};
