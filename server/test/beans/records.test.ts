import type { BeanLotView, BeanStoreView, SampleView } from '@wunsch/core/api/beans';
import { NO_BEANS } from '@wunsch/core/beans/cut-test';
import { USUAL_HOLD } from '@wunsch/core/beans/hold';
import { CoreProbe, logProbes } from '../../src/devices/core-probe';
import { asProblem, lotCommand, madeBy, sortCommand, testServer, type Answer, type TestServer } from '../harness';

const HOUR = 3_600_000;
let now = Date.UTC(2026, 2, 2, 8);
let server: TestServer;
beforeAll(async () => {
  server = await testServer(() => now);
});
beforeEach(async () => {
  await server.reset();
});
afterAll(() => server.close());

const put = (record: object, code = 'L001', at?: number): Promise<Answer> =>
  server.call('POST', `/api/beans/lots/${code}/records`, {
    personId: 'ann',
    record,
    ...(at === undefined ? {} : { at: new Date(at).toISOString() }),
  });
const lotView = async (code = 'L001'): Promise<BeanLotView> =>
  (await server.call('GET', `/api/beans/lots/${code}`)).body as BeanLotView;
const store = async (): Promise<BeanStoreView> => (await server.call('GET', '/api/beans/store')).body as BeanStoreView;
const receive = async (rest: object = {}) => server.step({ ...lotCommand(60_000), ...rest });
const clean = { ...NO_BEANS, brown: 299, slaty: 1 };

describe('what is written down about a lot', () => {
  it('comes back with its verdict, its sacks and who wrote it', async () => {
    await receive({ invoiceNetG: 60_500, invoiceSacks: 1 });
    expect((await put({ kind: 'sacks', sacks: [{ no: 1, grossG: 60_600, tareG: 600, place: 'A' }] })).status).toBe(201);
    await put({
      kind: 'inspection',
      smells: ['clean cocoa'],
      moisturePct: [7, 7.2],
      signs: {},
      cut: { planned: 300, tally: clean },
    });
    const lot = await lotView();
    expect(lot.inspections[0]).toMatchObject({ person: 'Ann', cut: { grade: 'I', sure: true } });
    expect(lot.sacks).toMatchObject([{ no: 1, netG: 60_000, leftG: 60_000, state: 'whole' }]);
    expect(lot.count?.differenceG).toBe(-500);
    // Short by 0.83 %, the contract lets half a percent pass: all of it is claimed.
    expect(lot.claim).toMatchObject({ totalG: 500, total: '€2.50' });
    expect(lot.standing).toBe('not looked at');
    await put({ kind: 'decision', action: 'allowance', proposed: 'allowance' });
    expect((await lotView()).standing).toBe('taken in');
  });

  it.each([
    ['a moisture of 70', { kind: 'inspection', signs: {}, moisturePct: [70] }, 'record.moisturePct.0'],
    [
      '400 beans in 300',
      { kind: 'inspection', signs: {}, cut: { planned: 300, tally: { ...NO_BEANS, brown: 400 } } },
      'record.cut.tally',
    ],
    [
      'an empty sack heavier than the full one',
      { kind: 'sacks', sacks: [{ no: 1, grossG: 500, tareG: 900 }] },
      'record.sacks.0.tareG',
    ],
    ['a word it does not know', { kind: 'inspection', signs: {}, smells: ['wet dog'] }, 'record.smells.0'],
    ['no such kind', { kind: 'gossip' }, 'record.kind'],
  ])('is refused: %s', async (_, record, path) => {
    await receive();
    const answer = await put(record);
    expect(answer.status).toBe(422);
    expect(asProblem(answer).errors.map((row) => row.path)).toContain(path);
    expect((await lotView()).records).toEqual([]);
  });

  it('says how many beans were too many', async () => {
    await receive();
    const answer = await put({
      kind: 'inspection',
      signs: {},
      cut: { planned: 300, tally: { ...NO_BEANS, brown: 400 } },
    });
    expect(asProblem(answer).detail).toContain('400 beans in a test of 300');
    expect(
      (
        await put({
          kind: 'inspection',
          signs: {},
          cut: { planned: 300, beyond: true, tally: { ...NO_BEANS, brown: 400 } },
        })
      ).status,
    ).toBe(201);
  });

  it('can be taken back, and stays readable', async () => {
    await receive();
    const { body } = await put({ kind: 'decision', action: 'refuse' });
    expect((await lotView()).standing).toBe('refused');
    const id = (body as { id: string }).id;
    expect(
      (await server.call('POST', `/api/beans/records/${id}/take-back`, { personId: 'bo', word: 'wrong lot' })).status,
    ).toBe(201);
    const lot = await lotView();
    expect(lot.standing).toBe('not looked at');
    expect(lot.records.find((row) => row.id === id)?.takenBack).toBe(true);
    expect((await server.call('POST', `/api/beans/records/${id}/take-back`, { personId: 'bo' })).status).toBe(404);
  });

  it('repeated with the same key is written once', async () => {
    await receive();
    const body = { personId: 'ann', record: { kind: 'look' } };
    const headers = { 'idempotency-key': 'look-1' };
    await server.call('POST', '/api/beans/lots/L001/records', body, headers);
    expect(
      (await server.call('POST', '/api/beans/lots/L001/records', body, headers)).headers['idempotent-replay'],
    ).toBe('true');
    expect((await lotView()).records).toHaveLength(1);
  });
});

