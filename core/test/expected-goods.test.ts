import { expectGoods, type StationYields } from '../src/ledger/expect';
import { seededNormal } from './seeded';

const usual = [0.9, 0.99] as const;
const chain = (own: number[], family: number[] = []): StationYields[] => [
  { station: 'sort', own, family, usual, loadG: 20_000 },
  { station: 'winnow', gives: 'nibs', own, family, usual: [0.78, 0.88], loadG: 20_000 },
];

describe('what the beans on hand will give', () => {
  it('multiplies mean yields: 100 kg, 0.95 each, 70 g bars of 70 %', () => {
    const goods = expectGoods(100_000, chain([0.95, 0.95, 0.95, 0.95]), { barG: 70, cacao: 0.7 });
    expect(goods.nibsG.mean).toBeCloseTo(100_000 * 0.95 * 0.95, 3);
    expect(goods.bars.mean).toBeCloseTo(90_250 / 49, 3);
    expect(goods.nibsG.low).toBeCloseTo(goods.nibsG.high, 3);
    expect(goods.basis[0]).toMatchObject({ whose: 'this lot', n: 4 });
  });

  it('takes the family while the lot is young, and the trade without either', () => {
    expect(expectGoods(1000, chain([0.95], [0.94, 0.96, 0.95]), { barG: 70, cacao: 0.7 }).basis[0]?.whose).toBe(
      'its family',
    );
    const trade = expectGoods(1000, chain([]), { barG: 70, cacao: 0.7 });
    expect(trade.basis[1]).toMatchObject({ whose: 'the trade', n: 0 });
    expect(trade.nibsG.low).toBeLessThan(trade.nibsG.mean);
  });

  it('covers the truth at its stated rate', () => {
    const normal = seededNormal(21);
    const draw = (mean: number, spread: number): number => mean * Math.exp(spread * normal());
    let covered = 0;
    const trials = 3000;
    for (let i = 0; i < trials; i += 1) {
      const past = (mean: number, spread: number): number[] => Array.from({ length: 8 }, () => draw(mean, spread));
      const rows: StationYields[] = [
        { station: 'sort', own: past(0.95, 0.012), family: [], usual, loadG: 20_000 },
        { station: 'roast', own: past(0.94, 0.006), family: [], usual, loadG: 6_000 },
        { station: 'winnow', gives: 'nibs', own: past(0.82, 0.02), family: [], usual, loadG: 20_000 },
      ];
      const goods = expectGoods(60_000, rows, { barG: 70, cacao: 0.7 }, 0.8);
      const later = (mean: number, spread: number, loads: number): number =>
        Math.exp(Array.from({ length: loads }, () => Math.log(draw(mean, spread))).reduce((a, b) => a + b, 0) / loads);
      const truth = 60_000 * later(0.95, 0.012, 3) * later(0.94, 0.006, 10) * later(0.82, 0.02, 3);
      if (truth >= goods.nibsG.low && truth <= goods.nibsG.high) covered += 1;
    }
    expect(covered / trials).toBeGreaterThan(0.77);
    expect(covered / trials).toBeLessThan(0.87);
  });
});
