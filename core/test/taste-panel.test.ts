import { normals, seeded } from '../src/stats/chance';
import { judgePanel } from '../src/taste/panel';
import type { PanelScore } from '../src/taste/palates';
import { servings } from '../src/taste/serving';

/* What a panel says of bars: made effects come back, intervals hold as often as they say. */

interface Made {
  bars: number;
  tasters: number;
  sessions?: number;
  /** Share of scores that are missing. */
  missing?: number;
  /** How unlike tasters use the scale, and what each makes of one bar. */
  scaleSd?: number;
  ownSd?: number;
  noise?: number;
  first?: number;
}

/** Scores of an uneven panel, and the bars' own values behind them. */
function panel(seed: number, made: Made, values?: number[]): { rows: PanelScore[]; theta: number[] } {
  const { bars, tasters, sessions = 1, missing = 0, scaleSd = 0.3, ownSd = 0, noise = 0.7, first = 0.5 } = made;
  const chance = seeded(seed);
  const normal = normals(chance);
  const theta = values ?? Array.from({ length: bars }, () => 0.8 * normal());
  const orders = servings(bars, tasters, chance);
  const rows: PanelScore[] = [];
  for (let taster = 0; taster < tasters; taster += 1) {
    const wide = Math.exp(scaleSd * normal() - (scaleSd * scaleSd) / 2);
    const [lean, scatter] = [normal(), noise * Math.exp(0.4 * normal())];
    const own = theta.map(() => ownSd * normal());
    for (let session = 0; session < sessions; session += 1) {
      const level = 6 + lean + 0.3 * normal();
      orders[taster]?.order.forEach((bar, place) => {
        const score =
          level + wide * (theta[bar] ?? 0) + (own[bar] ?? 0) + (place === 0 ? first : 0) + scatter * normal();
        if (chance() >= missing)
          rows.push({
            bar: `b${bar}`,
            taster: `t${taster}`,
            session: `s${session}`,
            place: place + 1,
            // To the half, as people write.
            score: Math.round(2 * score) / 2,
          });
      });
    }
  }
  return { rows, theta };
}

/** Share of pairs whose true difference lies in its interval. */
function held(made: Made, panels: number): number {
  let [inside, of] = [0, 0];
  for (let seed = 1; seed <= panels; seed += 1) {
    const { rows, theta } = panel(seed, made);
    for (const { a, b, low, high } of judgePanel(rows).pairs) {
      const truth = (theta[Number(a.slice(1))] ?? 0) - (theta[Number(b.slice(1))] ?? 0);
      of += 1;
      if (low <= truth && truth <= high) inside += 1;
    }
  }
  return inside / of;
}

