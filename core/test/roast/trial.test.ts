import { judgeTrial, type TriedRoast } from '../../src/roast/trial';
import { seededNormal } from '../seeded';

const GRID: TriedRoast[] = [118, 126, 134].flatMap((peakC) =>
  [18, 30].map((minutes) => ({ peakC, minutes, loads: [] })),
);
const scored = (scores: Record<number, number[]>, tasters = 3): TriedRoast[] =>
  GRID.map((roast, i) => ({ ...roast, loads: (scores[i] ?? []).map((score) => ({ score, tasters })) }));

describe('which roast suits a lot', () => {
  test('without a score every roast may be the best, and it says so', () => {
    const verdict = judgeTrial(GRID);
    expect(verdict.sentence).toContain('No score yet');
    expect(verdict.cells.reduce((sum, { chanceBest }) => sum + chanceBest, 0)).toBeCloseTo(1, 6);
    verdict.cells.forEach(({ chanceBest }) => expect(chanceBest).toBeLessThan(0.45));
    verdict.cells.forEach(({ expected }) => expect(expected.high - expected.low).toBeGreaterThan(3));
  });

  test('two scores lean, but stay wide', () => {
    const verdict = judgeTrial(scored({ 0: [6], 3: [7.5] }));
    expect(verdict.sentence).toContain('far from sure');
    expect(verdict.cells[3]?.expected.mean).toBeGreaterThan(verdict.cells[0]?.expected.mean ?? 10);
    expect(verdict.next).not.toBeNull();
  });

  test('what one person tasted is less sure than what three did', () => {
    const width = (tasters: number): number => {
      const { expected } = judgeTrial(scored({ 0: [5], 3: [8] }, tasters)).cells[3] ?? {
        expected: { low: 0, high: 0 },
      };
      return expected.high - expected.low;
    };
    expect(width(1)).toBeGreaterThan(1.15 * width(3));
    expect(width(3)).toBeGreaterThan(width(12));
  });

  test('many scores on one hill find its top and then ask for no more', () => {
    const normal = seededNormal(2);
    const truth = [5, 5.5, 6.5, 8.6, 5.5, 6];
    const scores = Object.fromEntries(
      truth.map((mean, i) => [i, Array.from({ length: 6 }, () => mean + 0.3 * normal())]),
    );
    const verdict = judgeTrial(scored(scores));
    expect(verdict.cells[3]?.chanceBest).toBeGreaterThan(0.9);
    expect(verdict.sentence).toContain('Roast 4 is likely the best');
    expect(verdict.next).toBeNull();
  });

  test('the next roast is one that could still gain, not the worst one again', () => {
    const verdict = judgeTrial(scored({ 0: [4, 4.2, 4.1], 1: [4.5, 4.4] }));
    expect([2, 3, 4, 5]).toContain(verdict.next?.cell);
    expect(verdict.next?.why).toContain('nobody has tasted it');
  });

  test('the 80 % intervals hold about eight in ten truths', () => {
    const normal = seededNormal(9);
    let [inside, of] = [0, 0];
    for (let lot = 0; lot < 60; lot += 1) {
      const [base, w, l] = [6 + normal(), 0.7 * normal(), 0.7 * normal()];
      const truth = GRID.map((_, i) => base + w * (Math.floor(i / 2) - 1) + l * (2 * (i % 2) - 1));
      const verdict = judgeTrial(
        scored(Object.fromEntries([0, 2, 3, 5].map((i) => [i, [(truth[i] ?? 0) + 0.7 * normal()]]))),
      );
      verdict.cells.forEach(({ expected }, i) => {
        of += 1;
        if ((truth[i] ?? 0) >= expected.low && (truth[i] ?? 0) <= expected.high) inside += 1;
      });
    }
    expect(inside / of).toBeGreaterThan(0.72);
    expect(inside / of).toBeLessThan(0.92);
  });
});
