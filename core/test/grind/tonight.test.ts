import { TRADE_PRIOR, type GrindReading } from '../../src/grind/forecast';
import { populationsOf, tonight, type GrindStudy, type StudyAct } from '../../src/grind/tonight';
import { momentOf } from '../../src/run/attended';
import { localIn } from '../../src/units/zone';

/* What a grinder's page says tonight, state by state. Lisbon is on UTC in November. */

const HOUR = 3_600_000;
const ZONE = 'Europe/Lisbon';
/** A Thursday, three in the afternoon. */
const NOW = Date.UTC(2026, 10, 26, 15);
const SHOP = { fromMin: 7 * 60, toMin: 18 * 60, days: [1, 2, 3, 4, 5] };

const gauge = (atH: number, micron: number): GrindReading => ({ kind: 'gauge', atH, micron });

function study(more: Partial<GrindStudy> = {}): GrindStudy {
  const { getsUnder: _, ...prior } = TRADE_PRIOR;
  const nowH = more.nowH ?? 30;
  return {
    batchId: 'b',
    code: 'B007',
    machine: 'the small stones',
    now: NOW,
    startedAt: NOW - nowH * HOUR,
    nowH,
    running: true,
    state: 'grinding',
    populations: [
      { solid: 'cocoa', atH: 0 },
      { solid: 'sugar', atH: 6 },
    ],
    planned: [],
    acts: [],
    assumed: [],
    readings: [gauge(12, 64), gauge(22, 42), gauge(30, 31)],
    targetMicron: 20,
    prior: { ...prior, getsUnder: null },
    attended: SHOP,
    unattended: true,
    timeZone: ZONE,
    conche: { nowH, tastes: [], astringency: [], aroma: [], heat: [], prior: null, past: [] },
    ...more,
  };
}

describe('what it rests on', () => {
  const because = (more: Partial<GrindStudy>): string => tonight(study(more)).because.join(' ');

  test('a machine without a past has the trade’s range behind it, one with a past its own', () => {
    const { prior } = study();
    expect(because({})).toContain('No finished grind of the small stones to learn from yet');
    expect(because({ prior: { ...prior, grinds: 1 } })).toContain('Learned from 1 finished grind of the small stones.');
    expect(because({ prior: { ...prior, grinds: 7 } })).toContain(
      'Learned from 7 finished grinds of the small stones.',
    );
    expect(because({ machine: null })).toContain('No finished grind of this machine');
  });

  test('readings of the batch are counted, those of a tongue said to tell little', () => {
    expect(because({ readings: [] })).toContain('No gauge reading of this batch yet.');
    expect(because({ readings: [gauge(30, 31)] })).toContain('1 gauge reading of this batch.');
    expect(because({})).toContain('3 gauge readings of this batch.');
    expect(because({})).not.toContain('tongue');
    expect(because({ readings: [gauge(22, 42), { kind: 'tongue', atH: 30, felt: 2 }] })).toContain(
      'What a tongue feels narrows it little.',
    );
  });

  test('what is taken for granted and what is still to come is named, with its hour', () => {
    const said = because({
      assumed: ['It is taken to have run all night.'],
      planned: [{ actId: 'm', what: 'Milk powder in', solid: 'milk', at: NOW + 20 * HOUR }],
    });
    expect(said).toContain('It is taken to have run all night.');
    expect(said).toContain('“Milk powder in” is still to come and starts coarse: counted in from 11:00 tomorrow.');
  });

  test('a reading that does not go with the others is kept and said to count less', () => {
    const off = 'The 75 µm at 26 h stand off from the other readings: kept, and counted less.';
    expect(because({ readings: [gauge(12, 64), gauge(22, 42), gauge(26, 75), gauge(30, 31)] })).toContain(off);
    // Of two nobody can say which is wrong.
    expect(because({ readings: [gauge(22, 42), gauge(26, 75)] })).not.toContain('stand off');
  });
});

