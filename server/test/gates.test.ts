import type { HoldingView, TraceView } from '@wunsch/core/api/types';
import type { Gate } from '@wunsch/core/gates/gate';
import type { Command } from '@wunsch/core/commands';
import { asProblem, lotCommand, madeBy, testServer, type TestServer } from './harness';

let server: TestServer;
let clock = Date.UTC(2026, 8, 1, 8);
const DAY = 86_400_000;

beforeAll(async () => {
  server = await testServer(() => clock);
});
afterAll(() => server.close());
beforeEach(() => server.reset());

const charge = (sources: { holdingId: string; massG: number }[], routeId = 'whole-bean'): Command => ({
  kind: 'charge',
  batch: { name: 'Dark 70', routeId, targetMicron: 20, cocoaTargetPct: null },
  sources,
  note: '',
});
const enter = (command: Command, more: Record<string, unknown> = {}) =>
  server.call('POST', '/api/ledger/steps', { command, personId: 'ann', ...more });
const temperOf = (
  holdingId: string,
  massG: number,
  more: Partial<Extract<Command, { kind: 'temper' }>> = {},
): Command => ({
  kind: 'temper',
  sources: [{ holdingId, massG }],
  method: 'slab',
  meltC: 46,
  coolC: 27.5,
  workC: 31.5,
  test: 'set',
  note: '',
  ...more,
});
const mouldOf = (sources: { holdingId: string; massG: number }[], bars: number): Command => ({
  kind: 'mould',
  sources,
  barG: 50,
  cavities: 10,
  goodPieces: bars,
  secondsPieces: 0,
  remeltG: 0,
  trimmingsG: 0,
  holdUpG: 0,
  note: '',
});

/** A bowl of sugar and roasted nibs, poured as one tub of 2 kg. */
async function poured(): Promise<{ batchId: string; tub: string }> {
  const sugar = madeBy(
    await server.step({
      kind: 'buy',
      materialId: 'sugar',
      supplier: 'Shop',
      supplierBatch: '',
      massG: 5000,
      price: 9,
      note: '',
    }),
  );
  const lot = madeBy(
    await server.step({
      ...(lotCommand() as Extract<Command, { kind: 'receive' }>),
      form: 'nibs',
      routeId: 'straight-through',
    }),
  );
  const begun = await server.step(
    charge(
      [
        { holdingId: lot, massG: 1400 },
        { holdingId: sugar, massG: 600 },
      ],
      'straight-through',
    ),
  );
  const batchId = madeBy(begun, 'mass');
  const out = await server.step({ kind: 'discharge', batchId, outsG: [2000], holdUpG: 0, micron: null, note: '' });
  return { batchId, tub: madeBy(out) };
}

test('raw nibs stop at the bowl; a named person goes on with a word, which stays on the goods', async () => {
  const receipt = { ...(lotCommand() as Extract<Command, { kind: 'receive' }>), form: 'nibs' as const, roasted: null };
  const lot = madeBy(await server.step(receipt));
  const command = charge([{ holdingId: lot, massG: 2000 }]);
  const refused = await enter(command);
  expect(refused.status).toBe(409);
  const { code, facts, errors } = asProblem(refused);
  expect(code).toBe('gate/closed');
  expect((facts?.['gates'] as Gate[])[0]).toMatchObject({ id: 'grind/raw', path: 'sources.0.holdingId' });
  expect(errors[0]?.label).toBe('What is taken (line 1)');
  expect(server.workshop.batches.size).toBe(0);
  // An empty word is no word.
  expect((await enter(command, { overrides: [{ gate: 'grind/raw', word: ' ' }] })).status).toBe(422);
  const step = await server.step(command, {
    overrides: [{ gate: 'grind/raw', word: 'Roasted by the grower, letter of 3 May' }],
  });
  expect(step.overrides).toEqual([
    expect.objectContaining({ gate: 'grind/raw', word: 'Roasted by the grower, letter of 3 May', person: 'Ann' }),
  ]);
  const out = await server.step({
    kind: 'discharge',
    batchId: madeBy(step, 'mass'),
    outsG: [2000],
    holdUpG: 0,
    micron: null,
    note: '',
  });
  const block = out.lines.find((line) => line.massMg > 0 && line.code)?.code ?? '';
  const tub = (await server.call('GET', `/api/ledger/holdings/${block}`)).body as { holding: HoldingView };
  expect(tub.holding.marks.map(({ label, why }) => [label, why.includes('letter of 3 May')])).toEqual([
    ['stop gone past', true],
  ]);
});

