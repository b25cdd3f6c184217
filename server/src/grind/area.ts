import type { Area } from '../ledger/area';
import { grindDue } from './due';

export const area: Area = {
  due: grindDue,
  things: {
    fill: ({ workshop }, id) => {
      const code = workshop.batches.get(id)?.code ?? '';
      return { words: `grinder fill ${code}`, link: `/batch/${code}` };
    },
  },
  bench: (views) => ({ grinds: views.grinds(true) }),
  workingMg: (views) => views.grinds().reduce((sum, { massMg }) => sum + massMg, 0),
};