describe('the verdict', () => {
  test('far from there: an interval of hours by the clock, no alarm', () => {
    const said = tonight(study());
    expect(said.tone).toBe('quiet');
    expect(said.reached).toBe(false);
    expect(said.because.at(-1)).toMatch(/^Eight in ten; now about \d+ µm, \d[\d.]* to \d[\d.]* more running hours\.$/u);
    expect(said.p10.at).toBeCloseTo(NOW + (said.p10.hours - 30) * HOUR, -1);
    expect(said.sentence).toMatch(/^(Pull|At target) .*(\d\d:\d\d)\.$/u);
  });

  test('at its target it says so, with what was read', () => {
    const said = tonight(study({ readings: [gauge(12, 64), gauge(22, 38), gauge(30, 19.5)] }));
    expect(said).toMatchObject({
      tone: 'good',
      reached: true,
      sentence: 'It is there: 19.5 µm, target 20 µm.',
      next: null,
    });
    expect(said.todo).toContain('Pour it out');
  });

  test('finer than meant is a watch, and says what thins a gummy mass', () => {
    const said = tonight(study({ readings: [gauge(22, 22), gauge(30, 13)] }));
    expect(said).toMatchObject({
      tone: 'watch',
      sentence: 'Finer than meant: 13 µm, target 20 µm. Pull it now.',
      todo: 'Pour it out, or lift the stones and only conche.',
    });
    expect(said.because.at(-1)).toContain('Under about 14 µm');
  });

  test('finer than gummy is no fault where that was the target', () => {
    const said = tonight(study({ targetMicron: 12, readings: [gauge(22, 17), gauge(30, 13)] }));
    expect(said.sentence).not.toContain('Finer than meant');
  });

  test('stones that level off above the target say so, and what to do', () => {
    const flat = [gauge(24, 30), gauge(48, 21), gauge(72, 19.5), gauge(96, 19), gauge(120, 19)];
    const said = tonight(study({ nowH: 120, targetMicron: 12, readings: flat }));
    expect(said).toMatchObject({
      tone: 'watch',
      todo: 'Tighten the stones, or choose a coarser target for this batch.',
    });
    expect(said.sentence).toBe('These stones may not get it to 12 µm: it levels off above.');
    expect(said.neverShare).toBeGreaterThan(0.5);
    expect(said.p90).toEqual({ hours: Infinity, at: null });
  });

  test('standing, lifted and conching are three things', () => {
    const standing = tonight(study({ state: 'standing', running: false }));
    expect(standing.tone).toBe('watch');
    expect(standing.sentence).toMatch(/^The stones stand\. \d[\d.]* to \d[\d.]* more running hours to 20 µm\.$/u);
    expect(standing.todo).toBe('Start them again and press Stones run.');

    const lifted = tonight(study({ state: 'lifted', running: false }));
    expect(lifted.sentence).toMatch(/^The stones are up: it stays at about 3\d µm, target 20 µm\.$/u);
    expect(lifted.todo).toMatch(/^It is not at its target: \d/u);

    const conching = tonight(study({ state: 'conching', readings: [gauge(22, 26), gauge(30, 21)] }));
    expect(conching.sentence).toMatch(/^It is in the conche: it stays at about 2\d µm/u);
    expect(conching.todo).toBeNull();
  });

  test('what does not grind has no hours at which it would be done, and no reading to take', () => {
    const lecithin: StudyAct = { id: 'l', what: 'Lecithin in', kind: 'lecithin', at: null, micron: 26 };
    const acts = [lecithin];
    for (const state of ['standing', 'lifted', 'conching'] as const) {
      const said = tonight(study({ state, running: false, acts }));
      expect([said.attended, said.next, said.expected]).toEqual([[], null, {}]);
    }
    const grinding = tonight(study({ acts: [...acts, { ...lecithin, id: 'x', micron: null }] }));
    expect(Object.keys(grinding.expected)).toEqual(['l']);
    expect(grinding.expected['l']).toBeGreaterThan(NOW);
    expect(grinding.expected['l']).toBeLessThan(grinding.p50.at ?? 0);
  });
});

