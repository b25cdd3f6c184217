import { CUT_CLASSES } from '@wunsch/core/beans/cut-test';
import { classOf, classOfKey, CUT_KEYS, mark, tallyOf } from '../src/beans/tally';

test('every class has a key and a mark of its own, and both lead back to it', () => {
  expect(new Set(Object.values(CUT_KEYS)).size).toBe(CUT_CLASSES.length);
  for (const name of CUT_CLASSES) {
    expect(classOfKey(CUT_KEYS[name])).toBe(name);
    expect(classOfKey(CUT_KEYS[name].toUpperCase())).toBe(name);
    expect(classOf(mark(name))).toBe(name);
  }
  expect(classOfKey('1')).toBeUndefined();
});

test('marks add up by class, and taking the last one back undoes the last bean', () => {
  const marks = ['brown', 'brown', 'mouldy', 'flat'].map((name) => mark(name as 'brown')).join('');
  expect(tallyOf(marks)).toMatchObject({ brown: 2, mouldy: 1, flat: 1, slaty: 0 });
  expect(tallyOf(marks.slice(0, -1))).toMatchObject({ brown: 2, mouldy: 1, flat: 0 });
  expect(tallyOf('')).toMatchObject({ brown: 0 });
});
