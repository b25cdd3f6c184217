import { textOf, type OfferedWords } from '../parts/log-words';

/** How steps made here are told of. */
export const log: OfferedWords = {
  taste: {
    name: 'Tasted',
    words: ({ command }) => {
      const { score, note } = command as { score: number; note?: unknown };
      return `${score} of 10${textOf(note) === '' ? '' : `: ${textOf(note)}`}`;
    },
  },
};