describe('by the clock', () => {
  test('hours at which somebody is there: chances only grow, sizes only fall', () => {
    const { attended } = tonight(study());
    const local = localIn(ZONE);
    expect(attended.length).toBeGreaterThan(10);
    for (const { at } of attended) {
      const { minute, weekday } = local(at);
      expect(minute).toBeGreaterThanOrEqual(SHOP.fromMin);
      expect(minute).toBeLessThan(SHOP.toMin);
      expect(weekday).toBeLessThan(6);
    }
    attended.slice(1).forEach(({ chance, micron }, index) => {
      expect(chance).toBeGreaterThanOrEqual(attended[index]?.chance ?? 1);
      expect(micron).toBeLessThanOrEqual(attended[index]?.micron ?? 0);
    });
  });

  test('a reading worth taking is at an hour when somebody is there, and narrows it', () => {
    const { next, attended } = tonight(study({ readings: [gauge(12, 64)], nowH: 13 }));
    expect(attended.map(({ at }) => at)).toContain(next?.at);
    expect(next?.widthH).toBeLessThan(next?.nowWidthH ?? 0);
  });

  test('stones that may not run alone get there on another day', () => {
    const alone = tonight(study());
    const watched = tonight(study({ unattended: false }));
    expect(watched.p50.hours).toBe(alone.p50.hours);
    expect(watched.p50.at).toBeGreaterThan(alone.p50.at ?? Infinity);
    const { minute } = localIn(ZONE)(watched.p50.at ?? 0);
    expect(minute).toBeGreaterThanOrEqual(SHOP.fromMin);
    expect(minute).toBeLessThanOrEqual(SHOP.toMin);
  });

  test('what gets there at night says what it will be in the morning, and warns where that is too fine', () => {
    // At eleven in the evening it is at 21 µm; nobody is there before seven.
    const night = { now: NOW + 8 * HOUR, nowH: 38 };
    const said = tonight(
      study({ ...night, readings: [gauge(12, 60), gauge(22, 38), gauge(30, 27), gauge(37.5, 21.5)] }),
    );
    expect(said.sentence).toMatch(/^At target /u);
    expect(said.todo).toMatch(/^It gets there while nobody is here\. At \d\d:00 tomorrow it will be about 1\d µm/u);
    const quick = tonight(
      study({
        ...night,
        nowH: 15,
        targetMicron: 16,
        readings: [gauge(8, 60), gauge(11, 36), gauge(13, 25), gauge(15, 18)],
      }),
    );
    expect(quick.todo).toContain('too fine. Stop the stones or lift them before you leave');
  });

  test('the far end of a slow grind is beyond what is planned: running hours are said, not a day', () => {
    const said = tonight(
      study({ unattended: false, attended: { ...SHOP, toMin: SHOP.fromMin + 60 }, readings: [gauge(30, 70)] }),
    );
    expect(said.p90.at).toBeNull();
    expect(said.sentence).toMatch(/^\d+ (to \d+ more running hours|running hours or more) to 20 µm\.$/u);
  });

  test('what is planned counts from its hour, and never from before now', () => {
    const planned = [
      { actId: 'a', what: 'Sugar in', solid: 'sugar' as const, at: NOW + 5 * HOUR },
      { actId: 'b', what: 'Milk in', solid: 'milk' as const, at: NOW - 5 * HOUR },
    ];
    const [, , sugar, milk] = populationsOf(study({ planned }));
    expect(sugar?.atH).toBeCloseTo(35, 6);
    expect(milk?.atH).toBeCloseTo(30.01, 6);
    // Only three more hours of today: the rest of five comes tomorrow.
    const watched = populationsOf(study({ planned, unattended: false }));
    expect(watched[2]?.atH).toBeCloseTo(33, 6);
    expect(momentOf(35, { at: NOW, hours: 30 }, false, SHOP, localIn(ZONE))).toBe(Date.UTC(2026, 10, 27, 9));
  });
});
