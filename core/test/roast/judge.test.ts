import { judgeFill, zeroOf, type LoadMeasures } from '../../src/roast/compare';
import { clean, curveOf, smooth } from '../../src/roast/curve';
import { roastFigures } from '../../src/roast/figures';
import { judgeRoast, type RoastEvidence } from '../../src/roast/judge';
import { individuals } from '../../src/stats/individuals';
import { seededNormal } from '../seeded';

const straight = curveOf(Array.from({ length: 1201 }, (_, s) => [s, 20 + s / 12, 150] as const));
const figures = roastFigures(smooth(clean(straight)));
const onTheLine = { meanC: 0.2, rmsC: 0.5, most: { byC: 1, second: 300 }, endByC: 0.3, minutes: 0 };
const evidence = (part: Partial<RoastEvidence> = {}): RoastEvidence => ({
  figures,
  clean: clean(straight),
  stalls: [],
  jumps: [],
  deviation: onTheLine,
  heldOutC: 1.2,
  weight: {
    left: 0.94,
    planned: { mid: 0.94, low: 0.936, high: 0.944 },
    model: { mid: 0.94, low: 0.936, high: 0.944 },
    past: null,
  },
  signs: [],
  stirs: { wantedEveryMin: null, done: 0 },
  time: { tookS: null, planS: null },
  handC: null,
  kill: null,
  ...part,
});

describe('the judgement of a roast', () => {
  test('on the line and on the scale', () => {
    const judged = judgeRoast(evidence());
    expect(judged).toMatchObject({ tone: 'good', headline: 'As planned.', todo: null });
    expect(judged.why.join(' ')).toContain(
      'The beans came to 120.0 °C at 20:00 and were 4.0 min above 100 °C (40 °C·min).',
    );
    expect(judged.why.join(' ')).toContain(
      'It lost 6.0 % of its weight. The model expects 5.6 % to 6.4 % from that curve.',
    );
  });

  test('nine seconds against half an hour are no roast as planned, whatever else is known', () => {
    const none = { figures: null, clean: null, deviation: null };
    const weightless = { ...evidence().weight, planned: null, model: null };
    const short = judgeRoast(evidence({ ...none, weight: weightless, time: { tookS: 9, planS: 1800 } }));
    expect(short).toMatchObject({
      tone: 'watch',
      headline: 'Much shorter than planned: 0:09 in the roaster, 30:00 planned.',
    });
    expect(short.todo).toContain('no kill step');
    expect(judgeRoast(evidence({ ...none, time: { tookS: 9, planS: 1800 } })).headline).toContain('Much shorter');
    // A little off is no news; more than a fifth is, also where beans and weight agree.
    expect(judgeRoast(evidence({ time: { tookS: 1700, planS: 1800 } }))).toMatchObject({
      tone: 'good',
      headline: 'As planned.',
    });
    expect(judgeRoast(evidence({ time: { tookS: 2400, planS: 1800 } })).headline).toBe(
      'On the line and on the scale, but longer than planned: 40:00 in the roaster, 30:00 planned.',
    );
    expect(judgeRoast(evidence({ ...none, weight: weightless, time: { tookS: 1300, planS: 1800 } })).headline).toBe(
      'Shorter than planned: 21:40 in the roaster, 30:00 planned.',
    );
  });

  test('a temperature read by hand is not denied', () => {
    const judged = judgeRoast(evidence({ figures: null, clean: null, deviation: null, handC: 118 }));
    expect(judged.why[0]).toBe(
      'The beans had 118.0 °C at the end, read by hand; no curve was logged, so the way there is not known.',
    );
  });

  test.each([
    [{ endByC: 8, meanC: 5 }, 0.925, 'Roasted further than planned.'],
    [{ endByC: -8, meanC: -5 }, 0.96, 'Under-roasted against the plan.'],
    [{ endByC: -8, meanC: -5 }, 0.925, 'Cool on the probe, light on the scale: the probe and the weight do not agree.'],
    [{ endByC: 8, meanC: 5 }, 0.94, 'Warmer than planned, but the weight is as usual.'],
    [{}, 0.9, 'On the line, but it lost more weight than it should.'],
  ])('probe and scale together: %j, %d left', (deviation, left, headline) => {
    const judged = judgeRoast(
      evidence({ deviation: { ...onTheLine, ...deviation }, weight: { ...evidence().weight, left } }),
    );
    expect(judged).toMatchObject({ tone: 'watch', headline });
    expect(judged.todo).toEqual(expect.any(String));
  });

  test('too hot all the way is no “as usual”, however well the scale fits the curve', () => {
    const weight = { ...evidence().weight, left: 0.925, model: { mid: 0.925, low: 0.921, high: 0.929 } };
    const judged = judgeRoast(evidence({ deviation: { ...onTheLine, endByC: 12, meanC: 8 }, weight }));
    expect(judged.headline).toBe('Roasted further than planned.');
    expect(judged.why.join(' ')).toContain('The model expects 7.1 % to 7.9 % from that curve.');
  });

  test('an under-roasted load is said to be no kill step', () => {
    const judged = judgeRoast(
      evidence({ deviation: { ...onTheLine, endByC: -9, meanC: -6 }, weight: { ...evidence().weight, left: 0.96 } }),
    );
    expect(judged.todo).toContain('no kill step');
  });

  test('a fit that misses by much is held against by less', () => {
    const off = { ...onTheLine, endByC: 5, meanC: 4 };
    expect(judgeRoast(evidence({ deviation: off, heldOutC: 1 })).tone).toBe('watch');
    expect(judgeRoast(evidence({ deviation: off, heldOutC: 3 })).tone).toBe('good');
  });

  test('the maker’s own past comes before the model, once there are six loads', () => {
    const past = individuals([0.93, 0.931, 0.929, 0.93, 0.932, 0.93]);
    expect(judgeRoast(evidence({ weight: { ...evidence().weight, left: 0.93, past } })).headline).toBe('As planned.');
    expect(judgeRoast(evidence({ weight: { ...evidence().weight, left: 0.93 } })).headline).toContain(
      'lost more weight',
    );
  });

  test('without probe, program or past it says that it does not know', () => {
    const judged = judgeRoast(
      evidence({
        figures: null,
        clean: null,
        deviation: null,
        weight: { left: 0.95, planned: null, model: null, past: null },
      }),
    );
    expect(judged.tone).toBe('unknown');
    expect(judged.why[0]).toContain('only times, signs and weights speak');
  });

  test('what happened on the way is told with its time', () => {
    const judged = judgeRoast(
      evidence({
        stalls: [{ fromS: 490, toS: 570, warmerC: 31 }],
        jumps: [{ fromS: 700, toS: 730, perMin: 12, beforePerMin: 3 }],
        signs: [{ second: 1100, what: 'popping', word: '' }],
        stirs: { wantedEveryMin: 5, done: 1 },
      }),
    );
    const text = judged.why.join(' ');
    expect(judged.headline).toBe('As planned in the end, but not all the way.');
    expect(text).toContain('From 8:10 to 9:30 they stood still though it was 31 °C warmer around them.');
    expect(text).toContain('At 11:40 the climb jumped from 3.0 to 12.0 °C a minute');
    expect(text).toContain('popping at 18:20');
    expect(text).toContain('It was stirred once, the plan asks for 3.');
  });

  test('the kill figure is the maker’s own, and never “safe”', () => {
    const values = { dMin: 2, zC: 10, refC: 100, wanted: 5, source: 'trial of March 2026' };
    const text = judgeRoast(evidence({ kill: { reductions: 4.2, values } })).why.join(' ');
    expect(text).toContain('By your own validation (trial of March 2026)');
    expect(text).toContain('4.2 decimal reductions, under the 5 your plan asks for');
    expect(text).toContain('your food-safety plan decides');
    expect(text).not.toMatch(/\bsafe\b/);
    expect(judgeRoast(evidence()).why.join(' ')).not.toContain('reductions');
  });
});

