import type { Views } from './views';

/** Something that goods can have in common, in words, and where it is looked at. */
export interface ThingWords {
  words: string;
  link: string | null;
}
export type ThingWordsOf = (views: Views, id: string) => ThingWords;

/** A holding by its code. @param link where it is looked at, before the code */
export const holdingWords =
  (word: string, link: string): ThingWordsOf =>
  ({ workshop }, id) => {
    const code = workshop.book.holdings.get(id)?.code ?? '';
    return { words: `${word} ${code}`, link: `${link}/${code}` };
  };

/** A step by the code of what it made. */
export const stepWords =
  (word: string): ThingWordsOf =>
  ({ workshop: { book } }, id) => ({
    words: `${word} ${book.holdings.get(book.steps.get(id)?.slots['good'] ?? '')?.code ?? ''}`,
    link: `/step/${id}`,
  });

/** What was bought, by its name and its code. */
export const boughtWords: ThingWordsOf = ({ workshop }, id) => {
  const holding = workshop.book.holdings.get(id);
  return { words: `${holding?.name ?? ''} ${holding?.code ?? ''}`, link: `/tub/${holding?.code ?? ''}` };
};
