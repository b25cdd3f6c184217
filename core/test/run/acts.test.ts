import fc from 'fast-check';
import { duesOf, type Act, type RunState } from '../../src/run/acts';

const at = (acts: readonly Act[], state: RunState, id: string): number | null =>
  duesOf(acts, state).get(id)?.at ?? null;
const done = (id: string, when: number): Act => ({ id, causes: [{ by: 'clock', at: 0 }], doneAt: when });

describe('acts of a run', () => {
  const step: Act = {
    id: 'lower',
    causes: [
      { by: 'act', actId: 'set', then: 600 },
      { by: 'reading', channel: 'bean', way: 'up', line: 110, after: 'set' },
      { by: 'sign', sign: 'popping', after: 'set' },
    ],
    doneAt: null,
  };

  test('are due by the first of their causes that happens', () => {
    const acts = [done('set', 100), step];
    expect(at(acts, { now: 0 }, 'lower')).toBe(700);
    const warm: RunState = { now: 400, crossed: () => ({ at: 380, seen: true }) };
    expect(duesOf(acts, warm).get('lower')).toEqual({ at: 380, sure: true });
    expect(at(acts, { ...warm, noticed: () => 350 }, 'lower')).toBe(350);
    expect(at(acts, { now: 0, crossed: () => ({ at: 900, seen: false }) }, 'lower')).toBe(700);
  });

  test('count readings and signs only from when the act before was done', () => {
    const asked: number[] = [];
    const state: RunState = {
      now: 500,
      crossed: (channel, way, line, since) => {
        asked.push(since);
        expect([channel, way, line]).toEqual(['bean', 'up', 110]);
        return null;
      },
      noticed: (_, since) => (since <= 50 ? 50 : null),
    };
    expect(at([done('set', 100), step], state, 'lower')).toBe(700);
    expect(asked).toEqual([100]);
    // What it follows is not done: then nothing counts but the time that is planned.
    const open: Act = { id: 'set', causes: [{ by: 'clock', at: 40 }], doneAt: null };
    expect(duesOf([open, step], state).get('lower')).toEqual({ at: 640, sure: false });
    expect(asked).toEqual([100]);
  });

  test('that end by themselves let the next begin when they are over, and not before', () => {
    const melt: Act = {
      id: 'melt',
      causes: [{ by: 'reading', channel: 'bowl', way: 'up', line: 48, then: 300 }],
      doneAt: null,
      endsItself: true,
    };
    const cool: Act = {
      id: 'cool',
      causes: [{ by: 'reading', channel: 'bowl', way: 'down', line: 27, after: 'melt' }],
      doneAt: null,
    };
    const state = (now: number): RunState => ({
      now,
      crossed: (_, way, __, since) =>
        way === 'up' ? { at: 100, seen: true } : { at: Math.max(since, 1200), seen: true },
    });
    expect(at([melt, cool], state(399), 'cool')).toBeNull();
    expect(at([melt, cool], state(400), 'cool')).toBe(1200);
    expect(at([{ ...melt, endsItself: false }, cool], state(5000), 'cool')).toBeNull();
  });

  test('without a cause, after a dropped act or in a circle are due at no time', () => {
    const none: Act = { id: 'a', causes: [], doneAt: null };
    const after = (id: string, actId: string): Act => ({ id, causes: [{ by: 'act', actId, then: 1 }], doneAt: null });
    const dues = duesOf([none, after('b', 'gone'), after('c', 'd'), after('d', 'c'), after('e', 'e')], { now: 9 });
    for (const due of dues.values()) expect(due).toEqual({ at: null, sure: false });
  });

  test('another cause never makes an act due later, and a doing never leaves a circle hanging', () => {
    const cause = fc.oneof(
      fc.record({ by: fc.constant('clock' as const), at: fc.integer({ min: 0, max: 1000 }) }),
      fc.record({
        by: fc.constant('act' as const),
        actId: fc.integer({ min: 0, max: 5 }).map(String),
        then: fc.integer({ min: 0, max: 100 }),
      }),
      fc.record({ by: fc.constant('running' as const), hours: fc.integer({ min: 0, max: 50 }) }),
    );
    const act = fc.record({
      causes: fc.array(cause, { maxLength: 3 }),
      doneAt: fc.option(fc.integer({ min: 0, max: 500 }), { nil: null }),
      endsItself: fc.boolean(),
    });
    const state: RunState = { now: 300, momentOf: (hours) => 20 * hours };
    fc.assert(
      fc.property(fc.array(act, { minLength: 1, maxLength: 6 }), cause, (rows, more) => {
        const acts = rows.map((row, index): Act => ({ id: String(index), ...row }));
        const before = duesOf(acts, state);
        expect(before.size).toBe(acts.length);
        const [first] = acts;
        if (!first) return;
        const after = duesOf([{ ...first, causes: [...first.causes, more] }, ...acts.slice(1)], state);
        expect(after.get('0')?.at ?? Infinity).toBeLessThanOrEqual(before.get('0')?.at ?? Infinity);
      }),
    );
  });
});