describe('pest hold', () => {
  const hold = { kind: 'hold', ...USUAL_HOLD.freeze, hours: 10, why: 'webbing' };

  it('keeps a lot from being sorted until its hours are kept and somebody releases it', async () => {
    const lotId = madeBy(await receive());
    await put(hold);
    const refused = await server.call('POST', '/api/ledger/steps', {
      command: sortCommand(lotId, 1000, 990),
      personId: 'ann',
    });
    expect(asProblem(refused)).toMatchObject({
      code: 'beans/on-hold',
      detail: expect.stringContaining('0 of 10 h') as string,
    });
    const start = { station: 'sort', sources: [{ holdingId: lotId, massG: 1000 }], personId: 'ann', note: '' };
    expect(asProblem(await server.call('POST', '/api/ledger/works', start)).code).toBe('beans/on-hold');
    expect((await server.call('GET', '/api/sort/bench')).body).toMatchObject({ waiting: [] });

    for (let hour = 0; hour <= 4; hour += 1) {
      now += HOUR;
      await put({ kind: 'core', tempC: -20 });
    }
    const early = await put({ kind: 'release' });
    expect(asProblem(early)).toMatchObject({
      code: 'beans/hold-not-done',
      detail: expect.stringContaining('4.0 of 10 h') as string,
    });
    now += HOUR;
    await put({ kind: 'core', tempC: -10 });
    expect((await lotView()).hold?.clock).toMatchObject({ hours: 0, done: false });
    for (let hour = 0; hour <= 11; hour += 1) {
      now += HOUR;
      await put({ kind: 'core', tempC: -20 });
    }
    expect((await lotView()).hold?.clock?.done).toBe(true);
    expect((await put({ kind: 'release' })).status).toBe(201);
    expect(
      (await server.call('POST', '/api/ledger/steps', { command: sortCommand(lotId, 1000, 990), personId: 'ann' }))
        .status,
    ).toBe(201);
  });

  it('with the roast as kill step asks for the roast room to be told', async () => {
    const lotId = madeBy(await receive());
    await put({ kind: 'hold', ...USUAL_HOLD.roast });
    const sort = { command: sortCommand(lotId, 1000, 990), personId: 'ann' };
    expect(asProblem(await server.call('POST', '/api/ledger/steps', sort)).detail).toContain('roast room');
    now += 1000;
    await put({ kind: 'hold', ...USUAL_HOLD.roast, toldBy: 'bo' });
    expect((await server.call('POST', '/api/ledger/steps', sort)).status).toBe(201);
  });

  it('is read by a probe every half hour, and not by one that is unplugged', async () => {
    await receive();
    await put({ ...hold, probe: true });
    const probe = new CoreProbe();
    expect(logProbes(server.workshop, probe)).toBe(1);
    expect(logProbes(server.workshop, probe)).toBe(0);
    for (let step = 0; step < 100; step += 1) {
      now += HOUR / 2;
      logProbes(server.workshop, probe);
    }
    await server.workshop.commit();
    const readings = (await lotView()).hold?.readings ?? [];
    expect(readings).toHaveLength(101);
    expect(readings.at(-1)?.tempC).toBeLessThan(-20);
    expect((await lotView()).hold?.clock?.done).toBe(true);
    probe.mood.unplugged = true;
    now += HOUR;
    expect(logProbes(server.workshop, probe)).toBe(0);
  });

  it('needs a hold to log a core or to release', async () => {
    await receive();
    expect(asProblem(await put({ kind: 'core', tempC: -20 })).code).toBe('beans/no-hold');
    expect(asProblem(await put({ kind: 'release' })).code).toBe('beans/no-hold');
  });
});

describe('own harvest', () => {
  it('goes from wet to dry in the same lot, and only then to the sorting table', async () => {
    const lotId = madeBy(await receive({ form: 'wet', netG: 40_000, pricePerKg: 0, moisturePct: null }));
    await put({ kind: 'harvest', openedAt: new Date(now).toISOString(), pods: 420, ambientC: 18 });
    await put({ kind: 'ferment', coreC: 24, smell: 'yeast' }, 'L001');
    const sort = { command: sortCommand(lotId, 1000, 990), personId: 'ann' };
    expect(asProblem(await server.call('POST', '/api/ledger/steps', sort)).code).toBe('beans/wet');
    expect((await lotView()).harvest?.advice.tone).toBe('good');
    await server.step({ kind: 'dry', lotId, outG: 15_200, note: '' });
    const lot = await lotView();
    expect(lot).toMatchObject({
      standing: 'not looked at',
      receivedG: 15_200,
      leftG: 15_200,
      harvest: { wetG: 40_000, dryG: 15_200 },
    });
    expect((await server.call('POST', '/api/ledger/steps', sort)).status).toBe(201);
  });
});

