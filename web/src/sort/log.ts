import { gramWords, lossWords, type OfferedWords } from '../parts/log-words';

/** How steps made here are told of. */
export const log: OfferedWords = {
  sort: {
    name: 'Sorted',
    // Its piles together, then whatever else was lost.
    words: (step, show) =>
      gramWords(step, show, [
        `${show.mass(step.lines.reduce((sum, line) => (line.loss === 'reject' ? sum + line.massMg : sum), 0))} rejects`,
        ...lossWords(step, show).filter((text) => !text.includes('(')),
      ]),
  },
};