describe('the loads of one grinder fill', () => {
  const load = (code: string, endC: number, area: number, weightLeft: number): LoadMeasures => ({
    code,
    endC,
    area,
    weightLeft,
  });

  test('a burnt load is kept apart, with its figures', () => {
    const verdict = judgeFill([
      load('T001', 124, 180, 0.941),
      load('T002', 125, 186, 0.939),
      load('T003', 141, 320, 0.884),
      load('T004', 124.5, 176, 0.942),
    ]);
    expect(verdict.odd.map(({ code }) => code)).toEqual(['T003']);
    expect(verdict.sentence).toContain('Keep T003 apart until tasted');
    expect(verdict.sentence).toContain('weight lost 11.6 %, the others 5.8 % to 6.1 %');
  });

  test('of ordinary loads fewer than one in fifty is called odd', () => {
    const normal = seededNormal(6);
    let odd = 0;
    for (let fill = 0; fill < 400; fill += 1) {
      const loads = Array.from({ length: 5 }, (_, i) =>
        load(`T${i}`, 124 + 2.5 * normal(), 180 + 25 * normal(), 0.94 + 0.005 * normal()),
      );
      odd += judgeFill(loads).odd.length;
    }
    expect(odd / 2000).toBeLessThan(0.02);
  });

  test('two loads cannot say which is odd; one says nothing; figures that are missing are left out', () => {
    expect(judgeFill([load('A', 120, 150, 0.94), load('B', 140, 300, 0.9)]).sentence).toContain('taste both');
    expect(judgeFill([load('A', 120, 150, 0.94)]).sentence).toContain('nothing to hold it against');
    const bare = ['A', 'B', 'C'].map((code) => ({ code, endC: null, area: null, weightLeft: 0.94 }));
    expect(judgeFill(bare).spreads.map(({ measure }) => measure)).toEqual(['weightLeft']);
  });
});

describe('laying roasts over one another', () => {
  const roast = { curve: smooth(clean(straight)), signs: [{ second: 900, what: 'popping', word: '' }] };
  test('by start, by a temperature, by a sign', () => {
    expect(zeroOf(roast, { by: 'start' })).toBe(0);
    expect(zeroOf(roast, { by: 'bean', tempC: 100 })).toBeCloseTo(960, 6);
    expect(zeroOf(roast, { by: 'sign', what: 'popping' })).toBe(900);
    expect(zeroOf(roast, { by: 'sign', what: 'smoke' })).toBeNull();
    expect(zeroOf(roast, { by: 'bean', tempC: 150 })).toBeNull();
    expect(zeroOf({ curve: null, signs: [] }, { by: 'bean', tempC: 100 })).toBeNull();
  });
});
