import fc from 'fast-check';
import { actDues, actsOfFeed, changeAct, planAct, usualActs, waitsWords, wentIn } from '../../src/grind/acts';
import { TRADE_PRIOR } from '../../src/grind/forecast';
import { effectOfMoving, nightChoice } from '../../src/grind/moved';
import type { GrindStudy } from '../../src/grind/tonight';
import { tonight } from '../../src/grind/tonight';
import type { Batch, PlannedAct } from '../../src/ledger/types';
import { duesOf, type Cause, type RunState } from '../../src/run/acts';
import { localIn } from '../../src/units/zone';

const HOUR = 3_600_000;
const MINUTE = 60_000;
const bowl: Batch = {
  id: 'b',
  code: 'B001',
  name: 'Night 70',
  routeId: 'r',
  machineId: null,
  targetMicron: 20,
  cocoaTargetPct: null,
};
const act = (id: string, more: Partial<PlannedAct> = {}): PlannedAct => ({
  id,
  what: id,
  at: 0,
  personId: 'ann',
  doneAt: null,
  ...more,
});
/** A run that began at 0 and never stands; readings crossed nothing. */
const steady: RunState = { now: 0, momentOf: (hours) => hours * HOUR };

describe('when acts are due', () => {
  test('by the clock, by running hours, by a reading, after another act', () => {
    const state: RunState = {
      now: 0,
      // The stones stood for two hours.
      momentOf: (hours) => (hours + 2) * HOUR,
      crossed: (channel, way, micron) =>
        channel !== 'fineness' || way !== 'down'
          ? null
          : micron >= 30
            ? { at: 9 * HOUR, seen: true }
            : micron >= 20
              ? { at: 20 * HOUR, seen: false }
              : null,
    };
    const dues = actDues(
      [
        act('clock', { at: 5 * HOUR }),
        act('running', { waits: { by: 'running', hours: 4 } }),
        act('seen', { waits: { by: 'reading', micron: 30 } }),
        act('to come', { waits: { by: 'reading', micron: 20 } }),
        act('never', { waits: { by: 'reading', micron: 10 } }),
        act('after done', { waits: { by: 'act', actId: 'done', minutes: 15 } }),
        act('done', { doneAt: 7 * HOUR }),
        act('after open', { waits: { by: 'act', actId: 'running', minutes: 30 } }),
      ],
      state,
    );
    expect(Object.fromEntries(dues)).toEqual({
      clock: { at: 5 * HOUR, sure: true },
      running: { at: 6 * HOUR, sure: false },
      seen: { at: 9 * HOUR, sure: true },
      'to come': { at: 20 * HOUR, sure: false },
      never: { at: null, sure: false },
      'after done': { at: 7 * HOUR + 15 * MINUTE, sure: true },
      done: { at: 0, sure: true },
      'after open': { at: 6.5 * HOUR, sure: false },
    });
  });

  test('acts in a circle, and those after a dropped one, are due at no time; chains add up', () => {
    const waits = (actId: string, then = 10): Cause => ({ by: 'act', actId, then });
    const rows = [
      { id: 'a', doneAt: null, causes: [waits('b')] },
      { id: 'b', doneAt: null, causes: [waits('a')] },
      { id: 'c', doneAt: null, causes: [waits('gone')] },
    ];
    for (const due of duesOf(rows, steady).values()) expect(due.at).toBeNull();
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 0, max: 600 }), { minLength: 1, maxLength: 12 }), (minutes) => {
        const chain = minutes.map((own, index) => ({
          id: `n${index}`,
          doneAt: null,
          causes: [index === 0 ? { by: 'clock' as const, at: 1000 } : waits(`n${index - 1}`, own)],
        }));
        const last = duesOf([...chain].reverse(), steady).get(`n${minutes.length - 1}`);
        expect(last?.at).toBe(1000 + minutes.slice(1).reduce((a, b) => a + b, 0));
      }),
    );
  });

  test('moved, an act goes by the clock; done twice it was done first; what it waits for is said', () => {
    let batch = planAct(bowl, {
      id: 'x',
      what: 'Lecithin in',
      at: 0,
      personId: 'ann',
      waits: { by: 'reading', micron: 26 },
    });
    expect(waitsWords(batch.acts?.[0] as PlannedAct, batch.acts ?? [])).toBe('once a reading is 26 µm or finer');
    batch = changeAct(batch, 'x', { at: 8 * HOUR }, HOUR);
    expect(batch.acts?.[0]).toMatchObject({ at: 8 * HOUR });
    expect(batch.acts?.[0]).not.toHaveProperty('waits');
    batch = changeAct(batch, 'x', { done: true }, 9 * HOUR);
    batch = changeAct(batch, 'x', { done: true }, 10 * HOUR);
    expect(batch.acts?.[0]?.doneAt).toBe(9 * HOUR);
    expect(() => changeAct(batch, 'nobody', { done: true }, 0)).toThrow('not planned any more');
    expect(() =>
      planAct(bowl, {
        id: 'y',
        what: 'After',
        at: 0,
        personId: 'ann',
        waits: { by: 'act', actId: 'gone', minutes: 5 },
      }),
    ).toThrow('not planned any more');
  });

  test('the usual acts wait for what they need', () => {
    const acts = usualActs(20);
    expect(acts.map(({ kind }) => kind)).toEqual(['lid-off', 'lid-on', 'lecithin', 'stones-up']);
    expect(acts.at(-1)?.waits).toEqual({ by: 'reading', micron: 20 });
    expect(
      actsOfFeed(
        [{ name: 'Sugar', grams: 1000, atMinutes: 180, part: '', role: 'sugar' }],
        0,
        0.5,
        (mg) => `${mg / 1000} g`,
      ),
    ).toEqual([{ what: 'Sugar 500 g', at: 180 * MINUTE, kind: 'sugar' }]);
  });
});

