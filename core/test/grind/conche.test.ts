import {
  concheHistory,
  CONCHE_PRIOR,
  conchePriorFrom,
  forecastConche,
  hoursAt60,
  judgeAroma,
  type ConcheTaste,
} from '../../src/grind/conche';
import { countHeld, held } from '../../src/grind/hits';
import { judgeWarming } from '../../src/grind/warming';
import { lifeOf, grinding } from '../../src/grind/running';
import { isRunning, runningHours } from '../../src/run/stretches';
import { attendedHours, hoursAt, momentOf, nextAttended } from '../../src/run/attended';
import { judgeRest } from '../../src/rest/benefit';
import { normals, seeded } from '../../src/stats/chance';
import { studentQuantile } from '../../src/stats/distributions';
import { localIn } from '../../src/units/zone';

const HOUR = 3_600_000;

describe('conching', () => {
  test('hours are counted as if at 60 °C', () => {
    expect(hoursAt60([{ atH: 0, tempC: 60 }], 4)).toBe(4);
    expect(hoursAt60([{ atH: 0, tempC: 70 }], 4)).toBeCloseTo(7.2, 9);
    // Two hours at 60, two at 50.
    expect(
      hoursAt60(
        [
          { atH: 0, tempC: 60 },
          { atH: 2, tempC: 50 },
        ],
        4,
      ),
    ).toBeCloseTo(2 + 2 / 1.8, 9);
  });

  /** Tasters of another kind: each session has its own lean, scores are whole or half, decay is not one exponential. */
  const tasted = (seed: number): { tastes: ConcheTaste[]; doneH: number } => {
    const chance = seeded(seed);
    const normal = normals(chance);
    const [fast, slow, end, start] = [
      0.15 * Math.exp(0.3 * normal()),
      0.045 * Math.exp(0.3 * normal()),
      0.8 + 0.8 * chance(),
      6 + 2 * chance(),
    ];
    const truth = (hour: number): number =>
      end + (start - end) * (0.35 * Math.exp(-fast * hour) + 0.65 * Math.exp(-slow * hour));
    let doneH = 0;
    while (truth(doneH) > 3 && doneH < 300) doneH += 0.25;
    const tastes = [0.15, 0.35, 0.55, 0.75].map((share) => {
      const lean = 0.4 * normal();
      return {
        atH: share * doneH,
        score: Math.max(0, Math.min(10, Math.round(2 * (truth(share * doneH) + lean + 0.5 * normal())) / 2)),
      };
    });
    return { tastes, doneH };
  };

  test('eight in ten hold on tasters and a decay of another kind', () => {
    let [held, of] = [0, 0];
    for (let seed = 0; seed < 120; seed += 1) {
      const { tastes, doneH } = tasted(7919 * seed + 5);
      if (doneH >= 300 || doneH < 4) continue;
      const nowH = 0.75 * doneH;
      const { more } = forecastConche(tastes, [{ atH: 0, tempC: 60 }], 3, nowH);
      of += 1;
      if (doneH >= nowH + more.p10 && doneH <= nowH + more.p90) held += 1;
    }
    expect(of).toBeGreaterThan(90);
    expect(held / of).toBeGreaterThan(0.7);
    expect(held / of).toBeLessThan(0.95);
  });

  test('it says how long, that it is there, or that it levels off; warmer is sooner', () => {
    const tastes = [7, 6, 5, 4.5].map((score, index) => ({ atH: 6 * index, score }));
    const at = (tempC: number) =>
      forecastConche(
        tastes,
        [
          { atH: 0, tempC: 60 },
          { atH: 18, tempC },
        ],
        3,
        18,
      );
    expect(at(60).sentence).toMatch(/^\d+ to \d+ more hours at 60 °C\.$/);
    expect(at(70).more.p50).toBeLessThan(at(60).more.p50);
    const done = [7, 4, 2, 2, 1.5].map((score, index) => ({ atH: 8 * index, score }));
    expect(forecastConche(done, [], 3, 40).sentence).toContain('as it was meant to');
    const flat = [8, 6, 5, 5, 5, 5, 5].map((score, index) => ({ atH: 10 * index, score }));
    expect(forecastConche(flat, [{ atH: 0, tempC: 60 }], 3, 70).sentence).toContain('levels off');
  });
});

