import type { BatchView, FloorView, StepView, TraceView, WorkView } from '@wunsch/core/api/types';
import { exportWorkshop } from '../src/journal/export';
import { asProblem, lotCommand, madeBy, sortCommand, testServer, type TestServer } from './harness';

let server: TestServer;
beforeAll(async () => {
  server = await testServer();
});
beforeEach(() => server.reset());
afterAll(() => server.close());

test('the same write twice under one key is entered once; another under that key is told', async () => {
  const body = { command: lotCommand(), personId: 'ann' };
  const first = await server.call('POST', '/api/ledger/steps', body, { 'idempotency-key': 'k1' });
  const again = await server.call('POST', '/api/ledger/steps', body, { 'idempotency-key': 'k1' });
  expect(again.status).toBe(201);
  expect(again.body).toEqual(first.body);
  expect(again.headers['idempotent-replay']).toBe('true');
  expect(server.workshop.book.steps.size).toBe(1);
  const other = await server.call('POST', '/api/ledger/steps', { ...body, minutes: 5 }, { 'idempotency-key': 'k1' });
  expect(other.status).toBe(409);
  expect(asProblem(other).code).toBe('http/key-reused');
});

test('two screens finish the same work at once: one wins, the other is told, the grams move once', async () => {
  const lot = madeBy(await server.step(lotCommand()));
  const work = (
    await server.call('POST', '/api/ledger/works', {
      station: 'sort',
      sources: [{ holdingId: lot, massG: 4000 }],
      personId: 'ann',
    })
  ).body as WorkView;
  const finish = (person: string) =>
    server.call('POST', `/api/ledger/works/${work.id}/finish`, {
      command: sortCommand(lot, 4000, 3900),
      personId: person,
    });
  const [a, b] = await Promise.all([finish('ann'), finish('bo')]);
  expect([a.status, b.status].sort()).toEqual([201, 409]);
  expect(asProblem(a.status === 409 ? a : b).code).toBe('work/closed');
  expect(server.workshop.book.balance(lot).massMg).toBe(6_000_000);
});

test('what is in work is not free for others, and putting it back frees it', async () => {
  const lot = madeBy(await server.step(lotCommand()));
  const work = (
    await server.call('POST', '/api/ledger/works', {
      station: 'sort',
      sources: [{ holdingId: lot, massG: 8000 }],
      personId: 'ann',
    })
  ).body as WorkView;
  const taken = await server.call('POST', '/api/ledger/steps', {
    command: sortCommand(lot, 3000, 2900),
    personId: 'bo',
  });
  expect(asProblem(taken).code).toBe('ledger/reserved');
  const floor = (await server.call('GET', '/api/ledger/floor')).body as FloorView;
  expect(floor.stations.find(({ station }) => station === 'sort')).toMatchObject({
    workingMg: 8_000_000,
    standingMg: 8_000_000,
  });
  expect((await server.call('DELETE', `/api/ledger/works/${work.id}`)).status).toBe(200);
  await server.step(sortCommand(lot, 3000, 2900));
});

test('two people correct the same step: the second is told', async () => {
  const lot = await server.step(lotCommand());
  const fix = (netG: number) =>
    server.call('POST', `/api/ledger/steps/${lot.id}/correct`, {
      command: lotCommand(netG),
      personId: 'bo',
      reason: 'weighed again',
      at: new Date(lot.at).toISOString(),
    });
  expect((await fix(9_900)).status).toBe(201);
  const second = await fix(9_800);
  expect(second.status).toBe(409);
  expect(server.workshop.book.balance(madeBy(lot)).massMg).toBe(9_900_000);
  const { versions } = (await server.call('GET', `/api/ledger/steps/${lot.id}`)).body as { versions: StepView[] };
  expect(versions.map(({ reason, person }) => [reason, person])).toEqual([
    ['weighed again', 'Bo'],
    [null, 'Ann'],
  ]);
});