describe('what went in when', () => {
  const sugar = (more: Partial<PlannedAct> = {}): PlannedAct => act('sugar', { kind: 'sugar', at: 6 * HOUR, ...more });
  const dues = (acts: PlannedAct[]) => actDues(acts, steady);
  const went = (acts: PlannedAct[], charges: Parameters<typeof wentIn>[1], now: number) =>
    wentIn(acts, charges, dues(acts), now);

  test('sugar that is planned is to come; a charge near its time does the act; another one is more', () => {
    const nibs = { at: 0, solids: ['cocoa' as const] };
    const open = went([sugar()], [nibs], 2 * HOUR);
    expect(open.solids).toEqual([{ solid: 'cocoa', at: 0 }]);
    expect(open.planned).toMatchObject([{ actId: 'sugar', solid: 'sugar', at: 6 * HOUR }]);
    const charged = went([sugar()], [nibs, { at: 7 * HOUR, solids: ['sugar'] }], 8 * HOUR);
    expect(charged.planned).toEqual([]);
    expect(charged.done.get('sugar')).toBe(7 * HOUR);
    expect(charged.solids).toEqual([
      { solid: 'cocoa', at: 0 },
      { solid: 'sugar', at: 7 * HOUR },
    ]);
    // Overdue and not in the book: it is to come from now on.
    expect(went([sugar()], [nibs], 30 * HOUR).planned).toMatchObject([{ at: 30 * HOUR }]);
  });

  test('of a bowl weighed in one go the acts say when the sugar went in; long overdue it counts as done', () => {
    const all = { at: 0, solids: ['cocoa' as const, 'sugar' as const] };
    expect(went([sugar()], [all], HOUR).solids).toEqual([{ solid: 'cocoa', at: 0 }]);
    expect(went([sugar()], [all], HOUR).planned).toHaveLength(1);
    expect(went([sugar({ doneAt: 6.5 * HOUR })], [all], 8 * HOUR).solids).toEqual([
      { solid: 'cocoa', at: 0 },
      { solid: 'sugar', at: 6.5 * HOUR },
    ]);
    const long = went([sugar()], [all], 20 * HOUR);
    expect(long.assumed).toEqual(['sugar']);
    expect(long.solids).toContainEqual({ solid: 'sugar', at: 6 * HOUR });
    // Without any plan the book alone speaks.
    expect(went([], [all], HOUR).solids).toHaveLength(2);
  });
});

