import type { MouldingView, MouldsView } from '@wunsch/core/api/mould';
import type { BatchLooks } from '@wunsch/core/api/temper';
import type { FloorView } from '@wunsch/core/api/types';
import { asProblem, lotCommand, madeBy, testServer, type TestServer } from './harness';

let server: TestServer;
let clock = Date.UTC(2026, 10, 25, 9);
beforeAll(async () => {
  server = await testServer(() => clock);
});
afterAll(() => server.close());

async function poured(massG: number): Promise<{ tub: string; code: string }> {
  await server.reset();
  const lot = { ...lotCommand(), name: 'Alpha', form: 'nibs', roasted: true, routeId: 'from-nibs', netG: massG + 400 };
  const nibs = madeBy(await server.step(lot as never));
  const sources = [{ holdingId: nibs, massG: massG + 200 }];
  const charge = await server.step({
    kind: 'charge',
    batch: { name: 'Ridge 100', routeId: 'from-nibs' },
    sources,
    note: '',
  } as never);
  clock += 40 * 3_600_000;
  const tub = madeBy(
    await server.step({
      kind: 'discharge',
      batchId: madeBy(charge, 'mass'),
      outsG: [massG],
      holdUpG: 200,
      note: '',
    } as never),
  );
  clock += 3_600_000;
  const pour = await server.step({
    kind: 'temper',
    sources: [{ holdingId: tub, massG }],
    method: 'bath',
    meltC: 46,
    coolC: 30.8,
    workC: 32,
    test: 'slow',
    note: '',
  } as never);
  return { tub: madeBy(pour), code: charge.batchCode ?? '' };
}
const say = (path: string, body: object, method: 'POST' | 'PUT' = 'POST') =>
  server.call(method, path, { personId: 'ann', ...body });

test('moulds are described, cleaned, changed and retired; the cabinet says how many set at once', async () => {
  await server.reset();
  const facts = { name: 'Tablet', cavities: 3, cavityG: 70, owned: 20, painted: false, retired: false };
  expect(asProblem(await say('/api/mould/moulds', { facts: { ...facts, cavities: 0 } })).errors[0]?.path).toBe(
    'facts.cavities',
  );
  const added = (await say('/api/mould/moulds', { facts })).body as MouldsView;
  const [mould] = added.moulds;
  expect(mould).toMatchObject({ name: 'Tablet', cleanedAt: null });
  const path = `/api/mould/moulds/${mould?.id ?? ''}`;
  await say(`${path}/cleaned`, { how: 'washed' });
  expect((await say('/api/mould/cabinet', { moulds: 8, minutes: 20 })).status).toBe(201);
  expect((await say(path, { facts: { ...facts, owned: 24 } }, 'PUT')).status).toBe(200);
  expect((await say('/api/mould/moulds/nobody/cleaned', { how: '' })).status).toBe(404);
  const view = (await server.call('GET', '/api/mould/moulds')).body as MouldsView;
  expect(view).toMatchObject({
    moulds: [{ owned: 24, cleanedAt: clock, cleanedHow: 'washed' }],
    cabinet: { moulds: 8, minutes: 20 },
  });
  await say(path, { facts: { ...facts, retired: true } }, 'PUT');
  expect(((await server.call('GET', '/api/mould/moulds')).body as MouldsView).moulds).toEqual([]);
});

test('groups of moulds have their clocks on the due line; single bars are weighed; all of it goes with the step', async () => {
  const { tub, code } = await poured(9000);
  const work = await server.call('POST', '/api/ledger/works', {
    station: 'mould',
    personId: 'ann',
    sources: [{ holdingId: tub, massG: 9000 }],
    note: '',
  });
  const workId = (work.body as { id: string }).id;
  const path = `/api/mould/works/${workId}`;
  expect((await say(`${path}/setup`, { barG: 70, mouldId: null, setMin: 25 })).status).toBe(201);
  expect(asProblem(await say(`${path}/fills`, { moulds: 0 })).errors[0]?.message).toBe('must be at least 1');
  await say(`${path}/fills`, { moulds: 20 });
  clock += 10 * 60_000;
  await say(`${path}/fills`, { moulds: 22 });
  const due = async () =>
    ((await server.call('GET', '/api/ledger/floor')).body as FloorView).due.filter(
      ({ station }) => station === 'mould',
    );
  expect((await due()).map(({ text, at }) => [text.replace(/,.*/, ''), Math.round((at - clock) / 60_000)])).toEqual([
    ['Turn out 20 moulds', 15],
    ['Turn out 22 moulds', 25],
  ]);
  const view = async () => (await server.call('GET', path)).body as MouldingView;
  const [first] = (await view()).live.fills;
  expect((await say(`${path}/fills/nobody/out`, { out: true })).status).toBe(404);
  clock += 16 * 60_000;
  await say(`${path}/fills/${first?.id ?? ''}/out`, { out: true });
  expect((await due()).map(({ text }) => text.replace(/,.*/, ''))).toEqual(['Turn out 22 moulds']);
  for (const massG of [70.2, 70.9, 3]) await say(`${path}/weights`, { massG });
  expect(asProblem(await say(`${path}/weights`, { massG: -2 })).errors[0]?.path).toBe('massG');
  await server.call('DELETE', `${path}/weights/last`);
  await server.workshop.reload();
  expect((await view()).live.weightsG).toEqual([70.2, 70.9]);
  const finish = (command: object) =>
    say(`/api/ledger/works/${workId}/finish`, {
      command: {
        kind: 'mould',
        sources: [{ holdingId: tub, massG: 9000 }],
        barG: 70,
        cavities: 60,
        goodPieces: 120,
        holdUpG: 180,
        note: '',
        ...command,
      },
    });
  const tooMany = await finish({ secondsPieces: 2, faults: [{ fault: 'streak', pieces: 3 }] });
  expect(asProblem(tooMany).errors[0]?.message).toBe('are fewer than what is wrong with them adds up to');
  const done = await finish({
    secondsPieces: 5,
    faults: [{ fault: 'streak', pieces: 3 }],
    release: 'tapped',
    contractMin: 22,
  });
  expect([done.status, done.status === 201 ? null : done.body]).toEqual([201, null]);
  expect((done.body as { step: { command: object } }).step.command).toMatchObject({
    weightsG: [70.2, 70.9],
    faults: [{ fault: 'streak', pieces: 3 }],
    contractMin: 22,
  });
  // What was wrong at turning out points to the pour.
  const looks = (await server.call('GET', `/api/temper/batches/${code}/looks`)).body as BatchLooks;
  expect(looks.sights).toMatchObject([{ seen: ['streaks'], days: 0 }]);
  expect(looks.cause.sentence).toMatch(/^Streaks: T\d+\. Its lowest was 30\.8/);
  expect((await server.call('GET', path)).status).toBe(404);
});

test('weights and plans for scripts; what cannot be is refused', async () => {
  const study = await server.call('POST', '/api/calc/mould/weights', { weightsG: [70, 71, 69, 70, 72], declaredG: 70 });
  expect(study.body).toMatchObject({ n: 5, meanG: 70.4, errorG: 4.5 });
  const plan = await server.call('POST', '/api/calc/mould/plan', {
    chocolateG: 9000,
    holdUpG: 200,
    barG: 70,
    cavities: 3,
    owned: 20,
  });
  expect(plan.body).toMatchObject({ bars: 125, moulds: 42, fills: 3 });
  const none = await server.call('POST', '/api/calc/mould/plan', { chocolateG: 9000, barG: 0, cavities: 3 });
  expect(asProblem(none).errors[0]?.path).toBe('barG');
});