test('a correction needs a reason', async () => {
  const lot = await server.step(lotCommand());
  const got = await server.call('POST', `/api/ledger/steps/${lot.id}/correct`, {
    command: lotCommand(9_000),
    personId: 'bo',
    reason: ' ',
  });
  expect(asProblem(got).errors[0]?.path).toBe('reason');
});

test('a step taken back counts no more; one that is in use cannot be', async () => {
  const receipt = await server.step(lotCommand());
  const sorted = await server.step(sortCommand(madeBy(receipt), 1000, 950));
  const inUse = await server.call('POST', `/api/ledger/steps/${receipt.id}/withdraw`, {
    personId: 'ann',
    reason: 'wrong sack',
  });
  expect(asProblem(inUse)).toMatchObject({ code: 'ledger/used-since', facts: { stepIds: [sorted.id] } });
  expect(
    (await server.call('POST', `/api/ledger/steps/${sorted.id}/withdraw`, { personId: 'ann', reason: 'wrong sack' }))
      .status,
  ).toBe(201);
  expect(server.workshop.book.balance(madeBy(receipt)).massMg).toBe(10_000_000);
});

/** A small batch, poured from the grinder. */
async function poured(): Promise<{ batchId: string; pour: StepView; sugar: string; sorted: StepView; lot: string }> {
  const hour = (n: number): { at: string } => ({ at: new Date(Date.now() - (40 - n) * 3_600_000).toISOString() });
  const lot = madeBy(await server.step(lotCommand(20_000), hour(0)));
  const sugar = madeBy(
    await server.step(
      { kind: 'buy', materialId: 'sugar', supplier: 'Shop', supplierBatch: 'S1', massG: 9_000, price: 18, note: '' },
      hour(0),
    ),
  );
  const sorted = await server.step(sortCommand(lot, 6_000, 5_700), hour(1));
  const roast = await server.step(
    {
      kind: 'roast',
      sources: [{ holdingId: madeBy(sorted), massG: 5_700 }],
      program: [],
      endBeanC: null,
      outG: 5_350,
      note: '',
    },
    hour(2),
  );
  const winnow = await server.step(
    {
      kind: 'winnow',
      sources: [{ holdingId: madeBy(roast), massG: 5_350 }],
      nibsG: 4_400,
      huskG: 800,
      dustG: 0,
      setting: '',
      note: '',
    },
    hour(3),
  );
  const charge = await server.step(
    {
      kind: 'charge',
      batch: { name: 'Small', routeId: 'straight-through', targetMicron: 20, cocoaTargetPct: 73 },
      sources: [
        { holdingId: madeBy(winnow, 'nibs'), massG: 4_400 },
        { holdingId: sugar, massG: 1_600 },
      ],
      note: '',
    },
    hour(4),
  );
  const batchId = madeBy(charge);
  const pour = await server.step(
    { kind: 'discharge', batchId, outsG: [5_900], holdUpG: 60, micron: 19, note: '' },
    hour(30),
  );
  return { batchId, pour, sugar, sorted, lot };
}

test('sugar entered late, after the bowl was emptied: the emptying is worked out again, the percent moves', async () => {
  const { batchId, sugar, pour } = await poured();
  const code = server.workshop.batches.get(batchId)?.code ?? '';
  const before = (await server.call('GET', `/api/trace/batches/${code}`)).body as BatchView;
  expect(before.goods[0]?.composition.cocoaPct).toBeCloseTo((100 * 4.4) / 6, 6);
  await server.step(
    { kind: 'charge', batchId, sources: [{ holdingId: sugar, massG: 30 }], note: 'forgotten' },
    { at: new Date(Date.now() - 20 * 3_600_000).toISOString() },
  );
  const after = (await server.call('GET', `/api/trace/batches/${code}`)).body as BatchView;
  expect(after.goods[0]?.composition.cocoaPct).toBeCloseTo((100 * 4.4) / 6.03, 6);
  expect(after.bowlMg).toBe(0);
  const now = ((await server.call('GET', `/api/ledger/steps/${pour.id}`)).body as { step: StepView }).step;
  expect(now.lines.find(({ loss }) => loss === 'unaccounted')?.massMg).toBe(70_000);
  expect(now.reason).toContain('Worked out again');
});