test('a block stays its days on the shelf, in work that begins as in a step', async () => {
  server.workshop.putSettings({ ...server.workshop.settings, restDays: 14 });
  const lot = madeBy(await server.step(lotCommand()));
  const begun = await server.step(charge([{ holdingId: lot, massG: 2000 }]));
  const out = await server.step({
    kind: 'discharge',
    batchId: madeBy(begun, 'mass'),
    outsG: [1200, 800],
    holdUpG: 0,
    micron: null,
    note: '',
  });
  const blocks = out.lines.filter((line) => line.kind === 'block').map((line) => line.holdingId ?? '');
  const sources = [{ holdingId: blocks[0] ?? '', massG: 1200 }];
  expect(asProblem(await enter({ kind: 'rest', sources, note: '' })).code).toBe('gate/closed');
  const start = { station: 'temper', sources, personId: 'ann', note: '' };
  expect(asProblem(await server.call('POST', '/api/ledger/works', start)).code).toBe('gate/closed');
  const word = { overrides: [{ gate: 'rest/too-young', word: 'for the fair' }] };
  const work = await server.call('POST', '/api/ledger/works', { ...start, ...word });
  expect(work.status).toBe(201);
  // Said at the beginning, it need not be said again at the end, and is kept with the step.
  const { id } = work.body as { id: string };
  const done = await server.call('POST', `/api/ledger/works/${id}/finish`, {
    command: temperOf(blocks[0] ?? '', 1200),
    personId: 'bo',
  });
  expect(done.status).toBe(201);
  expect((done.body as { step: { overrides: { word: string; person: string }[] } }).step.overrides).toEqual([
    expect.objectContaining({ word: 'for the fair', person: 'Ann' }),
  ]);
  // A fortnight later the other one goes as it is, and keeps the code that is written on it.
  clock += 14 * DAY;
  const off = await server.step({ kind: 'rest', sources: [{ holdingId: blocks[1] ?? '', massG: 800 }], note: '' });
  const code = out.lines.find((line) => line.holdingId === blocks[1])?.code;
  expect(off.lines.find((line) => line.massMg > 0)?.code).toBe(`${code}-2`);
});

test('a failed pour waits at Temper, is tempered again, and is not moulded in silence', async () => {
  const { tub } = await poured();
  const failed = madeBy(await server.step(temperOf(tub, 1000, { test: 'failed', workC: 38 })));
  const bench = (await server.call('GET', '/api/temper/bench')).body as { waiting: HoldingView[] };
  expect(bench.waiting.find(({ id }) => id === failed)?.marks[0]?.label).toBe('failed temper');
  expect(asProblem(await enter(mouldOf([{ holdingId: failed, massG: 1000 }], 20))).detail).toContain(
    'its temper test failed',
  );
  const again = madeBy(await server.step(temperOf(failed, 1000)));
  const bars = await server.step(mouldOf([{ holdingId: again, massG: 1000 }], 20));
  expect(bars.overrides).toEqual([]);
});

