import fc from 'fast-check';
import { planMoulds, setWarnings } from '../src/mould/plan';
import { giveawayMilli, studyWeights, tolerableErrorG } from '../src/mould/weights';
import { normals, seeded } from '../src/stats/chance';

describe('errors that the tables allow', () => {
  test.each([
    // 76/211/EEC, annex I, 2.4.
    [5, 0.5],
    [20, 1.8],
    [50, 4.5],
    [70, 4.5],
    [100, 4.5],
    [110, 5],
    [200, 9],
    [250, 9],
    [400, 12],
    [750, 15],
    [1500, 22.5],
  ])('by average, %s g: %s g', (nominalG, errorG) => {
    expect(tolerableErrorG(nominalG, 'eu')).toBe(errorG);
  });
  test.each([
    [30, 3],
    [36, 3.6],
    [50, 3.6],
    [70, 5.4],
    [85, 7.2],
    [150, 9],
    [200, 10.8],
    [250, 12.7],
    [300, 14.5],
  ])('by maximum allowable variation, %s g: %s g', (nominalG, errorG) => {
    expect(tolerableErrorG(nominalG, 'us')).toBe(errorG);
  });
  test('what is in no table has none', () => {
    expect(tolerableErrorG(4, 'eu')).toBeNull();
    expect(tolerableErrorG(20_000, 'eu')).toBeNull();
    expect(tolerableErrorG(500, 'us')).toBeNull();
    expect(tolerableErrorG(0, 'eu')).toBeNull();
  });
});

describe('weighed pieces', () => {
  test('mean, spread and share under the declared weight are those of the normal curve', () => {
    // Mean 71, standard deviation exactly 1.
    const rows = [70, 71, 72, 70, 71, 72, 70, 71, 72].map((value) => 71 + (value - 71) * Math.sqrt(8 / 6));
    const study = studyWeights(rows, 70, 'eu');
    expect(study.meanG).toBeCloseTo(71, 9);
    expect(study.sdG).toBeCloseTo(1, 9);
    // One standard deviation under the mean: 15.87 %; 5.5 under: nothing.
    expect(study.underShare).toBeCloseTo(0.158655, 5);
    expect(study.shortShare).toBeCloseTo(1.9e-8, 9);
    // t(8, 0.975) = 2.306 over 3.
    expect(study.meanLowG).toBeCloseTo(71 - 2.306 / 3, 3);
    expect(study).toMatchObject({ errorG: 4.5, aimG: 70, tone: 'good' });
    expect(study.sentence).toContain('1.0 g more than this spread needs');
  });

  test('a wide spread asks for a higher mean: the aim keeps one in forty over the error', () => {
    const wide = [62, 78, 66, 74, 70, 64, 76, 71];
    const study = studyWeights(wide, 70, 'eu');
    expect(study.aimG).toBeCloseTo(70 - 4.5 + 1.95996 * (study.sdG ?? 0), 3);
    expect(study).toMatchObject({ tone: 'watch' });
    expect(study.sentence).toMatch(/^Uneven: of all such pieces/);
  });

  test('too light, twice short, and too few to say', () => {
    expect(studyWeights([68, 68.4, 68.2, 67.8, 68.1], 70, 'eu').sentence).toMatch(/^Too light: 68\.1 g/);
    expect(studyWeights([70, 71, 60, 70, 71, 70], 70, 'eu').sentence).toMatch(
      /^1 of 6 short by more than twice the error/,
    );
    expect(studyWeights([70, 71], 70, 'eu')).toMatchObject({
      tone: 'quiet',
      todo: expect.stringContaining('Weigh 3 more') as string,
    });
    expect(studyWeights([], 70, 'eu').sentence).toBe('Nothing weighed yet.');
  });

  test('filled to the aim, as many are short as may be, and not many more', () => {
    const normal = normals(seeded(3));
    let [short, all] = [0, 0];
    for (let lot = 0; lot < 200; lot += 1) {
      const sd = 1.5 + (lot % 4);
      const learn = Array.from({ length: 40 }, () => 70 + sd * normal());
      const { aimG, errorG } = studyWeights(learn, 70, 'eu');
      for (let i = 0; i < 100; i += 1) {
        all += 1;
        if ((aimG ?? 0) + sd * normal() < 70 - (errorG ?? 0)) short += 1;
      }
    }
    expect(short / all).toBeLessThan(0.035);
  });

  test('a gram given away: pieces a year times what it costs', () => {
    // 20,000 bars, a gram each, 12 a kilogram: 240.
    expect(giveawayMilli(1, 20_000, 12_000)).toBe(240_000);
    expect(giveawayMilli(-1, 20_000, 12_000)).toBe(0);
  });
});

describe('what a bowl gives', () => {
  test('bars, moulds, fills and runs by hand', () => {
    const set = { cavities: 3, owned: 20, cabinetMoulds: 20, setMin: 25 };
    expect(planMoulds(9000, 200, 70, set)).toEqual({ bars: 125, moulds: 42, fills: 3, runs: 3, setMin: 75, overG: 50 });
    expect(planMoulds(9000, 200, 70, { ...set, cabinetMoulds: 8 })).toMatchObject({ fills: 3, runs: 6, setMin: 150 });
    expect(planMoulds(9000, 200, 70, { ...set, owned: 0, cabinetMoulds: 0 })).toMatchObject({ fills: 1, runs: 1 });
    expect(planMoulds(50, 0, 70, set)).toMatchObject({ bars: 0, moulds: 0, fills: 0, runs: 0 });
  });

  test('everything filled fits what there is, whatever the numbers', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 40_000 }),
        fc.integer({ min: 5, max: 200 }),
        fc.integer({ min: 1, max: 40 }),
        fc.integer({ min: 1, max: 60 }),
        (grams, barG, cavities, owned) => {
          const plan = planMoulds(grams, 0, barG, { cavities, owned, cabinetMoulds: 0, setMin: 20 });
          expect(plan.bars * barG + plan.overG).toBeCloseTo(grams, 6);
          expect(plan.moulds * cavities).toBeGreaterThanOrEqual(plan.bars);
          expect(plan.fills * owned).toBeGreaterThanOrEqual(plan.moulds);
        },
      ),
    );
  });

  test('warnings stand before the mistake: sweat, damp, moulds and rooms', () => {
    const ids = (facts: Parameters<typeof setWarnings>[0]) => setWarnings(facts).map(({ id }) => id);
    // 24 °C and 60 %: dew point 15.8 °C.
    expect(ids({ mouldC: 22, setC: 14, air: { tempC: 24, humidityPct: 60 } })).toEqual(['sweat']);
    expect(ids({ mouldC: 22, setC: 18, air: { tempC: 24, humidityPct: 60 } })).toEqual([]);
    expect(ids({ mouldC: 15, setC: 23, air: { tempC: 20, humidityPct: 70 } })).toEqual([
      'damp',
      'cold-mould',
      'warm-set',
    ]);
    expect(ids({ mouldC: 33, setC: null, air: null })).toEqual(['warm-mould']);
    expect(setWarnings({ mouldC: null, setC: 14, air: { tempC: 24, humidityPct: 60 } })[0]?.sentence).toMatch(
      /^Bars that set at 14\s°C will sweat in this room: its dew point is 15\.8\s°C\.$/u,
    );
  });
});
