import type { Area } from '../ledger/area';
import { boughtWords } from '../ledger/thing-words';

const HOUR_MS = 3_600_000;

export const area: Area = {
  things: { ingredient: boughtWords, packaging: boughtWords },
  due: ({ workshop }) =>
    workshop.recipes.openWeighings().map((run) => ({
      id: `weighing-${run.id}`,
      station: 'grind',
      text: `Weigh ${run.plan.name} to its end`,
      link: `/weighing/${run.id}`,
      at: run.startedAt + HOUR_MS,
    })),
};