test('what joins at the moulds and in the pour is in every percentage, every allergen and every page', async () => {
  server.workshop.putMaterial({
    id: 'hazel',
    name: 'Hazelnut paste',
    kind: 'ingredient',
    cocoa: 'none',
    sugar: false,
    allergens: ['hazelnut'],
  });
  server.workshop.putMaterial({
    id: 'silk',
    name: 'Silk',
    kind: 'ingredient',
    cocoa: 'butter',
    sugar: false,
    allergens: [],
  });
  server.workshop.putMachine({ id: 'bath', name: 'Temper bath', station: 'temper', minG: null, maxG: null, kw: 0 });
  const buy = async (materialId: string, massG: number) =>
    madeBy(
      await server.step({ kind: 'buy', materialId, supplier: 'Shop', supplierBatch: '', massG, price: 9, note: '' }),
    );
  const [silk, hazel] = [await buy('silk', 500), await buy('hazel', 500)];
  const { batchId, tub } = await poured();
  const code = server.workshop.batches.get(batchId)?.code ?? '';
  const pour = await server.step(
    {
      ...(temperOf(tub, 1000) as Extract<Command, { kind: 'temper' }>),
      sources: [
        { holdingId: tub, massG: 1000 },
        { holdingId: silk, massG: 20 },
      ],
    },
    { machineId: 'bath' },
  );
  const bars = await server.step(
    mouldOf(
      [
        { holdingId: madeBy(pour, 'tempered'), massG: 1020 },
        { holdingId: hazel, massG: 180 },
      ],
      24,
    ),
  );
  const made = bars.lines.find((line) => line.kind === 'bars');
  const packed = await server.step({
    kind: 'pack',
    holdingId: made?.holdingId ?? '',
    pieces: 24,
    labelCode: 'HZ-1',
    bestBefore: '2027-03-01',
    packaging: [],
    note: '',
  });
  expect(packed.overrides).toEqual([]);
  // Nine months are usual with nuts: a later date stops.
  const long = await enter({
    kind: 'pack',
    holdingId: made?.holdingId ?? '',
    pieces: 1,
    labelCode: 'HZ-2',
    bestBefore: '2028-03-01',
    packaging: [],
    note: '',
  });
  expect(asProblem(long).detail).not.toContain('HZ-2');
  const page = (await server.call('GET', `/api/trace/batches/${code}`)).body as {
    goods: { codes: string[]; composition: { cocoaPct: number; withoutButterPct: number; allergens: string[] } }[];
  };
  expect(page.goods.map(({ composition }) => composition.allergens)).toEqual([[], [], ['hazelnut']]);
  const [, tempered, final] = page.goods.map(({ composition }) => composition);
  expect(tempered?.cocoaPct).toBeCloseTo((100 * (700 + 20)) / 1020, 6);
  expect(tempered?.withoutButterPct).toBeCloseTo((100 * 700) / 1020, 6);
  expect(final?.cocoaPct).toBeCloseTo((100 * 720) / 1200, 6);
  const trace = (await server.call('GET', '/api/trace/codes/HZ-1')).body as TraceView;
  expect(trace.composition?.allergensFrom).toEqual([{ allergen: 'hazelnut', from: ['Hazelnut paste'], share: 0.15 }]);
  // The bath saw no nuts yet: nothing is carried over. A hazelnut pour on it, and the next one may have some.
  expect(trace.composition?.carriedOver).toEqual([]);
  const nutty = await server.step(
    {
      ...(temperOf(tub, 300) as Extract<Command, { kind: 'temper' }>),
      sources: [
        { holdingId: tub, massG: 300 },
        { holdingId: hazel, massG: 50 },
      ],
    },
    { machineId: 'bath' },
  );
  clock += 60_000;
  const plain = await server.step(temperOf(tub, 300), { machineId: 'bath' });
  const tubOf = async (id: string) => {
    const { code: own } = server.workshop.book.holding(id);
    return (await server.call('GET', `/api/ledger/holdings/${own}`)).body as { composition: TraceView['composition'] };
  };
  expect((await tubOf(madeBy(nutty, 'tempered'))).composition?.allergens).toEqual(['hazelnut']);
  expect((await tubOf(madeBy(plain, 'tempered'))).composition?.carriedOver).toEqual([
    expect.objectContaining({ allergen: 'hazelnut', machine: 'Temper bath' }),
  ]);
  clock += 60_000;
  await server.call('POST', '/api/workshop/machines/bath/cleanings', {
    personId: 'ann',
    how: 'taken apart and washed',
  });
  clock += 60_000;
  const clean = await server.step(temperOf(tub, 300), { machineId: 'bath' });
  expect((await tubOf(madeBy(clean, 'tempered'))).composition?.carriedOver).toEqual([]);
});

