import { textOf, type OfferedWords } from '../parts/log-words';
import { count } from '../parts/workshop';

/** How steps made here are told of. */
export const log: OfferedWords = {
  buy: { name: 'Bought' },
  open: { name: 'Opening stock' },
  adjust: { name: 'Counted' },
  sell: {
    name: 'Sold',
    words: (step, show) => {
      const { use, to } = step.command as { use?: unknown; to?: unknown };
      const whom = textOf(to) === '' ? '' : `, ${textOf(to)}`;
      if (textOf(use) !== '' && use !== 'sold') return `${show.mass(step.inMg)} ${textOf(use)}${whom}`;
      const pieces = step.lines.reduce((sum, line) => sum - line.pieces, 0);
      const what = pieces > 0 ? `${count(pieces)} ${pieces === 1 ? 'piece' : 'pieces'}` : show.mass(step.inMg);
      return `${what} for ${show.money(step.cost.revenueMilli)}${whom}`;
    },
  },
  return: {
    name: 'Sent back',
    words: (step, show) => {
      const { pieces = 0, fate, why } = step.command as { pieces?: number; fate: string; why: string };
      const what = pieces > 0 ? count(pieces) : show.mass(Math.abs(step.goodMg));
      return `${what} sent back, ${fate === 'back' ? 'into the store' : 'thrown away'}${why === '' ? '' : `: ${why}`}`;
    },
  },
};
