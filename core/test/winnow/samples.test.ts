import { airAdvice, sampleShare, secondPass } from '../../src/winnow/samples';
import { judgeSieve } from '../../src/winnow/sieve';

const samples = (...found: number[]) => found.map((foundG) => ({ sampleG: 100, foundG }));

describe('picked samples', () => {
  it('give a mean share with Student’s interval: 1.0, 1.4, 1.2 g in 100 g', () => {
    const share = sampleShare(samples(1, 1.4, 1.2));
    expect(share?.mean).toBeCloseTo(0.012, 12);
    // sd 0.2 g; t(0.975, 2) = 4.3027; 4.3027 · 0.002 / √3 = 0.00497.
    expect(share?.high).toBeCloseTo(0.012 + 0.00497, 4);
    expect(sampleShare([])).toBeNull();
    expect(sampleShare(samples(0.1, 2))?.low).toBe(0);
  });
});

describe('running the husk again', () => {
  const facts = { huskG: 4000, efficiency: 0.7, nibPerKg: 11, wagePerHour: 16.5, minutes: 12 };

  it('is worth what by hand it is worth: 4 kg husk, 6 % nib, 0.7 of it at €11 against 12 minutes', () => {
    const pass = secondPass({ ...facts, nibInHusk: { mean: 0.06, low: 0.05, high: 0.07, n: 3 } });
    expect(pass.recoverG.mean).toBeCloseTo(168, 9);
    expect(pass.worth).toBeCloseTo(1.848, 9);
    expect(pass.cost).toBeCloseTo(3.3, 9);
    expect(pass.net.high).toBeCloseTo(0.196 * 11 - 3.3, 9);
    expect(pass.verdict).toBe('leave it');
    // In ounces where the workshop weighs in them: 168 / 28.3495 = 5.93.
    expect(pass.sentence).toContain('about 168\u00a0g of nib');
    const inOunces = secondPass({
      ...facts,
      nibInHusk: { mean: 0.06, low: 0.05, high: 0.07, n: 3 },
      massSystem: 'imperial',
    });
    expect(inOunces.sentence).toContain('about 5.93\u00a0oz of nib');
  });

  it('pays with much nib and few minutes, and is honest in between', () => {
    const rich = { mean: 0.2, low: 0.15, high: 0.25, n: 3 };
    expect(secondPass({ ...facts, nibInHusk: rich }).verdict).toBe('run it');
    const wide = secondPass({ ...facts, nibInHusk: { mean: 0.12, low: 0, high: 1, n: 1 } });
    expect(wide.verdict).toBe('not sure');
    expect(wide.sentence).toContain('one sample says little');
  });
});

describe('the air', () => {
  const past = { shell: [0.008, 0.01, 0.009, 0.011], nib: [0.02, 0.024, 0.022, 0.021] };

  it('is left alone when both are as usual', () => {
    expect(airAdvice(sampleShare(samples(0.9, 1.0)), sampleShare(samples(2.1, 2.2)), past)).toMatchObject({
      turn: 'leave',
      tone: 'good',
    });
  });

  it('goes up for shell in the nibs, down for nib in the husk, and neither mends both', () => {
    const shell = sampleShare(samples(2.4, 2.6, 2.5));
    const nib = sampleShare(samples(6, 6.2, 5.9));
    expect(airAdvice(shell, sampleShare(samples(2)), past)).toMatchObject({ turn: 'up' });
    expect(airAdvice(sampleShare(samples(0.9)), nib, past)).toMatchObject({ turn: 'down', sure: true });
    expect(airAdvice(shell, nib, past).turn).toBe('crack');
    expect(airAdvice(shell, null, { shell: [], nib: [] }).evidence).toContain('1.8 %');
  });

  it('asks for samples', () => {
    expect(airAdvice(null, null, past)).toMatchObject({ tone: 'unknown', turn: null });
  });
});

describe('cracking test', () => {
  it('gives shares, and what fines and dust cost: 20 kg with 10 % fines and 2 % dust at €11', () => {
    const verdict = judgeSieve({ coarseG: 80, goodG: 800, finesG: 100, dustG: 20 }, 20_000, 11);
    expect(verdict?.shares.good).toBeCloseTo(0.8, 12);
    expect(verdict?.lostG).toBeCloseTo(20_000 * 0.07, 9);
    expect(verdict?.lostMoney).toBeCloseTo(15.4, 9);
    expect(verdict?.tone).toBe('good');
  });

  it('tells coarse from fine', () => {
    expect(judgeSieve({ coarseG: 40, goodG: 55, finesG: 5, dustG: 0 }, 1, 1)?.sentence).toContain('Narrow the gap');
    expect(judgeSieve({ coarseG: 5, goodG: 65, finesG: 25, dustG: 5 }, 1, 1)?.sentence).toContain('Widen the gap');
    expect(judgeSieve({ coarseG: 0, goodG: 0, finesG: 0, dustG: 0 }, 1, 1)).toBeNull();
  });
});
