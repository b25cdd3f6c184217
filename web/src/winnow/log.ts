import type { OfferedWords } from '../parts/log-words';

/** How steps made here are told of. */
export const log: OfferedWords = {
  winnow: { name: 'Winnowed' },
};
