import { CUT_CLASSES, NO_BEANS, TRAY, type CutClass, type Tally } from '@wunsch/core/beans/cut-test';

/** One key a class: they lie under both hands, and the commonest is the longest key. */
export const CUT_KEYS: Record<CutClass, string> = {
  brown: ' ',
  partly: 'j',
  purple: 'k',
  slaty: 'l',
  mouldy: 'f',
  insect: 'd',
  germinated: 's',
  flat: 'a',
};
export const keyName = (name: CutClass): string => (name === 'brown' ? 'space' : CUT_KEYS[name]);

/** Marks are kept in the order in which the beans were cut, one letter each, so that any can be undone. */
const LETTERS: Record<CutClass, string> = {
  brown: 'b',
  partly: 'p',
  purple: 'u',
  slaty: 's',
  mouldy: 'm',
  insect: 'i',
  germinated: 'g',
  flat: 'f',
};
const CLASS_OF = new Map(CUT_CLASSES.map((name) => [LETTERS[name], name]));

export const classOf = (mark: string): CutClass | undefined => CLASS_OF.get(mark);
export const mark = (name: CutClass): string => LETTERS[name];

/** Adds marks up by class. */
export function tallyOf(marks: string): Tally {
  const tally: Tally = { ...NO_BEANS };
  for (const letter of marks) {
    const name = CLASS_OF.get(letter);
    if (name !== undefined) tally[name] += 1;
  }
  return tally;
}

/** Marks added up tray by tray. */
export const traysOf = (marks: string): Tally[] =>
  Array.from({ length: Math.ceil(marks.length / TRAY) }, (_, i) => tallyOf(marks.slice(i * TRAY, (i + 1) * TRAY)));

/** The class that a key stands for. */
export const classOfKey = (key: string): CutClass | undefined =>
  CUT_CLASSES.find((name) => CUT_KEYS[name] === key.toLowerCase());
