import type { Book } from '../ledger/book';
import type { Step } from '../ledger/types';

/** One thing that goods can have in common: its kind, and an id that says which. */
export interface SharedThing {
  /** As its room calls it. */
  kind: string;
  /** What it is found by again: a holding, a batch or a step by its id; a part of a holding by that and its number. */
  id: string;
}

/** What goods have in common that got something of a step of one kind. */
export interface StepThings {
  /** Kinds of what begins there. */
  kinds: readonly string[];
  /** Ids of what begins in a step, with their kinds. */
  begins: (step: Step, book: Book) => SharedThing[];
  /** Beside those, what began elsewhere and weighs nothing: no trace of grams meets it. */
  takes?: (step: Step, book: Book) => SharedThing[];
  /** Whether it brings goods here: nobody has done anything with them yet. */
  brings?: true;
  /** Whether finished goods go on in it as others. */
  wraps?: true;
}

/** One thing that begins in each step of a kind. @param idOf what it is found by */
export const oneThing = (kind: string, idOf: (step: Step) => string): StepThings => ({
  kinds: [kind],
  begins: (step) => [{ kind, id: idOf(step) }],
});

/** What a step made. */
export const madeOf = (step: Step): string => step.slots['good'] ?? '';
