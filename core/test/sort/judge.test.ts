import {
  adviseSort,
  costOfOnePercent,
  projectRest,
  summarise,
  type Measures,
  type SortSession,
} from '../../src/sort/judge';
import { seededNormal } from '../seeded';

const session = (inG: number, rejectsG: SortSession['rejectsG'], minutes: number, personId = 'ann'): SortSession => ({
  stepId: `${personId}${inG}${minutes}`,
  at: 0,
  personId,
  inG,
  goodG: inG - Object.values(rejectsG).reduce((a, b) => a + b, 0),
  rejectsG,
  minutes,
});
const measures: Measures = {
  inspected: null,
  familyShares: [],
  family: 'Uganda, west',
  rejectPct: null,
  flatPct: null,
};

describe('sorting added up', () => {
  const summary = summarise([
    session(20_000, { flat: 600, broken: 200 }, 120),
    session(10_000, { flat: 300 }, 30, 'bo'),
  ]);

  it('gives shares by reason, the largest first', () => {
    expect(summary.rejectShare).toBeCloseTo(1100 / 30_000, 12);
    expect(summary.reasons.map(({ reason, grams }) => [reason, grams])).toEqual([
      ['flat', 900],
      ['broken', 200],
    ]);
    expect(summary.unaccountedG).toBe(0);
  });

  it('gives each person’s speed, and none where nobody looked at the clock', () => {
    expect(summary.speeds).toMatchObject([
      { personId: 'bo', kgPerHour: 20 },
      { personId: 'ann', kgPerHour: 10 },
    ]);
    expect(summarise([session(1000, {}, 0)]).speeds).toEqual([]);
  });
});

describe('the rest of a lot', () => {
  it('is worked out from its own sessions: 40 kg at 5 % and 6 min a kg', () => {
    const own = Array.from({ length: 4 }, () => session(20_000, { flat: 1000 }, 120));
    const rest = projectRest(own, [], 40_000, 6, 15);
    expect(rest.goodG.mean).toBeCloseTo(38_000, 6);
    expect(rest.hours.mean).toBeCloseTo(4, 9);
    // (€6 + 0.1 h × €15) / 0.95
    expect(rest.costPerGoodKg).toBeCloseTo(7.5 / 0.95, 9);
    expect(rest.basis).toBe('4 sessions on this lot');
  });

  it('without a past shows the trade’s range', () => {
    const rest = projectRest([], [], 10_000, 6, 15);
    expect(rest.basis).toContain('usual ranges');
    expect(rest.goodG.low).toBeCloseTo(9000, 6);
    expect(rest.hours.high).toBeGreaterThan(rest.hours.low);
  });

  it('covers the truth at its stated rate', () => {
    const normal = seededNormal(31);
    const draw = (): SortSession => {
      const inG = 20_000;
      return session(inG, { flat: Math.max(0, inG * (0.05 + 0.01 * normal())) }, Math.max(10, 120 + 15 * normal()));
    };
    let covered = 0;
    for (let i = 0; i < 2000; i += 1) {
      const rest = projectRest([draw(), draw(), draw(), draw(), draw()], [], 60_000, 6, 15);
      const truth = [draw(), draw(), draw()].reduce((sum, s) => sum + s.goodG, 0);
      if (truth >= rest.goodG.low && truth <= rest.goodG.high) covered += 1;
    }
    expect(Math.abs(covered / 2000 - 0.8)).toBeLessThan(0.04);
  });

  it('one more percent costs its share of the bar', () => {
    // 70 g of 70 % at bean-to-bar 0.7: 70 g of sorted beans at €8 a kilogram; 0.95 → 0.94.
    expect(costOfOnePercent(8, 0.05, 0.7, 0.7, 70)).toBeCloseTo(0.07 * 8 * (0.95 / 0.94 - 1), 12);
  });
});

describe('advice at the sorting table', () => {
  const shares = [0.03, 0.035, 0.04, 0.032, 0.038, 0.036];

  it('finds nothing to say against the usual', () => {
    const advice = adviseSort(summarise([session(20_000, { flat: 700 }, 120)]), { ...measures, familyShares: shares });
    expect(advice.tone).toBe('good');
  });

  it('names the reason that drives a bad lot', () => {
    const advice = adviseSort(summarise([session(20_000, { flat: 2400, broken: 200 }, 120)]), {
      ...measures,
      familyShares: shares,
    });
    expect(advice.sentence).toMatch(/13\.0 % picked out: more than .* Flat beans are 92\.3 % of it/);
  });

  it('sends for the claim when the contract is broken', () => {
    const advice = adviseSort(summarise([session(20_000, { flat: 1600 }, 120)]), { ...measures, flatPct: 5 });
    expect(advice.sentence).toContain('Claim reached: 8.0 % flat against 5 %');
  });

  it('doubts a hand lighter than ever', () => {
    expect(
      adviseSort(summarise([session(20_000, { flat: 10 }, 120)]), { ...measures, familyShares: shares }).todo,
    ).toContain('sort harder');
  });

  it('asks for a first sack', () => {
    expect(adviseSort(summarise([]), measures).tone).toBe('unknown');
  });
});
