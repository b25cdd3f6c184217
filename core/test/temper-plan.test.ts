import fc from 'fast-check';
import { actNow, planPour, walkActs, type PourBowl } from '../src/temper/plan';
import { SCHOOLS, type PourAct } from '../src/work/tempering';
import { USUAL_WINDOWS } from '../src/temper/windows';

const { dark } = USUAL_WINDOWS;
const bowl: PourBowl = { massG: 3000, windows: dark, fatShare: 0.36, softShare: 0, roomC: 20 };
const grams = (acts: readonly PourAct[]): number[] => acts.flatMap((act) => (act.grams === null ? [] : [act.grams]));
const minutes = (...temps: number[]) => temps.map((tempC, i) => ({ second: 60 * i, tempC }));

describe('the acts of a school', () => {
  test('slab: what stays and what is spread make the bowl; the share is the heat balance', () => {
    // Kept at 40 °C it is 20 + 20 · e^(−8/45) = 36.743 °C after the slab; 27 °C back, 31.5 °C together: 4.5 of 9.743.
    expect(grams(planPour('slab', bowl))).toEqual([1385.7, 1614.3]);
    // A steel bowl of a kilogram brings its own heat: less stays.
    const [warm = 0] = grams(planPour('slab', { ...bowl, bowlJperK: 500 }));
    // (5,600 · 31.5 − 5,100 · 27 − 500 · 36.743) / (5,100 · 9.743) of 3,000 g.
    expect(warm).toBeCloseTo(1227.4, 0);
    // In a room as warm as the bowl nothing is lost: 4.5 of 13 degrees.
    expect(grams(planPour('slab', { ...bowl, roomC: 40 }))).toEqual([1038.5, 1961.5]);
  });

  test('seed in thirds, silk by the fat of the bowl', () => {
    // 3,000 g · 1.7 · 2.5 K over 1.5 · 11.5 + 0.7 · 0.36 · 150 J a gram: 231.5 g.
    const thirds = grams(planPour('seed', bowl));
    expect(thirds).toHaveLength(3);
    expect(thirds.reduce((a, b) => a + b, 0)).toBeCloseTo(231.6, 0);
    expect(grams(planPour('silk', bowl))).toEqual([30]);
    expect(grams(planPour('silk', { ...bowl, softShare: 0.3 }))).toEqual([60]);
  });

  test('every school can be planned for every usual bowl, and says where it is melted out', () => {
    for (const school of SCHOOLS)
      for (const windows of Object.values(USUAL_WINDOWS)) {
        const acts = planPour(school, { ...bowl, windows });
        expect(acts[0]).toMatchObject({ way: 'up', tempC: windows.melt.from });
        expect(new Set(acts.map(({ id }) => id)).size).toBe(acts.length);
      }
  });

  test('what no share can do is refused', () => {
    expect(() => planPour('slab', { ...bowl, massG: 0 })).toThrow('There is nothing to spread.');
  });
});

describe('how far a pour has come in its plan', () => {
  const acts = planPour('bath', bowl);
  const states = (readings: ReturnType<typeof minutes>, nowS = readings.at(-1)?.second ?? 0) =>
    walkActs(acts, readings, nowS).map(({ state }) => state);

  test('one act after the other, by temperature and by minutes there', () => {
    expect(states([])[0]).toBe('now');
    const melting = minutes(30, 38, 44.9, 45.2);
    expect(actNow(acts, walkActs(acts, melting, 180), 'C')?.missing).toBe('9 min to go there, keep it moving.');
    const out = [
      ...melting,
      ...minutes(...Array<number>(12).fill(46)).map((row) => ({ ...row, second: row.second + 240 })),
    ];
    expect(states(out).slice(0, 2)).toEqual(['done', 'now']);
    const cooling = [...out, { second: 1000, tempC: 30.1 }];
    expect(actNow(acts, walkActs(acts, cooling, 1000), 'C')).toMatchObject({
      missing: '2.1 °C to go, keep it moving.',
    });
    expect(actNow(acts, walkActs(acts, cooling, 1000), 'F')?.missing).toBe('3.8 °F to go, keep it moving.');
  });

  test('an act without a temperature waits for a press; what was pressed counts at its time', () => {
    const silk = planPour('silk', bowl).map((act, i) => (i === 0 ? { ...act, doneS: 300 } : act));
    const readings = [...minutes(30, 40, 46, 46, 46, 46), { second: 900, tempC: 33.4 }];
    const [melt, fall, put] = walkActs(silk, readings, 900);
    expect([melt?.state, fall?.state, put?.state]).toEqual(['done', 'done', 'now']);
    expect(actNow(silk, walkActs(silk, readings, 900), 'C')).toMatchObject({ act: { grams: 30 }, missing: null });
    const pressed = silk.map((act, i) => (i === 2 ? { ...act, doneS: 905 } : act));
    expect(walkActs(pressed, readings, 910)[3]?.state).toBe('now');
  });

  test('never two acts at once, and none after one that is open', () => {
    const temps = fc.array(fc.double({ min: 20, max: 55, noNaN: true }), { minLength: 1, maxLength: 60 });
    fc.assert(
      fc.property(fc.constantFrom(...SCHOOLS), temps, (school, row) => {
        const plan = planPour(school, bowl);
        const found = walkActs(plan, minutes(...row), 60 * row.length).map(({ state }) => state);
        const open = found.indexOf('now');
        expect(found.filter((state) => state === 'now').length).toBeLessThanOrEqual(1);
        if (open >= 0) expect(found.slice(open + 1)).toEqual(found.slice(open + 1).map(() => 'to come'));
      }),
    );
  });
});