describe('samples', () => {
  it('stand side by side, and one becomes a lot with its history', async () => {
    const sampleId = madeBy(await receive({ sample: true, netG: 2000, name: 'Trial' }));
    await put({ kind: 'inspection', signs: {}, cut: { planned: 300, tally: clean } });
    await receive({ sampleId, name: 'Bought' });
    const { samples } = (await server.call('GET', '/api/beans/samples')).body as { samples: SampleView[] };
    expect(samples).toMatchObject([
      { code: 'L001', boughtAs: [{ code: 'L002' }], inspection: { cut: { grade: 'I' } } },
    ]);
    expect((await lotView('L002')).sampleOf).toEqual({ code: 'L001', name: 'Trial' });
  });
});

describe('bean store', () => {
  it('names the oldest lot that may be opened, and its sack', async () => {
    await receive();
    now += HOUR;
    await receive();
    await put({
      kind: 'sacks',
      sacks: [
        { no: 1, grossG: 30_500, tareG: 500, place: 'A' },
        { no: 2, grossG: 30_500, tareG: 500, place: 'B' },
      ],
    });
    expect((await store()).rows.map(({ code, next }) => [code, next])).toEqual([
      ['L001', 'sack 1, A'],
      ['L002', null],
    ]);
    await put({ kind: 'hold', ...USUAL_HOLD.freeze });
    const held = await store();
    expect(held.rows[0]).toMatchObject({ code: 'L001', standing: 'on hold', next: null });
    expect(held.rows[1]?.next).toBe('open it next');
  });

  it('draws a named sack down', async () => {
    const lotId = madeBy(await receive());
    await put({ kind: 'sacks', sacks: [1, 2].map((no) => ({ no, grossG: 30_500, tareG: 500, place: '' })) });
    await server.step({ ...sortCommand(lotId, 10_000, 9_800), sacks: [2] } as never);
    expect((await lotView()).sacks.map(({ no, leftG }) => [no, leftG])).toEqual([
      [1, 30_000],
      [2, 20_000],
    ]);
  });

  it('counts traps and sounds the alarm', async () => {
    const weeks = [1, 0, 1, 2, 1, 14];
    for (const moths of weeks) {
      now += 7 * 24 * HOUR;
      expect(
        (
          await server.call('POST', '/api/beans/records', {
            personId: 'ann',
            record: { kind: 'trap', trap: 'door', moths },
          })
        ).status,
      ).toBe(201);
    }
    expect((await store()).traps.alarm).toMatchObject({ tone: 'watch', basis: 'last weeks' });
    const wrong = await server.call('POST', '/api/beans/records', { personId: 'ann', record: { kind: 'look' } });
    expect(asProblem(wrong).code).toBe('beans/wrong-place');
  });

  it('asks for looks and holds on the due line', async () => {
    await receive();
    await put({ kind: 'look' });
    await put({ kind: 'hold', ...USUAL_HOLD.freeze, hours: 1 });
    await put({ kind: 'core', tempC: -20 });
    now += 2 * HOUR;
    await put({ kind: 'core', tempC: -20 });
    const due = (await server.call('GET', '/api/ledger/due')).body as { text: string }[];
    expect(due.map(({ text }) => text)).toEqual(['Hold reached, release L001', 'Look at the sacks, L001']);
  });
});

describe('room sensor', () => {
  it('is simulated until a real one speaks, and judged either way', async () => {
    expect((await server.call('GET', '/api/devices/room')).body).toMatchObject({
      simulated: true,
      verdict: { tone: 'good' },
    });
    const damp = await server.call('POST', '/api/devices/room/readings', { tempC: 20, humidityPct: 78 });
    expect(damp.body).toMatchObject({ simulated: false, verdict: { tone: 'watch' } });
    expect((await server.call('POST', '/api/devices/room/readings', { tempC: 20, humidityPct: 130 })).status).toBe(422);
  });
});

describe('sorting clock', () => {
  it('stands while paused, and survives both', async () => {
    const lotId = madeBy(await receive());
    const { body } = await server.call('POST', '/api/ledger/works', {
      station: 'sort',
      sources: [{ holdingId: lotId, massG: 10_000 }],
      personId: 'bo',
      note: '',
      sacks: [1],
    });
    const { id } = body as { id: string };
    now += HOUR;
    await server.call('POST', `/api/ledger/works/${id}/pause`, {});
    now += HOUR;
    await server.call('POST', `/api/ledger/works/${id}/pause`, {});
    const resumed = await server.call('POST', `/api/ledger/works/${id}/resume`, {});
    expect(resumed.body).toMatchObject({ pausedAt: null, pausedMs: HOUR, sacks: [1], personId: 'bo' });
    await server.workshop.reload();
    expect(server.workshop.works.get(id)?.pausedMs).toBe(HOUR);
  });
});