describe('a mass with a ceiling', () => {
  const show = (tempC: number): string => `${tempC.toFixed(1)} °C`;
  const temps = (...values: number[]) => values.map((tempC, index) => ({ at: index * HOUR, tempC }));
  test('is warned of before it gets there, and said when it is over', () => {
    expect(judgeWarming([], 42, show)).toBeNull();
    expect(judgeWarming(temps(38, 38.1, 38), 42, show)).toMatchObject({ tone: 'good', reachesAt: null });
    // Two degrees an hour from 40: at 42 an hour on.
    expect(judgeWarming(temps(36, 38, 40), 42, show)).toMatchObject({ tone: 'watch', reachesAt: 3 * HOUR });
    expect(judgeWarming(temps(36, 38, 40), 42, show)?.sentence).toContain('60 min');
    expect(judgeWarming(temps(36, 43), 42, show)).toMatchObject({ tone: 'stop' });
    // Half a degree an hour from 38 is eight hours off.
    expect(judgeWarming(temps(37, 37.5, 38), 42, show)?.tone).toBe('good');
    // Between what unroasted makers keep it at and what it may never pass.
    expect(judgeWarming(temps(43, 43, 43), 47, show)?.sentence).toBe(
      '43.0 °C: over the 42.0 °C that such a mass is kept at, ceiling 47.0 °C.',
    );
  });
});

describe('running hours', () => {
  const stop = (hour: number) => ({ at: hour * HOUR, what: 'stop' as const });
  const stretches = grinding(lifeOf(0, [stop(5), stop(6), { at: 9 * HOUR, what: 'run' }], null));
  test('stops do not count, whatever is pressed twice', () => {
    expect(runningHours(stretches, 4 * HOUR)).toBe(4);
    expect(runningHours(stretches, 8 * HOUR)).toBe(5);
    expect(runningHours(stretches, 12 * HOUR)).toBe(8);
    expect(isRunning(stretches)).toBe(true);
    expect(isRunning(grinding(lifeOf(0, [stop(1)], null)))).toBe(false);
    expect(runningHours(grinding(lifeOf(0, [], 3 * HOUR)), 9 * HOUR)).toBe(3);
    // Before the bowl was charged, and after it was emptied, nothing is switched.
    expect(runningHours(grinding(lifeOf(2 * HOUR, [stop(1)], 5 * HOUR)), 9 * HOUR)).toBe(3);
  });

  const local = localIn('Europe/Lisbon');
  const attended = { fromMin: 420, toMin: 1080, days: [1, 2, 3, 4, 5] };
  // Friday 27 November 2026, 16:00 in Lisbon.
  const friday = Date.UTC(2026, 10, 27, 16);
  test('where nothing runs unattended, what is left goes on when somebody comes', () => {
    const now = { at: friday, hours: 10 };
    expect(momentOf(11, now, true, attended, local)).toBe(friday + HOUR);
    expect(momentOf(11, now, false, attended, local)).toBe(friday + HOUR);
    // Two of five hours are left of Friday; the other three begin on Monday at seven.
    expect(momentOf(15, now, false, attended, local)).toBe(Date.UTC(2026, 10, 30, 10));
    expect(hoursAt(Date.UTC(2026, 10, 30, 10), now, false, attended, local)).toBeCloseTo(15, 6);
    expect(momentOf(Infinity, now, true, attended, local)).toBeNull();
    expect(momentOf(9, now, true, attended, local)).toBe(friday);
    expect(momentOf(900, now, false, attended, local)).toBeNull();
  });
  test('hours when somebody is there, over a weekend and the end of summer time', () => {
    expect(attendedHours(friday, attended, local, 4).map((at) => new Date(at).toISOString().slice(5, 13))).toEqual([
      '11-27T16',
      '11-27T17',
      '11-30T07',
      '11-30T08',
    ]);
    expect(nextAttended(Date.UTC(2026, 9, 24, 12), attended, local)).toBe(Date.UTC(2026, 9, 26, 7));
    expect(nextAttended(friday, { ...attended, days: [] }, local)).toBe(friday);
  });
});

describe('resting', () => {
  const rows = (pairs: [number, number][]) => pairs.map(([restedDays, score]) => ({ restedDays, score }));
  test('it helps, it does not, or nobody can say', () => {
    expect(judgeRest(rows([[7, 6]]), studentQuantile).sentence).toContain('too few');
    expect(
      judgeRest(
        rows([
          [14, 6],
          [14, 7],
          [15, 6],
          [14, 8],
          [15, 7],
          [14, 7],
        ]),
        studentQuantile,
      ).sentence,
    ).toContain('All 6 rested about');
    const better = judgeRest(
      rows([
        [5, 6],
        [8, 6.4],
        [12, 6.8],
        [20, 7.6],
        [25, 8.1],
        [30, 8.4],
      ]),
      studentQuantile,
    );
    expect(better.tone).toBe('good');
    // Least squares by hand: 0.0985 a day.
    expect(better.perWeek?.mean).toBeCloseTo(0.69, 1);
    expect(
      judgeRest(
        rows([
          [5, 7],
          [8, 6],
          [12, 8],
          [20, 6.5],
          [25, 7.5],
          [30, 7],
        ]),
        studentQuantile,
      ).sentence,
    ).toContain('No difference');
    expect(
      judgeRest(
        rows([
          [5, 8],
          [8, 7.7],
          [12, 7.3],
          [20, 6.5],
          [25, 6],
          [30, 5.5],
        ]),
        studentQuantile,
      ).tone,
    ).toBe('watch');
  });
});

