import type { OfferedWords } from '../parts/log-words';

/** How steps made here are told of. */
export const log: OfferedWords = {
  temper: {
    name: 'Tempered',
    words: (step, show) => {
      const { meltC, coolC, workC } = step.command as { meltC: number; coolC: number; workC: number };
      return `${show.mass(step.inMg)} in, ${show.temp(meltC)} → ${show.temp(coolC)} → ${show.temp(workC)}`;
    },
  },
  silk: { name: 'Silk made' },
  remelt: { name: 'Sent to remelt' },
};
