import fc from 'fast-check';
import { comesBefore, type Past } from '../src/ledger/entries';
import { Steps } from '../src/ledger/steps';
import { Timeline } from '../src/ledger/timeline';
import type { Step } from '../src/ledger/types';

const step = (id: string, at: number, order: number): Step => ({
  id,
  seq: order,
  order,
  kind: 'sort',
  station: 'sort',
  at,
  recordedAt: at,
  personId: 'ann',
  batchId: null,
  machineId: null,
  command: {},
  slots: {},
  supersedes: null,
  withdrawn: false,
  reason: null,
  minutes: 0,
  energyKwh: 0,
  money: { purchaseMilli: 0, labourMilli: 0, energyMilli: 0, revenueMilli: 0 },
  postings: [],
});

/** A past of steps at some moments; each is made when it is asked for, and never twice the same object. */
const pastOf = (moments: readonly number[]): Past => {
  const at = (row: number): Step => step(`p${row}`, moments[row] ?? 0, row);
  return {
    size: moments.length,
    step: at,
    rowOf: (id) => {
      const row = /^p(\d+)$/.exec(id)?.[1];
      return row !== undefined && Number(row) < moments.length ? Number(row) : undefined;
    },
    inForce: Uint32Array.from(moments.map((_, row) => row).sort((a, b) => (comesBefore(at(a), at(b)) ? -1 : 1))),
    successors: () => [],
    silent: () => [],
    balances: () => [],
    entriesOf: () => [],
    firstEntry: () => undefined,
  };
};

const begun = (moments: readonly number[]): { steps: Steps; timeline: Timeline } => {
  const steps = new Steps();
  const timeline = new Timeline(steps);
  const past = pastOf(moments);
  steps.begin(past);
  timeline.begin(past.inForce);
  return { steps, timeline };
};

const ids = (steps: Iterable<Step>): string[] => Array.from(steps, ({ id }) => id);

test('steps of the past and those recorded since have numbers in the order of recording', () => {
  const { steps } = begun([50, 10]);
  expect(steps.add(step('a', 30, 2))).toBe(2);
  expect(steps.size).toBe(3);
  expect(ids(steps.values())).toEqual(['p0', 'p1', 'a']);
  expect([...steps.ids()]).toEqual(['p0', 'p1', 'a']);
  expect([1, 2, 3].map((from) => ids(steps.values(from)))).toEqual([['p1', 'a'], ['a'], []]);
  expect(['p0', 'p1', 'a', 'p2', 'b'].map((id) => steps.numberOf(id))).toEqual([0, 1, 2, undefined, undefined]);
  expect(steps.get('p1')).toEqual(step('p1', 10, 1));
  expect([steps.has('a'), steps.has('b')]).toEqual([true, false]);
});

test('a step that is taken back is gone, and those after it keep their numbers', () => {
  const { steps } = begun([50]);
  steps.add(step('a', 60, 1));
  steps.add(step('b', 70, 2));
  steps.delete('a');
  steps.delete('p0');
  expect(ids(steps.values())).toEqual(['p0', 'b']);
  expect([steps.size, steps.numberOf('b'), steps.get('a')]).toEqual([2, 2, undefined]);
  expect(steps.add(step('c', 80, 3))).toBe(3);
});

test('a late entry stands where it belongs, and within one instant after what was entered before it', () => {
  const { steps, timeline } = begun([50, 10]);
  const put = (next: Step): boolean => timeline.insert(next, steps.add(next));
  expect(put(step('late', 10, 2))).toBe(false);
  expect(put(step('newest', 50, 3))).toBe(true);
  expect(ids(timeline)).toEqual(['p1', 'late', 'p0', 'newest']);
  expect(ids(timeline.backwards())).toEqual(['newest', 'p0', 'late', 'p1']);
  expect([timeline.at(0)?.id, timeline.at(-1)?.id, timeline.at(4), timeline.at(-5)]).toEqual([
    'p1',
    'newest',
    undefined,
    undefined,
  ]);
  expect([timeline.indexFrom(10), timeline.indexFrom(11), timeline.indexFrom(51)]).toEqual([0, 2, 4]);
});

test('whatever is put in and taken out, the order of the work is that of a sorted list', () => {
  const moment = fc.integer({ min: 0, max: 30 });
  fc.assert(
    fc.property(
      fc.array(moment, { maxLength: 8 }),
      fc.array(fc.tuple(fc.boolean(), moment), { maxLength: 160 }),
      (moments, deeds) => {
        const { steps, timeline } = begun(moments);
        let sorted = [...steps.values()].sort((a, b) => (comesBefore(a, b) ? -1 : 1));
        deeds.forEach(([puts, at], i) => {
          if (puts) {
            const next = step(`n${i}`, at, moments.length + i);
            const atEnd = timeline.insert(next, steps.add(next));
            sorted = [...sorted, next].sort((a, b) => (comesBefore(a, b) ? -1 : 1));
            expect(atEnd).toBe(sorted.at(-1) === next);
          } else if (sorted.length > 0) {
            const gone = sorted[at % sorted.length]?.id ?? '';
            timeline.remove(steps.numberOf(gone) ?? -1);
            sorted = sorted.filter(({ id }) => id !== gone);
          }
        });
        expect(ids(timeline)).toEqual(ids(sorted));
        expect(timeline).toHaveLength(sorted.length);
        expect(ids(timeline.filter((some) => some.at > 15))).toEqual(ids(sorted.filter((some) => some.at > 15)));
        for (const at of [0, 7, 15, 31]) {
          const from = sorted.findIndex((some) => some.at >= at);
          expect(timeline.indexFrom(at)).toBe(from < 0 ? sorted.length : from);
        }
      },
    ),
    { seed: 61 },
  );
});
