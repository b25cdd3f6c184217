import { realFill, type FillFact } from '../../src/grind/fill';
import { judgeHoldUp } from '../../src/grind/hold-up';
import { grinding, lifeOf, moving, runningIn } from '../../src/grind/running';
import { momentReached, runningHours } from '../../src/run/stretches';
import { simulatedBowlC } from '../../src/grind/simulated-bowl';
import { upkeepDue } from '../../src/grind/upkeep';
import { hottestFor } from '../../src/grind/warming';
import { normals, seeded } from '../../src/stats/chance';

const HOUR = 3_600_000;
const kg = (mg: number): string => `${(mg / 1e6).toFixed(1)} kg`;

describe('what a machine really takes', () => {
  test('without trouble the plate stands; two stalls over eleven kilos bring it down', () => {
    const plate = { minG: 4000, maxG: 15_000 };
    const fine = [9000, 10_000, 9500].map((massG): FillFact => ({ massG, trouble: null }));
    expect(realFill(fine, plate, kg).sentence).toBeNull();
    const some: FillFact[] = [
      ...fine,
      { massG: 12_500, trouble: 'stalled' },
      { massG: 12_000, trouble: 'spilled' },
      { massG: 10_800, trouble: null },
    ];
    const found = realFill(some, plate, kg);
    expect(found.most?.p50).toBeGreaterThan(10_600);
    expect(found.most?.p50).toBeLessThan(12_200);
    expect(found.sentence).toMatch(
      /^By its own bowls it takes about 1[01]\.\d kg \(.*\), not the 15\.0 kg of its plate: 2 of 6/u,
    );
    const low = realFill([...fine, { massG: 5000, trouble: 'starved' }], plate, kg);
    expect(low.least?.p50).toBeGreaterThan(4600);
    expect(low.sentence).toContain('stones run on each other');
    // No plate and no trouble: nothing is known.
    expect(realFill([], { minG: null, maxG: null })).toMatchObject({ most: null, least: null, sentence: null });
  });

  test('its interval holds the limit about as often as it says, on machines whose plates lie', () => {
    const chance = seeded(4);
    const normal = normals(chance);
    let [held, all] = [0, 0];
    for (let machine = 0; machine < 300; machine += 1) {
      const plateG = 5000 + 25_000 * chance();
      const real = plateG * 0.93 * Math.exp(0.18 * normal());
      const facts = Array.from({ length: 20 }, (): FillFact => {
        const massG = plateG * (0.7 + 0.4 * chance());
        // Another law of failing than the one that is fitted: a straight slope over ten parts in a hundred.
        const share = Math.max(0, Math.min(1, 0.5 + (massG / real - 1) / 0.16));
        return { massG, trouble: chance() < share ? 'stalled' : null };
      });
      const { most } = realFill(facts, { minG: null, maxG: plateG });
      if (!most) continue;
      all += 1;
      if (most.p10 <= real && real <= most.p90) held += 1;
    }
    expect(held / all).toBeGreaterThan(0.7);
    expect(held / all).toBeLessThan(0.92);
  });

  test('what stays in it is held against what usually does', () => {
    expect(judgeHoldUp(120, [100, 110], 'The stone', kg).tone).toBe('quiet');
    const past = [100, 110, 120, 105];
    expect(judgeHoldUp(115, past, 'The stone', kg).tone).toBe('good');
    expect(judgeHoldUp(300, past, 'The stone', kg)).toMatchObject({ tone: 'watch' });
    expect(judgeHoldUp(300, past, 'The stone', kg).sentence).toMatch(/^More than usual stays in The stone/u);
    expect(judgeHoldUp(20, past, 'The stone', kg).sentence).toMatch(/^Less than usual/u);
  });

  test('upkeep is said from nine tenths of its interval on', () => {
    const machine = { name: 'The stone', dressEveryH: 1000, serviceEveryH: null };
    expect(upkeepDue(machine, { sinceDressed: 800, sinceServiced: 9999 })).toEqual([]);
    expect(upkeepDue(machine, { sinceDressed: 950, sinceServiced: 0 })[0]?.sentence).toContain('soon, 950 of 1000');
    expect(upkeepDue(machine, { sinceDressed: 1200, sinceServiced: 0 })[0]).toMatchObject({
      now: true,
      sentence: 'Dressing the stones of The stone: due, 1200 of 1000 running hours.',
    });
  });
});

describe('how a bowl stands', () => {
  const life = lifeOf(
    0,
    [
      { at: 4 * HOUR, what: 'stop' },
      { at: 6 * HOUR, what: 'run' },
      { at: 10 * HOUR, what: 'up' },
      { at: 14 * HOUR, what: 'into', machineId: 'conche', conches: true },
      { at: 20 * HOUR, what: 'into', machineId: 'second', conches: false },
    ],
    24 * HOUR,
    { machineId: 'first', conches: false },
  );

  test('lifted or in a conche it is moved and not ground; each machine ran its own hours', () => {
    expect(runningHours(grinding(life), 30 * HOUR)).toBe(4 + 4 + 4);
    expect(runningHours(moving(life), 30 * HOUR)).toBe(22);
    expect(runningHours(runningIn(life, 'first'), 30 * HOUR)).toBe(12);
    expect(runningHours(runningIn(life, 'conche'), 30 * HOUR)).toBe(6);
    expect(momentReached(grinding(life), 5, 30 * HOUR)).toBe(7 * HOUR);
    expect(momentReached(grinding(life), 9, 30 * HOUR)).toBe(21 * HOUR);
    expect(momentReached(grinding(life), 13, 30 * HOUR)).toBeNull();
  });

  test('a made-up bowl warms while it runs and cools while it stands', () => {
    const running = lifeOf(0, [], null);
    const at = (hours: number, of = running): number => simulatedBowlC(of, 50, hours * HOUR, 3);
    expect(at(1)).toBeLessThan(at(8));
    expect(Math.abs(at(15) - 50)).toBeLessThan(2.5);
    const stopped = lifeOf(0, [{ at: 10 * HOUR, what: 'stop' }], null);
    expect(at(20, stopped)).toBeLessThan(30);
    expect(at(3)).toBe(at(3));
  });

  test('milk keeps a mass cooler than its route alone would', () => {
    expect(hottestFor(null, 0)).toBeNull();
    expect(hottestFor(42, 0)?.tempC).toBe(42);
    expect(hottestFor(null, 20)?.tempC).toBe(60);
    expect(hottestFor(47, 20)?.tempC).toBe(47);
    expect(hottestFor(80, 20)?.tempC).toBe(60);
  });
});
