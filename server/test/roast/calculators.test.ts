import { asProblem, testServer, type TestServer } from '../harness';

let server: TestServer;
beforeAll(async () => {
  server = await testServer();
});
afterAll(() => server.close());

const calc = (name: string, body: object) => server.call('POST', `/api/calc/roast/${name}`, body);
const steps = [{ setC: 150, minutes: 20 }];
/** A straight rise from 20 to 140 °C in twenty minutes, a reading every five seconds. */
const seconds = Array.from({ length: 241 }, (_, i) => 5 * i);
const beanC = seconds.map((second) => 20 + second / 10);

describe('the sums of roasting, over HTTP', () => {
  it('runs a program, and more beans come out cooler', async () => {
    const run = async (loadG: number): Promise<{ endC: { mid: number; low: number; high: number }; fit: string }> => {
      const loads = [2000, 6000].map((massG) => ({
        loadG: massG,
        preheatC: 150,
        settings: [{ second: 0, setC: 150, step: 0 }],
        seconds,
        beanC: seconds.map((second) => 145 - 125 * Math.exp((-second / 60) * 0.17 * (4000 / massG) ** 0.5)),
        airC: seconds.map(() => 150),
      }));
      return (await calc('simulate', { loadG, loads, preheatC: 150, steps, above: [100] })).body as never;
    };
    const [light, heavy] = [await run(2500), await run(6000)];
    expect(light.endC.mid).toBeGreaterThan(heavy.endC.mid + 3);
    expect(light.endC.low).toBeLessThan(light.endC.high);
    expect(light.fit).toContain('From 2 logged loads');
  });

  it('finds the setting that its own run confirms', async () => {
    const { setC } = (await calc('steady', { loadG: 4000, peakC: 120, minutes: 25 })).body as { setC: number };
    const { endC } = (await calc('simulate', { loadG: 4000, preheatC: setC + 10, steps: [{ setC, minutes: 25 }] }))
      .body as { endC: { mid: number } };
    expect(endC.mid).toBeCloseTo(120, -0.5);
  });

  it('figures and kill of a straight rise, by hand', async () => {
    const figures = (await calc('figures', { seconds, beanC })).body as { areaAboveBase: number; gaps: unknown[] };
    // Above 100 °C for 40/6 minutes, a triangle 40 °C high.
    expect(figures).toMatchObject({ minutesAboveBase: expect.closeTo(40 / 6, 1), gaps: [] });
    expect(figures.areaAboveBase).toBeCloseTo((40 / 6) * 20, 0);
    const { reductions } = (await calc('heat-kill', { seconds, beanC, dMin: 2, zC: 10, refC: 130 })).body as {
      reductions: number;
    };
    // ∫ 10^((T − 130)/10) dt with 6 °C a minute: (10 − 10^−11)·10/(6·ln 10) minutes, over D.
    expect(reductions).toBeCloseTo((10 * 10) / (6 * Math.LN10) / 2, 3);
  });

  it('a fill and a trial', async () => {
    const loads = ['A', 'B', 'C', 'D'].map((code, i) => ({
      code,
      endC: [120, 120.5, 119.8, 131][i],
      weightLeft: 0.94,
    }));
    expect((await calc('fill', { loads })).body).toMatchObject({ odd: [{ code: 'D' }] });
    const roasts = [114, 122].map((peakC) => ({ peakC, minutes: 20, loads: peakC === 122 ? [{ score: 8 }] : [] }));
    expect((await calc('trial', { roasts })).body).toMatchObject({ scored: 1 });
  });

  it.each([
    ['figures', { seconds, beanC: [1, 2] }, 'beanC'],
    ['figures', { seconds: [0, 10, 5], beanC: [20, 30, 40] }, 'seconds'],
    ['simulate', { loadG: 4000, preheatC: 150, steps: [] }, 'steps'],
    ['heat-kill', { seconds, beanC, dMin: 0, zC: 10, refC: 120 }, 'dMin'],
    ['fit', { loadG: 4000, loads: [] }, 'loads'],
  ])('%s refuses what it cannot use', async (name, body, path) => {
    const answer = await calc(name, body);
    expect(answer.status).toBe(422);
    expect(asProblem(answer).errors.map((row) => row.path)).toContain(path);
  });
});
