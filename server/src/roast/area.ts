import type { Area } from '../ledger/area';
import { holdingWords } from '../ledger/thing-words';
import { coolingViews, roastDue } from './due';

export const area: Area = {
  things: { load: holdingWords('roast load', '/roasting/load') },
  workWords: () => 'Roast load: take out and weigh',
  workDue: (views, { work, code, link }) => {
    const act = roastDue(views, work, code, link);
    return act ? [act] : [];
  },
  due: (views) =>
    coolingViews(views).map(({ code, coolAt }) => ({
      id: `cool-${code}`,
      station: 'roast',
      text: `${code} is cool, to be cracked`,
      link: `/tub/${code}`,
      at: coolAt,
    })),
};
