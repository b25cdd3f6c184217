import fc from 'fast-check';
import { program, type Program } from '@wunsch/core/roast/records';
import { READY_MADE } from '@wunsch/core/roast/ready-made';
import { lastGood } from '../src/roast/program-read';

/* A program is drawn while it is typed: what cannot be read is as it last was. */

const [first] = READY_MADE;
if (!first) throw new Error('there are programs');
const good: Program = {
  ...first,
  stirEveryMin: 9,
  roasterId: 'oven',
  suits: [{ family: 'Fiji', why: 'sweet' }],
  steps: [
    { setC: 160, minutes: 6, until: null, note: 'cold beans' },
    { setC: 140, minutes: 9, until: { what: 'bean', beanC: 118 }, note: '' },
  ],
};

test('what can be read is taken, all of it', () => {
  expect(lastGood(good, good)).toEqual(good);
  const other: Program = { ...good, name: 'Other', loadG: 2000, kind: 'nib', stirEveryMin: null, roasterId: null };
  expect(lastGood(other, good)).toEqual(other);
});

test('nothing that can be read leaves what was', () => {
  expect(lastGood({}, good)).toEqual(good);
  expect(lastGood({ steps: [undefined, {}] }, good)).toEqual(good);
});

test('a figure that is typed wrong keeps its last, the rest of its step moves', () => {
  const read = { ...good, steps: [{ ...good.steps[0], setC: undefined, minutes: 7 }, good.steps[1]] };
  expect(lastGood(read, good).steps[0]).toEqual({ setC: 160, minutes: 7, until: null, note: 'cold beans' });
});

test('what ends a step goes on as it was while its figure cannot be read, and is left where it is left out', () => {
  const until = (value: object | null) =>
    lastGood({ steps: [good.steps[0], { ...good.steps[1], until: value as never }] }, good).steps[1]?.until;
  expect(until({ what: 'bean' })).toEqual({ what: 'bean', beanC: 118 });
  expect(until({ what: 'bean', beanC: 121 })).toEqual({ what: 'bean', beanC: 121 });
  expect(until({ what: 'sign' })).toEqual({ what: 'bean', beanC: 118 });
  expect(until({ what: 'sign', sign: 'pops' })).toEqual({ what: 'sign', sign: 'pops' });
  expect(until(null)).toBeNull();
});

test('a step that was not there before goes by the last one where it cannot be read', () => {
  const { steps } = lastGood({ steps: [...good.steps, { minutes: 3 }] }, good);
  expect(steps).toHaveLength(3);
  expect(steps[2]).toEqual({ setC: 140, minutes: 3, until: { what: 'bean', beanC: 118 }, note: '' });
});

test('beans without a name are not yet in it', () => {
  expect(lastGood({ suits: [{ why: 'x' }, { family: 'Fiji' }] }, good).suits).toEqual([{ family: 'Fiji', why: '' }]);
});

test('whatever is left out, what is drawn is a program', () => {
  const names = Object.keys(good) as (keyof Program)[];
  fc.assert(
    fc.property(fc.subarray(names), fc.array(fc.constantFrom('setC', 'minutes', 'until', 'note')), (out, ofStep) => {
      const read = structuredClone(good) as Record<string, unknown>;
      for (const name of out) delete read[name];
      const [step] = (read['steps'] ?? []) as Record<string, unknown>[];
      if (step) for (const name of ofStep) delete step[name];
      const drawn = lastGood(read, good);
      expect(program.parse(drawn)).toEqual(drawn);
      expect(drawn).toEqual(good);
    }),
  );
});
