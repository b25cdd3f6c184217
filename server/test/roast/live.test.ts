import { SimulatedRoastProbe } from '../../src/devices/roast-probe';
import { isRoast, LiveRoasts } from '../../src/roast/live';
import { asProblem, testServer, type TestServer } from '../harness';
import { FALLING, furnishKitchen, liveOf, loadOf, press, startRoast, weighOut } from './kitchen';

const SECOND = 1000;
let now = Date.UTC(2026, 5, 2, 7);
let server: TestServer;
let speed = 1;
beforeAll(async () => {
  server = await testServer(() => now);
});
beforeEach(() => server.reset());
afterAll(() => server.close());

/** A recorder of its own, looked at by hand instead of by a timer. */
function recorder(): { live: LiveRoasts; probe: SimulatedRoastProbe; run: (seconds: number) => Promise<void> } {
  const probe = new SimulatedRoastProbe();
  const live = new LiveRoasts(server.workshop, probe);
  speed = 1;
  server.workshop.follow('roast', { curve: (work) => live.row(work), speed: () => speed });
  const run = async (seconds: number): Promise<void> => {
    for (let s = 0; s < seconds; s += 1) {
      now += SECOND;
      await live.tick();
    }
  };
  return { live, probe, run };
}

const workOf = (id: string) => {
  const work = server.workshop.works.get(id);
  if (!work || !isRoast(work)) throw new Error('it is over');
  return work;
};

