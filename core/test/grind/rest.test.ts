import { judgeRest, type RestedScore } from '../../src/rest/benefit';
import { normals, seeded } from '../../src/stats/chance';
import { studentQuantile } from '../../src/stats/distributions';

/** Batches that differ, blocks tasted on the way, bars at the end on another footing; a gain that levels off. */
function workshop(seed: number, gain: number, tau: number, batches = 14): RestedScore[] {
  const chance = seeded(seed);
  const normal = normals(chance);
  const half = (value: number): number => Math.round(2 * value) / 2;
  return Array.from({ length: batches }, (_, batch) => {
    const level = 6 + 0.6 * normal();
    const at = (restedDays: number, of: 'bar' | 'shelf'): RestedScore => ({
      restedDays,
      score: half(level + gain * (1 - Math.exp(-restedDays / tau)) - (of === 'bar' ? 0.8 : 0) + 0.35 * normal()),
      batch: String(batch),
      of,
    });
    return [
      at(2, 'shelf'),
      at(6 + 2 * chance(), 'shelf'),
      at(12 + 3 * chance(), 'shelf'),
      at(25 + 8 * chance(), 'shelf'),
      at(14 + 16 * chance(), 'bar'),
    ];
  }).flat();
}

test('batches that differ more than rest does are no reason to doubt what each of them shows', () => {
  const rows = workshop(3, 1.6, 6);
  const found = judgeRest(rows, studentQuantile);
  expect(found.tone).toBe('good');
  // Ninety parts in a hundred of a constant of six days: about fourteen.
  expect(found.enoughDays?.about).toBeGreaterThan(6);
  expect(found.enoughDays?.about).toBeLessThan(30);
  expect(found.sentence).toMatch(/Most of it is there after about \d+ days/u);
});

test('where rest does nothing it says so eight times in ten, and never that it is enough by mistake more often', () => {
  let [said, enough, held] = [0, 0, 0];
  const RUNS = 120;
  for (let seed = 0; seed < RUNS; seed += 1) {
    const none = judgeRest(workshop(100 + seed, 0, 6), studentQuantile);
    if (none.tone !== 'quiet') said += 1;
    const some = judgeRest(workshop(500 + seed, 1.6, 6), studentQuantile);
    if (some.enoughDays !== null) {
      enough += 1;
      if (some.enoughDays.from <= 6 * Math.log(10) && 6 * Math.log(10) <= some.enoughDays.to) held += 1;
    }
  }
  // Twenty in a hundred by its own promise, twice that at the most with the search for a levelling off.
  expect(said / RUNS).toBeLessThan(0.3);
  expect(enough / RUNS).toBeGreaterThan(0.7);
  expect(held / enough).toBeGreaterThan(0.7);
});

test('a gain that goes on is not called enough', () => {
  const rows = Array.from({ length: 24 }, (_, i): RestedScore => ({
    restedDays: 2 + i,
    score: 5 + 0.1 * i + (i % 3) * 0.1,
  }));
  const found = judgeRest(rows, studentQuantile);
  expect(found).toMatchObject({ tone: 'good', enoughDays: null });
  expect(found.perWeek?.mean).toBeCloseTo(0.7, 1);
});