describe('forecasts held up to what came', () => {
  const passed = { notBeforeH: 36, outcomeH: 48 };
  test('one holds where its hours meet the stretch in which the target was passed', () => {
    expect(held({ p10: 30, p90: 37 }, passed)).toBe(true);
    expect(held({ p10: 47, p90: 60 }, passed)).toBe(true);
    expect(held({ p10: 20, p90: 35 }, passed)).toBe(false);
    expect(held({ p10: 49, p90: Infinity }, passed)).toBe(false);
    expect(
      countHeld([
        {
          ...passed,
          told: [
            { p10: 30, p90: 40 },
            { p10: 50, p90: 60 },
          ],
        },
      ]),
    ).toEqual({ held: 1, of: 2 });
    expect(countHeld([])).toEqual({ held: 0, of: 0 });
  });
});

describe('what earlier batches of a bean teach', () => {
  const past = (rate: number, n: number): { tastes: ConcheTaste[]; heat: [] }[] =>
    Array.from({ length: n }, (_, batch) => ({
      tastes: [0, 10, 20, 35].map((atH) => ({
        atH,
        score: 1.4 + 5.6 * Math.exp(-rate * hoursAt60([], atH)) + (batch % 2 === 0 ? 0.3 : -0.3),
      })),
      heat: [],
    }));

  test('they narrow the next one, and lean it towards what they took', () => {
    const wide = forecastConche([{ atH: 0, score: 7 }], [], 3, 0);
    const narrow = forecastConche([{ atH: 0, score: 7 }], [], 3, 0, conchePriorFrom(past(0.09, 5)));
    expect(narrow.more.p90 - narrow.more.p10).toBeLessThan(wide.more.p90 - wide.more.p10);
    const slow = forecastConche([{ atH: 0, score: 7 }], [], 3, 0, conchePriorFrom(past(0.03, 5)));
    expect(slow.more.p50).toBeGreaterThan(narrow.more.p50);
    // One tasting of one batch teaches nothing.
    expect(conchePriorFrom([{ tastes: [{ atH: 0, score: 7 }], heat: [] }])).toBe(CONCHE_PRIOR);
  });

  test('with past batches behind it, eight in ten hold on tasters of another kind', () => {
    let [held, all] = [0, 0];
    for (let bean = 0; bean < 40; bean += 1) {
      const chance = seeded(900 + bean);
      const normal = normals(chance);
      const own = 0.06 * Math.exp(0.35 * normal());
      const batch = () => {
        const rate = own * Math.exp(0.15 * normal());
        const start = 7 + 0.5 * normal();
        const at = (hour: number): number =>
          1.3 +
          (start - 1.3) *
            (0.7 * Math.exp(-rate * hoursAt60([], hour)) + 0.3 * Math.exp(-0.4 * rate * hoursAt60([], hour)));
        const said = (hour: number): ConcheTaste => ({
          atH: hour,
          score: Math.round(2 * (at(hour) + 0.5 * normal())) / 2,
        });
        return { at, said };
      };
      const prior = conchePriorFrom(
        Array.from({ length: 4 }, () => {
          const { said } = batch();
          return { tastes: [said(2), said(14), said(28), said(44)], heat: [] };
        }),
      );
      for (let next = 0; next < 5; next += 1) {
        const { at, said } = batch();
        let doneH = 16;
        while (at(doneH) > 3 && doneH < 400) doneH += 0.25;
        const found = forecastConche([said(2), said(9), said(16)], [], 3, 16, prior);
        all += 1;
        if (16 + found.more.p10 <= doneH + 0.5 && doneH - 0.5 <= 16 + found.more.p90) held += 1;
      }
    }
    expect(held / all).toBeGreaterThan(0.7);
    expect(held / all).toBeLessThan(0.95);
  });

  test('the last good one and the one that was stopped early are told; aroma that goes is said', () => {
    const rows = [
      { code: 'B010', hours: 31, sourness: 2, score: 7.9, words: 'Round' },
      { code: 'B012', hours: 14, sourness: 5, score: 6.1, words: 'Sour a week later' },
    ];
    expect(concheHistory(rows, 3)).toEqual([
      'The last good one, B010, took 31 h and left the stones at sourness 2; scored 7.9.',
      'B012 was stopped after 14 h at sourness 5 and scored 6.1: “Sour a week later”.',
    ]);
    expect(concheHistory([], 3)).toEqual([]);
    expect(judgeAroma([{ atH: 4, score: 6 }])).toBeNull();
    expect(
      judgeAroma([
        { atH: 4, score: 7 },
        { atH: 20, score: 5 },
      ])?.tone,
    ).toBe('watch');
    expect(
      judgeAroma([
        { atH: 4, score: 6 },
        { atH: 20, score: 6.5 },
      ])?.tone,
    ).toBe('good');
  });
});