describe('a roast that is followed', () => {
  it('reads the probe once a second, keeps it, and ends as a load with its curve', async () => {
    const kitchen = await furnishKitchen(server);
    const { live, run } = recorder();
    const work = await startRoast(server, kitchen, { plan: FALLING, programId: 'p', version: 2, probe: 'simulated' });
    await run(60);
    const curve = await live.curve(workOf(work.id));
    expect(Array.from(curve.seconds)).toEqual(Array.from({ length: 61 }, (_, s) => s));
    expect(curve.beanC[60]).toBeGreaterThan((curve.beanC[0] ?? 0) + 10);
    await press(server, work.id, 'signs', { what: 'vinegar' });
    await press(server, work.id, 'stirs');
    await press(server, work.id, 'settings');
    await run(30);
    await press(server, work.id, 'stop');
    await run(40);
    const code = await weighOut(server, work.id, kitchen.tubId, 4720);
    const load = await loadOf(server, code);
    expect(load).toMatchObject({
      program: 'House, falling, version 2',
      weightLeft: 0.944,
      minutes: 1.5,
      source: 'simulated',
      how: {
        seconds: 90,
        signs: [{ second: 60, what: 'vinegar' }],
        stirs: [60],
        settings: [
          { second: 0, setC: 160, step: 0 },
          { second: 60, setC: 145, step: 1 },
        ],
      },
    });
    // Nothing is read once the load is out.
    expect(load.curveData?.seconds.at(-1)).toBe(90);
    expect(load.coolAt).toBe(load.at + FALLING.coolMin * 60 * SECOND);
    expect(server.workshop.works.size).toBe(0);
  });

  it('an unplugged probe leaves a gap, a stuck one says the same', async () => {
    const kitchen = await furnishKitchen(server);
    const { live, probe, run } = recorder();
    const work = await startRoast(server, kitchen, { plan: FALLING, probe: 'simulated' });
    await run(20);
    probe.mood = { ...probe.mood, unplugged: true };
    await run(30);
    expect(live.isSilent(workOf(work.id))).toBe(true);
    probe.mood = { ...probe.mood, unplugged: false };
    await run(5);
    expect(live.isSilent(workOf(work.id))).toBe(false);
    probe.mood = { ...probe.mood, stuck: true };
    await run(10);
    const { seconds, beanC } = await live.curve(workOf(work.id));
    const steps = Array.from(seconds)
      .slice(1)
      .map((s, i) => s - (seconds[i] ?? 0));
    // What it would have said in the last seconds is asked for when it is back, no further.
    expect(Math.max(...steps)).toBeGreaterThan(25);
    expect(new Set(Array.from(beanC).slice(-9)).size).toBe(1);
  });

  it('goes on after the server was down: what was kept is there, the time between is a gap', async () => {
    const kitchen = await furnishKitchen(server);
    const first = recorder();
    const work = await startRoast(server, kitchen, { plan: FALLING, probe: 'simulated' });
    await first.run(30);
    await first.live.keep();
    await server.workshop.reload();
    now += 60 * SECOND;
    const second = recorder();
    await second.run(3);
    const { seconds } = await second.live.curve(workOf(work.id));
    expect(seconds[30]).toBe(30);
    expect((seconds[31] ?? 0) - 30).toBeGreaterThan(55);
    expect(seconds.at(-1)).toBe(93);
  });

  it('a load that is weighed out while another is written keeps its curve', async () => {
    const kitchen = await furnishKitchen(server);
    const { live, run } = recorder();
    const first = await startRoast(server, kitchen, { plan: FALLING, probe: 'simulated' }, 3000);
    const second = await startRoast(server, kitchen, { plan: FALLING, probe: 'simulated' }, 3000);
    await run(10);
    for (const { id } of [first, second]) await live.take(workOf(id), { second: 10.5, beanC: 40, airC: 140 });
    const keep = server.workshop.keepCurve.bind(server.workshop);
    let go = (): void => undefined;
    const held = new Promise<void>((resolve) => (go = resolve));
    const written: string[] = [];
    server.workshop.keepCurve = async (row) => {
      written.push(row.id);
      if (written.length === 1) await held;
      return keep(row);
    };
    try {
      const keeping = live.keep();
      const code = await weighOut(server, second.id, kitchen.tubId, 2800, 3000);
      go();
      await keeping;
      expect(written).toHaveLength(1);
      expect((await loadOf(server, code)).curveData?.seconds.at(-1)).toBe(10.5);
      await server.workshop.reload();
      expect((await loadOf(server, code)).curveData?.seconds.at(-1)).toBe(10.5);
    } finally {
      server.workshop.keepCurve = keep;
    }
  });

  it('at sixty times the clock a minute is a second, and no reading is left out', async () => {
    const kitchen = await furnishKitchen(server);
    const { live, run } = recorder();
    speed = 60;
    const work = await startRoast(server, kitchen, { plan: FALLING, probe: 'simulated' });
    await run(5);
    const { seconds } = await live.curve(workOf(work.id));
    expect(seconds.at(-1)).toBe(300);
    expect(seconds).toHaveLength(301);
  });

  it('a roaster that sets itself goes on by its minutes and by the beans’ temperature', async () => {
    const kitchen = await furnishKitchen(server, { setBy: 'itself' });
    const { run } = recorder();
    speed = 60;
    const work = await startRoast(server, kitchen, { plan: FALLING, probe: 'simulated' });
    await run(15);
    const { settings } = workOf(work.id).roast;
    expect(settings).toMatchObject([
      { setC: 160, step: 0, second: 0 },
      { setC: 145, step: 1, second: 360 },
      { setC: 130, step: 2, second: 840 },
    ]);
    speed = 1;
  });

  it('without a probe: times, settings, signs, readings by hand and weights', async () => {
    const kitchen = await furnishKitchen(server);
    const work = await startRoast(server, kitchen, { probe: 'hand' });
    expect((await press(server, work.id, 'settings')).status).toBe(422);
    now += 120 * SECOND;
    await press(server, work.id, 'settings', { setC: 150 });
    expect((await press(server, work.id, 'readings', { beanC: 88 })).status).toBe(201);
    expect((await press(server, work.id, 'readings', {})).status).toBe(422);
    await press(server, work.id, 'signs', { what: 'like warm hay' });
    now += 600 * SECOND;
    await press(server, work.id, 'stop');
    expect((await liveOf(server, work.id)).roast).toMatchObject({
      seconds: 720,
      settings: [{ second: 120, setC: 150, step: -1 }],
      signs: [{ second: 120, what: 'like warm hay' }],
    });
    const code = await weighOut(server, work.id, kitchen.tubId, 4700);
    expect(await loadOf(server, code)).toMatchObject({ minutes: 12, program: null, coolAt: null });
    // The next load offers the maker's own words.
    const next = await startRoast(server, kitchen, { probe: 'hand' });
    expect((await liveOf(server, next.id)).ownSigns).toEqual(['like warm hay']);
  });

  it('presses can be taken back, and a second screen sees the same', async () => {
    const kitchen = await furnishKitchen(server);
    const work = await startRoast(server, kitchen, { plan: FALLING, probe: 'hand' });
    now += 400 * SECOND;
    await press(server, work.id, 'signs', { what: 'bread' });
    await press(server, work.id, 'settings', { onTime: true });
    expect((await liveOf(server, work.id)).roast.settings.at(-1)).toMatchObject({ second: 360, step: 1 });
    await press(server, work.id, 'undo', { what: 'sign' });
    await press(server, work.id, 'undo', { what: 'setting' });
    await press(server, work.id, 'stop');
    await press(server, work.id, 'undo', { what: 'stop' });
    expect((await liveOf(server, work.id)).roast).toMatchObject({ seconds: null, signs: [], settings: [{ step: 0 }] });
  });

  it('put back, its curve is gone and the beans are free again', async () => {
    const kitchen = await furnishKitchen(server);
    const { live, run } = recorder();
    const work = await startRoast(server, kitchen, { plan: FALLING, probe: 'simulated' });
    await run(20);
    await live.keep();
    const { curveId } = workOf(work.id).roast;
    expect(await server.workshop.readCurve(curveId)).not.toBeNull();
    expect((await server.call('DELETE', `/api/ledger/works/${work.id}`)).status).toBe(200);
    expect(await server.workshop.readCurve(curveId)).toBeNull();
    expect(server.workshop.roasts.curves.size).toBe(0);
    expect(server.workshop.reserved().size).toBe(0);
    expect(asProblem(await press(server, work.id, 'stop')).code).toBe('work/closed');
  });

  it('a real probe posts its readings to the roasts that listen', async () => {
    const kitchen = await furnishKitchen(server);
    const work = await startRoast(server, kitchen, { plan: FALLING, probe: 'sent' });
    now += 5 * SECOND;
    const sent = await server.call('POST', '/api/devices/roast/readings', { beanC: 24.5, airC: 140 });
    expect(sent.body).toEqual({ listening: 1, kept: 1 });
    const elsewhere = await server.call('POST', '/api/devices/roast/readings', { beanC: 30, machineId: 'another' });
    expect(elsewhere.body).toEqual({ listening: 0, kept: 0 });
    expect((await liveOf(server, work.id)).curve).toEqual({ seconds: [5], beanC: [24.5], airC: [140] });
  });

  it('a reading that is acknowledged is kept: several in one moment are; after the clock went back the answer says no', async () => {
    const kitchen = await furnishKitchen(server);
    const work = await startRoast(server, kitchen, { plan: FALLING, probe: 'sent' });
    now += 5 * SECOND;
    const post = async (beanC: number) =>
      (await server.call('POST', '/api/devices/roast/readings', { beanC })).body as { kept: number };
    for (const beanC of [24, 25, 26]) expect((await post(beanC)).kept).toBe(1);
    expect((await liveOf(server, work.id)).curve.beanC).toEqual([24, 25, 26]);
    now -= 3 * SECOND;
    expect((await post(27)).kept).toBe(0);
    const byHand = await press(server, work.id, 'readings', { beanC: 28 });
    expect(asProblem(byHand).code).toBe('roast/clock-back');
    now += 4 * SECOND;
    expect((await post(29)).kept).toBe(1);
    expect((await liveOf(server, work.id)).curve.beanC).toEqual([24, 25, 26, 29]);
  });

  it('the foot of the page says what is next, and when by the roast’s own clock', async () => {
    const kitchen = await furnishKitchen(server);
    const work = await startRoast(server, kitchen, { plan: { ...FALLING, stirEveryMin: null }, probe: 'hand' });
    const due = async () =>
      ((await server.call('GET', '/api/ledger/due')).body as { id: string; text: string; at: number }[]).find(
        ({ id }) => id === work.id,
      );
    expect(await due()).toMatchObject({
      text: `Set the roaster to 145\u00a0°C, ${kitchen.tub}`,
      at: now + 360 * SECOND,
    });
    now += 1000 * SECOND;
    await press(server, work.id, 'settings');
    await press(server, work.id, 'settings');
    expect((await due())?.text).toContain('Take the roast out');
    await press(server, work.id, 'stop');
    expect((await due())?.text).toContain('Weigh the roast out');
  });
});