test('couverture is sold from its tub, and packed by weight', async () => {
  const { tub } = await poured();
  await server.step({
    kind: 'sell',
    sources: [{ holdingId: tub, massG: 500 }],
    takings: 9,
    to: 'Pastry kitchen',
    note: '',
  });
  const noWeight = await enter({
    kind: 'pack',
    holdingId: tub,
    pieces: 3,
    labelCode: 'COV-1',
    bestBefore: '2027-09-01',
    packaging: [],
    note: '',
  });
  expect(asProblem(noWeight).errors[0]).toMatchObject({ path: 'massG', label: 'What goes into the packs' });
  const packs = await server.step({
    kind: 'pack',
    holdingId: tub,
    pieces: 3,
    massG: 1500,
    labelCode: 'COV-1',
    bestBefore: '2027-09-01',
    packaging: [],
    note: '',
  });
  expect(packs.lines.find((line) => line.code === 'COV-1')).toMatchObject({ massMg: 1_500_000, pieces: 3 });
  await server.step({
    kind: 'sell',
    sources: [{ holdingId: madeBy(packs, 'packed'), pieces: 1 }],
    takings: 8,
    to: '',
    note: '',
  });
  expect(server.workshop.book.balance(madeBy(packs, 'packed'))).toEqual({ massMg: 1_000_000, pieces: 2 });
});

test('opening stock comes in at what it is worth, with what is known of it; the book balances', async () => {
  const base = {
    kind: 'open' as const,
    routeId: null,
    producer: '',
    country: '',
    roasted: null,
    cocoaPct: null,
    withoutButterPct: null,
    sugarPct: null,
    allergens: [],
    targetMicron: 20,
    note: '',
  };
  const bars = await server.step({
    ...base,
    what: 'bars',
    name: 'Old milk bars',
    massG: 3500,
    pieces: 50,
    value: 60,
    cocoaPct: 45,
    allergens: ['milk'],
  });
  const shelf = madeBy(bars);
  const packed = await server.step({
    kind: 'pack',
    holdingId: shelf,
    pieces: 50,
    labelCode: 'OLD-1',
    bestBefore: '2027-06-01',
    packaging: [],
    note: '',
  });
  const trace = (await server.call('GET', '/api/trace/codes/OLD-1')).body as TraceView;
  expect(trace.composition).toMatchObject({ cocoaPct: 45, allergens: ['milk'], butterKnown: false });
  expect(server.workshop.valuation.worth(madeBy(packed, 'packed')).valueMilli).toBe(6_000_000);
  const mass = await server.step({
    ...base,
    what: 'mass',
    name: 'Running since Monday',
    routeId: 'straight-through',
    massG: 8000,
    value: 70,
    cocoaPct: 72,
    withoutButterPct: 70,
  });
  const batch = server.workshop.batches.get(madeBy(mass));
  expect(batch?.code).toMatch(/^B\d+$/);
  const bench = (await server.call('GET', '/api/grind/bench')).body as { grinds: { batch: { code: string } }[] };
  expect(bench.grinds.map((row) => row.batch.code)).toEqual([batch?.code]);
  expect((await server.call('GET', `/api/trace/batches/${batch?.code}`)).status).toBe(200);
  const nibs = await server.step({
    ...base,
    what: 'nibs',
    name: 'Last of the old sack',
    massG: 900,
    roasted: true,
    country: 'Fiji',
    value: 11,
  });
  const more = await server.step({
    kind: 'charge',
    batchId: batch?.id ?? '',
    sources: [{ holdingId: madeBy(nibs), massG: 900 }],
    note: '',
  });
  expect(more.overrides).toEqual([]);
  expect((await enter({ ...base, what: 'bars', name: 'Uncounted', massG: 500, value: 1 })).status).toBe(422);
  const { totals } = server.workshop.valuation;
  const value = [...server.workshop.book.live].reduce(
    (sum, id) => sum + server.workshop.valuation.worth(id).valueMilli,
    0,
  );
  expect(value + totals.soldMilli + totals.lostMilli).toBe(
    totals.boughtMilli + totals.labourMilli + totals.energyMilli,
  );
});