describe('bars compared', () => {
  test.each<[string, Made]>([
    ['four bars, eight tasters, a quarter missing', { bars: 4, tasters: 8, missing: 0.25 }],
    ['three bars, twelve tasters', { bars: 3, tasters: 12, missing: 0.1, scaleSd: 0.4 }],
    ['six bars, ten tasters, a third missing', { bars: 6, tasters: 10, missing: 0.3, scaleSd: 0.2 }],
  ])('nine in ten intervals hold in a thousand panels: %s', (_, made) => {
    const share = held(made, 1000);
    expect(share).toBeGreaterThanOrEqual(0.87);
    expect(share).toBeLessThanOrEqual(0.93);
  });

  test('they hold too where everybody comes back and has a liking of their own', () => {
    const share = held({ bars: 4, tasters: 6, sessions: 3, missing: 0.2, ownSd: 0.4 }, 300);
    expect(share).toBeGreaterThanOrEqual(0.86);
    expect(share).toBeLessThanOrEqual(0.94);
  });

  test('made effects come back: bars, and what standing first brings', () => {
    const { rows } = panel(7, { bars: 4, tasters: 60, noise: 0.4, scaleSd: 0.1, first: 0.6 }, [1, 0.4, -0.4, -1]);
    const verdict = judgePanel(rows);
    expect(verdict.bars.map(({ bar }) => bar)).toEqual(['b0', 'b1', 'b2', 'b3']);
    expect(verdict.pairs.find(({ a, b }) => a === 'b0' && b === 'b3')?.difference).toBeCloseTo(2, 0);
    expect(verdict.first?.low).toBeLessThan(0.6);
    expect(verdict.first?.high).toBeGreaterThan(0.6);
    expect(verdict.first?.low).toBeGreaterThan(0);
    expect(verdict.moreTasters).toBe(0);
    expect(verdict.sentence).toMatch(/^b0 is better than b1, by/);
  });

  test('eight bars, twenty-five people, ten sessions, with places: read, and the same whatever the order of the scores', () => {
    const normal = normals(seeded(3));
    const rows = Array.from({ length: 2000 }, (_, i): PanelScore => ({
      bar: `${i % 8}`,
      taster: `${Math.floor(i / 8) % 25}`,
      session: `${Math.floor(i / 200)}`,
      place: ((i + Math.floor(i / 8)) % 8) + 1,
      score: Math.max(0, Math.min(10, 6 + normal())),
    }));
    const [one, two] = [judgePanel(rows), judgePanel([...rows].reverse())];
    expect(one.bars).toHaveLength(8);
    one.bars.forEach(({ bar, mean }) => expect(two.bars.find((row) => row.bar === bar)?.mean).toBeCloseTo(mean, 6));
  });

  test('tongues that tire from place to place are told, and taken out', () => {
    const normal = normals(seeded(5));
    const orders = servings(4, 48, seeded(6));
    const rows = orders.flatMap(({ taster, order }) =>
      order.map((bar, place) => ({
        bar: `b${bar}`,
        taster: `${taster}`,
        session: 's',
        place: place + 1,
        score: 6 + 0.5 * bar - 0.4 * Math.max(0, place - 1) + 0.4 * normal(),
      })),
    );
    const { later, first } = judgePanel(rows);
    expect(later?.high).toBeLessThan(-0.2);
    expect(Math.abs((later?.value ?? 0) + 0.4)).toBeLessThan(0.15);
    expect(Math.abs(first?.value ?? 9)).toBeLessThan(0.3);
  });

  test('who scores high, and who was served something first, does not decide', () => {
    // Two bars that are one: all of one half tasted a first, and the generous ones only b as well.
    const rows: PanelScore[] = [];
    const normal = normals(seeded(3));
    for (let t = 0; t < 20; t += 1)
      for (const bar of ['a', 'b'])
        rows.push({
          bar,
          taster: `${t}`,
          session: 's',
          place: 1 + Number((t % 2 === 0) !== (bar === 'a')),
          score: 5 + (t % 5) + 0.3 * normal(),
        });
    rows.push(...[11, 12, 13].map((t) => ({ bar: 'b', taster: `only ${t}`, session: 's', place: 1, score: 10 })));
    const [pair] = judgePanel(rows).pairs;
    expect(Math.abs(pair?.difference ?? 9)).toBeLessThan(0.3);
  });

  test('bars that were never in one round are not compared, and named', () => {
    const round = (taster: string, bars: string[]): PanelScore[] =>
      bars.map((bar, i) => ({ bar, taster, session: 's', place: i + 1, score: 5 + i }));
    const verdict = judgePanel([
      ...['1', '2', '3'].flatMap((taster) => round(taster, ['a', 'b', 'c'])),
      ...round('4', ['x', 'y']),
    ]);
    expect(verdict.apart).toEqual(['x', 'y']);
    expect(verdict.bars).toHaveLength(3);
  });

  test('too little says so; one palate speaks for itself', () => {
    expect(judgePanel([]).sentence).toMatch(/nothing can be compared/);
    const once: PanelScore[] = ['a', 'b'].map((bar, i) => ({
      bar,
      taster: 't',
      session: 's',
      place: i + 1,
      score: 5 + i,
    }));
    expect(judgePanel(once).sentence).toMatch(/too few/);
    const often = [1, 2, 3, 4, 5].flatMap((day) =>
      ['a', 'b', 'c'].map((bar, i) => ({
        bar,
        taster: 't',
        session: `${day}`,
        place: i + 1,
        score: 4 + 2 * i + (day % 2) * 0.5,
      })),
    );
    expect(judgePanel(often).sentence).toMatch(/One palate says so/);
  });

  test('more tasting is asked for where it could tell, and not where it would change nothing', () => {
    const near = judgePanel(panel(2, { bars: 2, tasters: 6, noise: 1 }, [0.6, 0]).rows);
    expect(near.moreTasters === null || near.moreTasters > 0 || (near.pairs[0]?.low ?? 0) > 0).toBe(true);
    const same = judgePanel(panel(9, { bars: 2, tasters: 60, noise: 0.3, first: 0, scaleSd: 0 }, [0, 0]).rows);
    expect(same.moreTasters).toBe(0);
    expect(same.sentence).toMatch(/as good as each other/);
  });

  test('tasters: level, scale, steadiness and drift are read, pulled towards the panel', () => {
    const normal = normals(seeded(8));
    const rows: PanelScore[] = [];
    const habits = [
      { lean: 1.5, wide: 1, noise: 0.2, drift: 0 },
      { lean: -1, wide: 0.4, noise: 0.2, drift: 0 },
      { lean: 0, wide: 1.5, noise: 1.4, drift: 0 },
      { lean: 0, wide: 1, noise: 0.2, drift: -0.5 },
      { lean: -0.5, wide: 1, noise: 0.3, drift: 0 },
    ];
    habits.forEach(({ lean, wide, noise, drift }, t) => {
      for (let session = 0; session < 6; session += 1)
        [2, 1, -1, -2].forEach((value, bar) =>
          rows.push({
            bar: `${bar}`,
            taster: `${t}`,
            session: `${session}`,
            place: 0,
            score: 5 + lean + wide * value + drift * session + noise * normal(),
          }),
        );
    });
    const { tasters } = judgePanel(rows);
    const of = (t: number) => tasters.find(({ taster }) => taster === `${t}`);
    expect(of(0)?.lean).toBeGreaterThan(0.8);
    expect(of(1)?.spread).toBeLessThan(0.7);
    expect(of(2)?.spread).toBeGreaterThan(1.2);
    expect(of(2)?.repeat).toBeGreaterThan(3 * (of(0)?.repeat ?? 9));
    expect(of(3)?.drift).toBeCloseTo(-0.5, 1);
    expect(Math.abs(of(0)?.drift ?? 9)).toBeLessThan(0.15);
  });
});