test('trace both ways, and every code leads somewhere', async () => {
  const { pour, lot, sugar } = await poured();
  const mass = pour.lines.find(({ massMg }) => massMg > 0);
  const trace = (await server.call('GET', `/api/trace/codes/${mass?.code}`)).body as TraceView;
  expect(trace.back.lots.map(({ id, share }) => [id, share])).toEqual([[lot, 1]]);
  expect(trace.back.lots[0]?.greenMg).toBeCloseTo((6_000_000 * 5_900) / 5_900, -3);
  expect(trace.back.ingredients[0]).toMatchObject({ name: 'Sugar', supplier: 'Shop', supplierBatch: 'S1' });
  const forward = (await server.call('GET', `/api/trace/codes/${server.workshop.book.holding(sugar).code}`))
    .body as TraceView;
  expect(forward.forward.batches).toHaveLength(1);
  expect((await server.call('GET', '/api/trace/codes/NOPE')).status).toBe(404);
  expect(
    ((await server.call('GET', `/api/trace/search?q=${mass?.code?.toLowerCase()}`)).body as { code: string }[])[0]
      ?.code,
  ).toBe(mass?.code);
});

test('an export restores into an empty workshop to the same bytes, and not into a full one', async () => {
  await poured();
  const bytes = await exportWorkshop(server.workshop);
  const full = await server.call('POST', '/api/workshop/restore', bytes);
  expect(asProblem(full).code).toBe('workshop/not-empty');
  const other = await testServer();
  try {
    // A team and a pantry are not nothing: they are not wiped for a file.
    expect(asProblem(await other.call('POST', '/api/workshop/restore', bytes)).code).toBe('workshop/not-empty');
    expect(other.workshop.people.size).toBe(2);
    await other.workshop.empty();
    const restored = await other.call('POST', '/api/workshop/restore', bytes);
    expect(restored.status).toBe(201);
    expect(await exportWorkshop(other.workshop)).toBe(bytes);
    const spoiled = JSON.parse(bytes) as { steps: { postings: { massMg: number }[] }[] };
    const third = await testServer();
    await third.workshop.empty();
    const posting = spoiled.steps[1]?.postings[0];
    if (posting) posting.massMg += 1;
    const bad = await third.call('POST', '/api/workshop/restore', spoiled);
    expect(asProblem(bad).code).toBe('workshop/bad-restore');
    expect(third.workshop.book.steps.size).toBe(0);
    expect(third.workshop.people.size).toBe(0);
    await third.close();
  } finally {
    await other.close();
  }
});

test('the CSV is RFC 4180 and a formula in a name stays text', async () => {
  await server.step({ ...lotCommand(), name: '=1+1, "x"' } as never);
  const { body, headers } = await server.call('GET', '/api/trace/steps.csv');
  expect(String(headers['content-type'])).toContain('text/csv');
  expect(String(body).split('\r\n')[1]).toContain(`"'=1+1, ""x"""`);
});

test('the description names every route with its body', async () => {
  const { paths } = (await server.call('GET', '/api/openapi.json')).body as {
    paths: Record<string, Record<string, { requestBody?: unknown }>>;
  };
  expect(paths['/api/roast/loads']?.['post']?.requestBody).toBeDefined();
  expect(Object.keys(paths).length).toBeGreaterThan(40);
});

test('the arithmetic is scriptable', async () => {
  expect(
    (await server.call('POST', '/api/calc/mould/bars', { chocolateG: 9800, holdUpG: 80, barG: 70, cavities: 24 })).body,
  ).toEqual({ bars: 138, fills: 6, overG: 60 });
  expect(
    (await server.call('POST', '/api/calc/recipe/cocoa', { nibsG: 7000, butterG: 400, sugarG: 2600 })).body,
  ).toMatchObject({ cocoaPct: 74, withoutButterPct: 70 });
});
