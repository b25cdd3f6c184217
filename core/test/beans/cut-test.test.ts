import { wrongWords } from '../../calibrate/cuts';
import { trayClumping, cutShares, judgeCut, NO_BEANS, standing, type Tally } from '../../src/beans/cut-test';
import { wilson } from '../../src/stats/intervals';
import { logEvidence, surelyBeside } from '../../src/stats/sequential';
import { seededChance } from '../seeded';

const tally = (rest: Partial<Tally>, n = 300): Tally => {
  const faults = Object.values(rest).reduce((sum, value) => sum + value, 0);
  return { ...NO_BEANS, ...rest, brown: n - faults };
};

describe('cut test', () => {
  it('gives shares with Wilson intervals', () => {
    const shares = cutShares(tally({ mouldy: 6, slaty: 9, insect: 1, germinated: 2, flat: 3 }));
    expect(shares.mouldy).toMatchObject({ hits: 6, share: 0.02 });
    expect(shares.defective).toMatchObject({ hits: 6, share: 0.02 });
    expect(shares.slaty.low).toBeCloseTo(0.0159, 3);
    expect(shares.slaty.high).toBeCloseTo(0.0561, 3);
  });

  it.each<[string, Partial<Tally>, 'I' | 'II' | 'below']>([
    ['clean', {}, 'I'],
    ['at the limit of I', { mouldy: 9, slaty: 9, flat: 9 }, 'I'],
    ['mouldy over I', { mouldy: 10 }, 'II'],
    ['slaty at the limit of II', { slaty: 24 }, 'II'],
    ['mouldy over II', { mouldy: 13 }, 'below'],
    ['germinated and flat together over II', { germinated: 10, flat: 9 }, 'below'],
  ])('%s', (_, rest, grade) => {
    expect(judgeCut(tally(rest), 300).grade).toBe(grade);
  });

  it('is sure of a clean 300, and not of one at the limit', () => {
    expect(judgeCut(tally({ mouldy: 1 }), 300)).toMatchObject({ grade: 'I', sure: true, more: 0 });
    const close = judgeCut(tally({ mouldy: 8 }), 300);
    expect(close).toMatchObject({ grade: 'I', sure: false });
    expect(close.more === null || close.more > 300).toBe(true);
  });

  it('is sure that a very mouldy lot is below grade, and says why', () => {
    const verdict = judgeCut(tally({ mouldy: 45 }), 300);
    expect(verdict).toMatchObject({ grade: 'below', sure: true });
    expect(verdict.why).toContain('mouldy 45 of 300');
  });

  it('lets exact bounds decide only at the planned count', () => {
    // 3 of 300: the exact bound is 2.9 %, under the limit; the rule that holds at all moments is not there yet.
    expect(standing(3, 300, 0.03, 300)).toBe('within');
    expect(standing(3, 300, 0.03, 500)).toBe('open');
    expect(judgeCut(tally({ mouldy: 3 }), 300).why).toContain('planned, so exact 95 % bounds decide');
    expect(judgeCut(tally({}, 100), 300).why).toContain('whenever one stops');
  });

  it('says how many more beans settle it, and that many do', () => {
    const now = tally({ slaty: 1 }, 100);
    const { more, sure } = judgeCut(now, 300);
    expect(sure).toBe(false);
    expect(more).toBe(200);
    expect(judgeCut(tally({ slaty: 3 }, 100 + (more ?? 0)), 300).sure).toBe(true);
  });

  it('has nothing to say about no beans', () => {
    expect(judgeCut(NO_BEANS, 300)).toMatchObject({ grade: null, sure: false, more: null });
  });
});

describe('evidence that may be looked at after every bean', () => {
  it('is what the integral gives: 0 of 1 at a limit of one half', () => {
    // Mean of 1 − p under Beta(½, 4½) is 0.9; over the likelihood 0.5 that is 1.8.
    expect(Math.exp(logEvidence(0, 1, 0.5))).toBeCloseTo(1.8, 9);
    expect(Math.exp(logEvidence(1, 1, 0.5))).toBeCloseTo(0.2, 9);
  });

  it('is a fair game at the limit itself: its mean over all outcomes is 1', () => {
    for (const [n, limit] of [
      [7, 0.03],
      [12, 0.2],
    ] as const) {
      let mean = 0;
      let ways = 1;
      for (let k = 0; k <= n; k += 1) {
        mean += ways * limit ** k * (1 - limit) ** (n - k) * Math.exp(logEvidence(k, n, limit));
        ways = (ways * (n - k)) / (k + 1);
      }
      expect(mean).toBeCloseTo(1, 9);
    }
  });

  it('is not fooled by stopping at the best moment: false words stay under their risk', () => {
    const chance = seededChance(5);
    const lots = 1500;
    let falseWithin = 0;
    let naive = 0;
    for (let lot = 0; lot < lots; lot += 1) {
      let hits = 0;
      let [said, saidNaively] = [false, false];
      // The truth lies exactly on the limit, so saying “within” is wrong; one may stop after any bean.
      for (let n = 1; n <= 600; n += 1) {
        if (chance() < 0.03) hits += 1;
        said ||= standing(hits, n, 0.03, 300) === 'within';
        saidNaively ||= wilson(hits, n).high < 0.03;
      }
      if (said) falseWithin += 1;
      if (saidNaively) naive += 1;
    }
    expect(falseWithin / lots).toBeLessThan(0.05);
    // The interval alone, looked at after every bean, would be wrong several times as often.
    expect(naive / lots).toBeGreaterThan(0.08);
  });

  it('does find what is really beside the limit', () => {
    const chance = seededChance(9);
    let found = 0;
    for (let lot = 0; lot < 200; lot += 1) {
      let hits = 0;
      for (let n = 1; n <= 600; n += 1) {
        if (chance() < 0.12) hits += 1;
        if (surelyBeside(hits, n, 0.03, 0.025) === 'above') {
          found += 1;
          break;
        }
      }
    }
    expect(found).toBe(200);
  });
});

describe('faults that lie together', () => {
  it('a sure word is wrong in one of twenty at most, with trays as unlike as mould makes them', () => {
    for (const truth of [
      { name: '', mouldy: 0.03 + 1e-9, slaty: 0.005, defective: 0.005 },
      { name: '', mouldy: 0.04, slaty: 0.08, defective: 0.06 },
    ])
      for (const correlation of [0, 0.03]) expect(wrongWords(700, truth, { correlation }, 12).wrong).toBeLessThan(0.06);
  });

  it('trays that differ by more than chance count for fewer beans', () => {
    const even = Array.from({ length: 6 }, () => tally({ mouldy: 2 }, 50));
    const clumped = [12, 0, 0, 0, 0, 0].map((mouldy) => tally({ mouldy }, 50));
    expect(trayClumping(even, 'mouldy')).toBeLessThan(1.2);
    expect(trayClumping(clumped, 'mouldy')).toBeGreaterThan(4);
    expect(trayClumping([], 'mouldy')).toBe(1);
    const whole = tally({ mouldy: 12 }, 300);
    expect(judgeCut(whole, 300, clumped).why).toMatch(/count as \d+ loose ones/);
    expect(judgeCut(whole, 300).why).toContain('drawn by itself');
  });
});