describe('moving an act', () => {
  const zone = 'Europe/Lisbon';
  // Wednesday 25 November 2026, 14:00 in Lisbon.
  const now = Date.UTC(2026, 10, 25, 14);
  const attended = { fromMin: 420, toMin: 1080, days: [1, 2, 3, 4, 5, 6] };
  const { getsUnder: _, ...prior } = TRADE_PRIOR;
  const study: GrindStudy = {
    batchId: 'b',
    code: 'B001',
    machine: 'Night stone',
    now,
    startedAt: now - 5 * HOUR,
    nowH: 5,
    running: true,
    state: 'grinding',
    populations: [{ solid: 'cocoa', atH: 0 }],
    planned: [{ actId: 's', what: 'Sugar in', solid: 'sugar', at: now + HOUR }],
    acts: [{ id: 'l', what: 'Lecithin in', kind: 'lecithin', at: null, micron: 26 }],
    assumed: [],
    readings: [{ kind: 'gauge', atH: 5, micron: 80 }],
    targetMicron: 20,
    prior: { ...prior, getsUnder: null },
    attended,
    unattended: true,
    timeZone: zone,
    conche: { nowH: 5, tastes: [], astringency: [], aroma: [], heat: [], prior: null, past: [] },
  };

  test('sugar that comes later ends later, about as much; what is not ground moves nothing', () => {
    const sugar = { id: 's', kind: 'sugar' as const, what: 'Sugar in' };
    const late = effectOfMoving(study, sugar, now + 9 * HOUR);
    expect(((late.after ?? 0) - (late.before ?? 0)) / HOUR).toBeCloseTo(8, 0);
    expect(late.sentence).toMatch(/^At 20 µm about .*, \d\.\d h later\.$/u);
    expect(effectOfMoving(study, sugar, now + HOUR).sentence).toMatch(/^The end stays/u);
    const lid = effectOfMoving(study, { id: 'x', kind: 'lid-on', what: 'Lid on' }, now + 9 * HOUR);
    expect(lid.after).toBe(lid.before);
    const up = effectOfMoving(study, { id: 'u', kind: 'stones-up', what: 'Stones up' }, now + 3 * HOUR);
    expect(up.sentence).toMatch(/not at 20 µm, and it stays there/u);
  });

  test('the forecast counts with what is still to come and says so; acts that wait for a reading are expected', () => {
    const told = tonight(study);
    const without = tonight({ ...study, planned: [] });
    expect(told.p50.hours).toBeGreaterThan(without.p50.hours);
    expect(told.because.join(' ')).toContain('“Sugar in” is still to come and starts coarse');
    expect(told.expected['l']).toBeLessThan(told.p50.at ?? 0);
    // At target, but for the sugar: it is not there.
    const fine = { ...study, readings: [{ kind: 'gauge' as const, atH: 5, micron: 19 }] };
    expect(tonight(fine).reached).toBe(false);
    expect(tonight({ ...fine, planned: [] }).reached).toBe(true);
  });

  test('lifted stones grind no more, and the page says what is left', () => {
    const up = tonight({ ...study, state: 'lifted', running: false });
    expect(up.sentence).toMatch(/^The stones are up: it stays at about \d+ µm/u);
    expect(up.todo).toContain('not at its target');
  });

  test('an act of the night can be done before they leave or when they come', () => {
    const local = localIn(zone);
    const two = Date.UTC(2026, 10, 26, 2);
    const choice = nightChoice(two, now, attended, local);
    expect(choice?.after).toBe(Date.UTC(2026, 10, 26, 7));
    // A quarter of an hour before they close at 18:00 at the latest.
    expect(choice?.before).toBe(Date.UTC(2026, 10, 25, 17, 45));
    expect(nightChoice(now + HOUR, now, attended, local)).toBeNull();
    expect(nightChoice(two, Date.UTC(2026, 10, 25, 20), attended, local)?.before).toBeNull();
  });
});
