import type { ComplaintView, RecallRow, RecallView, SharedView, SharingView } from '@wunsch/core/api/recall';
import { Views } from '../src/ledger/views';
import { SHARED_KINDS, thingView } from '../src/trace/things';
import { asProblem, madeBy, testServer, type TestServer } from './harness';
import { bought, moulded, nibLot, poured } from './shop';

let server: TestServer;
beforeAll(async () => {
  server = await testServer();
});
afterAll(() => server.close());

/** Two batches of one lot, a third of another; each packed, some sold. */
async function goods(): Promise<{ lots: string[]; packs: string[] }> {
  await server.reset();
  const lots = [await nibLot(server, 'Alpha'), await nibLot(server, 'Beta')];
  const wrapper = await bought(server, 'wrapper', { pieces: 500 });
  const packs: string[] = [];
  for (const [n, lot] of [lots[0], lots[0], lots[1]].entries()) {
    const bars = await moulded(server, await poured(server, lot ?? '', `Ridge ${n}`));
    const pack = await server.step({
      kind: 'pack',
      holdingId: bars,
      pieces: 40,
      labelCode: `P-${n}`,
      bestBefore: '2027-06-01',
      packaging: [{ holdingId: wrapper, pieces: 40 }],
      note: '',
    } as never);
    packs.push(madeBy(pack, 'packed'));
  }
  for (const [n, pack] of packs.entries())
    await server.step({
      kind: 'sell',
      sources: [{ holdingId: pack, pieces: 10 }],
      takings: 60,
      to: n === 1 ? 'Harbour Deli' : 'Lighthouse Shop',
      note: '',
    } as never);
  return { lots, packs };
}

test('complaints are written down at a code, share what lies behind them, and are answered', async () => {
  await goods();
  const complain = (body: object) =>
    server.call('POST', '/api/trace/complaints', { personId: 'ann', what: 'taste', ...body });
  expect(asProblem(await complain({ code: 'NOPE' })).errors[0]).toMatchObject({ path: 'code' });
  expect(asProblem(await complain({ code: 'P-0', what: 'sad' })).errors[0]?.path).toBe('what');
  for (const code of ['P-0', 'P-1']) expect((await complain({ code, from: 'a buyer' })).status).toBe(201);
  const all = (await server.call('GET', '/api/trace/complaints')).body as { complaints: ComplaintView[] };
  expect(all.complaints.map(({ code }) => code)).toEqual(['P-1', 'P-0']);
  const shared = (await server.call('POST', '/api/trace/shared', { codes: ['P-0', 'P-1'] })).body as SharedView;
  // The lot is in two of three packs; the wrapper in all, so that it says nothing.
  const words = shared.groups.map(({ things }) => things.map((thing) => thing.words).join(', '));
  expect(words[0]).toContain('lot L001, Alpha');
  expect(shared.groups[0]).toMatchObject({ having: 2, of: 2, pieces: 80 });
  expect(shared.groups[0]?.sentence).toMatch(/^All 2 have it; of all bars 67 % do\./);
  const wrapper = shared.groups.findIndex(({ things }) => things.some(({ kind }) => kind === 'packaging'));
  expect(wrapper).toBeGreaterThan(0);
  const [thing] = shared.groups[0]?.things.filter(({ kind }) => kind === 'lot') ?? [];
  const sharing = (await server.call('GET', `/api/trace/sharing?kind=lot&id=${thing?.id ?? ''}`)).body as SharingView;
  expect(sharing.goods.map(({ code, here, sold }) => [code, here, sold])).toEqual([
    ['P-0', 30, 10],
    ['P-1', 30, 10],
  ]);
  const [newest] = all.complaints;
  const answer = (word: string) =>
    server.call('POST', `/api/trace/complaints/${newest?.id ?? ''}/answer`, { personId: 'bo', word });
  expect((await answer('')).status).toBe(422);
  expect((await answer('A new bar went out')).status).toBe(201);
  const after = (await server.call('GET', '/api/trace/complaints')).body as { complaints: ComplaintView[] };
  expect(after.complaints.map((row) => row.answer)).toEqual(['A new bar went out', null]);
});

test('whatever goods can have in common is called something, once; what is no kind of it is refused', async () => {
  const views = new Views(server.workshop);
  const id = 'x 2026-02-03';
  expect(SHARED_KINDS.filter((kind) => thingView(views, { kind, id }).words === id)).toEqual([]);
  expect(new Set(SHARED_KINDS).size).toBe(SHARED_KINDS.length);
  expect((await server.call('GET', '/api/trace/sharing?kind=moon&id=x')).status).toBe(422);
  for (const day of ['x', 'sort 2026-02-31', 'sort'])
    expect((await server.call('GET', `/api/trace/sharing?kind=day&id=${day}`)).status).toBe(404);
});

test('a roll of wrapper that is recalled takes along what was packed in it', async () => {
  const { packs } = await goods();
  const wrapper = [...server.workshop.book.holdings.values()].find(({ kind }) => kind === 'packaging');
  const body = { personId: 'ann', codes: [wrapper?.code ?? ''], why: 'wrong allergens on it' };
  const view = (await server.call('POST', '/api/trace/recalls', body)).body as RecallView;
  expect(view.affected).toEqual(['P-0', 'P-1', 'P-2']);
  expect(view.buyers.reduce((sum, { pieces }) => sum + pieces, 0)).toBe(30);
  expect(view.foundShare).toBeCloseTo(1, 6);
  const command = { kind: 'sell', sources: [{ holdingId: packs[2], pieces: 1 }], takings: 6, to: '', note: '' };
  expect(asProblem(await server.call('POST', '/api/ledger/steps', { personId: 'ann', command })).code).toBe(
    'trace/blocked',
  );
});

