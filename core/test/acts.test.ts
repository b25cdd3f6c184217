import { changeAct, planAct } from '../src/grind/acts';
import type { Batch } from '../src/ledger/types';
import { refusal } from './fixtures';

const EMPTY: Batch = {
  id: 'b',
  code: 'B001',
  name: 'Dark',
  routeId: 'whole-bean',
  machineId: null,
  targetMicron: 20,
  cocoaTargetPct: null,
};
const act = (id: string, at: number) => ({ id, what: id, at, personId: 'ann' });
const names = ({ acts = [] }: Batch): string[] => acts.map(({ id }) => id);

test('acts stand in the order in which they are due, also after one was moved', () => {
  const planned = planAct(planAct(EMPTY, act('lid on', 300)), act('sugar in', 200));
  expect(names(planned)).toEqual(['sugar in', 'lid on']);
  expect(names(changeAct(planned, 'sugar in', { at: 400 }, 0))).toEqual(['lid on', 'sugar in']);
  // The batch that was given stays as it was.
  expect(names(planned)).toEqual(['sugar in', 'lid on']);
  expect(EMPTY.acts).toBeUndefined();
});

test('done has its time and can be taken back; dropped is gone; what is gone is told', () => {
  const planned = planAct(EMPTY, act('sugar in', 200));
  const done = changeAct(planned, 'sugar in', { done: true }, 250);
  expect(done.acts?.[0]?.doneAt).toBe(250);
  expect(changeAct(done, 'sugar in', { done: false }, 260).acts?.[0]?.doneAt).toBeNull();
  const dropped = changeAct(done, 'sugar in', { dropped: true }, 270);
  expect(dropped.acts).toEqual([]);
  expect(refusal(() => changeAct(dropped, 'sugar in', { done: true }, 280))).toBe('http/not-found');
});

test('nobody plans more than a hundred acts for a bowl', () => {
  let batch = EMPTY;
  for (let i = 0; i < 100; i += 1) batch = planAct(batch, act(`a${i}`, i));
  expect(refusal(() => planAct(batch, act('one more', 1)))).toBe('grind/too-many-acts');
});