test('a recall finds every buyer, blocks what is here, and lets it go only by name', async () => {
  const { lots, packs } = await goods();
  const lotCode = server.workshop.book.holding(lots[0] ?? '').code;
  const recall = (body: object) => server.call('POST', '/api/trace/recalls', { personId: 'ann', ...body });
  expect(asProblem(await recall({ codes: [], why: 'shell in it' })).errors[0]?.path).toBe('codes');
  expect(asProblem(await recall({ codes: [lotCode], why: '' })).errors[0]?.path).toBe('why');
  // Practised, nothing is blocked.
  const practised = (await recall({ codes: [lotCode], why: 'for practice', mock: true })).body as RecallView;
  expect(practised.here.some(({ blocked }) => blocked)).toBe(false);
  const sell = (n: number) =>
    server.call('POST', '/api/ledger/steps', {
      personId: 'ann',
      command: { kind: 'sell', sources: [{ holdingId: packs[n], pieces: 1 }], takings: 6, to: 'Deli', note: '' },
    });
  expect((await sell(0)).status).toBe(201);
  const view = (await recall({ codes: [lotCode], why: 'shell in it' })).body as RecallView;
  expect(view.buyers.map(({ to, pieces }) => [to, pieces])).toEqual([
    ['Harbour Deli', 10],
    ['Lighthouse Shop', 10],
    ['Deli', 1],
  ]);
  expect(view.affected).toEqual(expect.arrayContaining(['P-0', 'P-1']));
  expect(view.affected).not.toContain('P-2');
  expect(
    view.here.filter(({ kind }) => kind === 'packed').map(({ code, pieces, blocked }) => [code, pieces, blocked]),
  ).toEqual(
    expect.arrayContaining([
      ['P-1', 30, true],
      ['P-0', 29, true],
    ]),
  );
  expect(view.foundShare).toBeCloseTo(1, 6);
  // Blocked: no sale, no melting, no pouring of the lot; the other lot goes on.
  const refused = asProblem(await sell(0));
  expect(refused).toMatchObject({ code: 'trace/blocked' });
  expect(refused.detail).toBe(
    'P-0 is blocked: shell in it. Release it by name on the page of its recall before anything is done with it.',
  );
  const command = { kind: 'remelt', sources: [{ holdingId: packs[1], pieces: 30 }], why: '', note: '' };
  expect(asProblem(await server.call('POST', '/api/ledger/steps', { personId: 'ann', command })).code).toBe(
    'trace/blocked',
  );
  const begin = await server.call('POST', '/api/ledger/works', {
    station: 'temper',
    personId: 'ann',
    sources: [{ holdingId: packs[1], pieces: 3 }],
    note: '',
  });
  expect(asProblem(begin).code).toBe('trace/blocked');
  expect((await sell(2)).status).toBe(201);
  // It survives a new start; released one by one, by name.
  await server.workshop.reload();
  expect(asProblem(await sell(1)).code).toBe('trace/blocked');
  const path = `/api/trace/recalls/${view.id}`;
  const release = (body: object) =>
    server.call('POST', `${path}/release`, { personId: 'bo', word: 'looked at', ...body });
  expect(asProblem(await release({ codes: ['P-2'] })).code).toBe('trace/not-blocked');
  expect((await release({ codes: ['P-0'] })).status).toBe(201);
  expect((await sell(0)).status).toBe(201);
  expect(asProblem(await sell(1)).code).toBe('trace/blocked');
  const sheet = String((await server.call('GET', `${path}/sheet.csv`)).body);
  expect(sheet.split('\r\n')[0]).toBe('where,code,name,to,when,pieces,massG,share,blocked');
  expect(sheet).toContain('\r\nhere,P-1,"Ridge 1, 70 g",store,,30,2100,1,yes\r\n');
  const pdf = await server.app.inject({ method: 'GET', url: `${path}/letter.pdf` });
  expect(pdf.headers['content-type']).toBe('application/pdf');
  expect(pdf.rawPayload.subarray(0, 5).toString()).toBe('%PDF-');
  expect((await release({})).status).toBe(201);
  expect((await sell(1)).status).toBe(201);
  const end = () => server.call('POST', `${path}/end`, { personId: 'bo', word: 'all back' });
  expect((await end()).status).toBe(201);
  expect(asProblem(await end()).code).toBe('trace/ended');
  const { recalls } = (await server.call('GET', '/api/trace/recalls')).body as { recalls: RecallRow[] };
  expect(recalls.map(({ mock, endedAt }) => [mock, endedAt !== null])).toEqual([
    [false, true],
    [true, false],
  ]);
  // All of it is in an export.
  const file = (await server.call('GET', '/api/workshop/export.json')).body as object;
  await server.workshop.empty();
  expect((await server.call('POST', '/api/workshop/restore', file)).status).toBe(201);
  expect((await server.call('GET', path)).body).toMatchObject({ endWord: 'all back', codes: [lotCode] });
});
