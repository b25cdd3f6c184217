import type { PantryView, RecipeView, WeighingView } from '@wunsch/core/api/recipe';
import type { Answer as Solved } from '@wunsch/core/recipe/solve';
import { asProblem, lotCommand, madeBy, testServer, type TestServer } from './harness';

let server: TestServer;
let clock = Date.UTC(2026, 8, 1, 8);
const HOUR = 3_600_000;

beforeAll(async () => {
  server = await testServer(() => clock);
});
afterAll(() => server.close());
beforeEach(async () => {
  await server.reset();
  server.workshop.putMachine({
    id: 'stone',
    name: 'Ten kilo stone',
    station: 'grind',
    minG: 4000,
    maxG: 10_000,
    kw: 0.4,
  });
});

const post = async <T>(url: string, body: object): Promise<{ status: number; body: T }> => {
  const { status, body: answer } = await server.call('POST', url, { personId: 'ann', ...body });
  return { status, body: answer as T };
};

/** Two part sacks of nibs of one lot each and two purchases of sugar. */
async function pantry(): Promise<{
  nibs: string;
  second: string;
  sugar: string;
  older: string;
  codes: Record<string, string>;
}> {
  const nibs = madeBy(
    await server.step({
      ...lotCommand(),
      name: 'Alpha',
      form: 'nibs',
      roasted: true,
      routeId: 'from-nibs',
      netG: 4300,
    } as never),
  );
  clock += HOUR;
  const second = madeBy(
    await server.step({
      ...lotCommand(),
      name: 'Beta',
      form: 'nibs',
      roasted: true,
      routeId: 'from-nibs',
      netG: 3100,
    } as never),
  );
  const buy = async (massG: number, bestBefore: string | null) =>
    madeBy(
      await server.step({
        kind: 'buy',
        materialId: 'sugar',
        supplier: 'Mill',
        supplierBatch: 'a',
        massG,
        price: massG / 500,
        note: '',
        bestBefore,
      } as never),
    );
  const sugar = await buy(2000, null);
  clock += HOUR;
  const older = await buy(1500, '2026-12-01');
  const code = (id: string): string => server.workshop.book.holding(id).code;
  return {
    nibs,
    second,
    sugar,
    older,
    codes: { nibs: code(nibs), second: code(second), sugar: code(sugar), older: code(older) },
  };
}

const RECIPE = {
  name: 'Alpha 72',
  kind: 'two-ingredient',
  labelPct: 72,
  routeId: 'from-nibs',
  machineId: 'stone',
  lines: [
    { ingredient: 'nibs', grams: 7200 },
    { ingredient: 'sugar', grams: 2800 },
  ],
  limits: [{ of: 'cocoa', aim: 72 }],
  stepG: 1,
};

test('72 % for the ten kilo stone from two part sacks and two bags, what keeps least first', async () => {
  const { codes } = await pantry();
  const { status, body } = await post<
    Solved & { lines: { id: string; grams: number; from: { code: string; grams: number }[] }[] }
  >('/api/calc/recipe/solve', {
    ingredients: ['nibs', 'sugar'],
    limits: [{ of: 'cocoa', aim: 72 }],
    machineId: 'stone',
    size: { grams: 10_000 },
  });
  expect(status).toBe(200);
  expect(body.outcome).toBe('met');
  expect(body.lines[0]?.from).toEqual([
    expect.objectContaining({ code: codes['nibs'], grams: 4300 }),
    expect.objectContaining({ code: codes['second'], grams: 2900 }),
  ]);
  // The bag that keeps to December before the older one that nobody dated.
  expect(body.lines[1]?.from.map(({ code }) => code)).toEqual([codes['older'], codes['sugar']]);
});

test('a batch that the stock does not give: the limits that contradict each other, in words', async () => {
  await pantry();
  const { body } = await post<Solved>('/api/calc/recipe/solve', {
    ingredients: ['nibs', 'sugar'],
    limits: [{ of: 'cocoa', least: 80 }],
    machineId: 'stone',
    size: { grams: 10_000 },
  });
  expect(body.outcome).toBe('contradiction');
  expect(body.conflict.map(({ id }) => id).sort()).toEqual(['cocoa:least', 'size', 'stock:nibs']);
});

test('bad input is refused at its field', async () => {
  await pantry();
  const ask = async (more: object) =>
    asProblem(await server.call('POST', '/api/calc/recipe/solve', { ingredients: ['nibs', 'sugar'], ...more }));
  expect((await ask({ limits: [{ of: 'cocoa', least: 80, most: 70 }] })).errors[0]?.path).toBe('limits.0.least');
  expect((await ask({ limits: [{ of: 'colour', aim: 3 }] })).errors[0]?.path).toBe('limits.0.of');
  expect((await ask({ ingredients: ['nobody'] })).code).toBe('recipe/unknown-ingredient');
  const material = async (more: object) =>
    server.call('POST', '/api/workshop/materials', { name: 'Odd', kind: 'ingredient', ...more });
  expect(asProblem(await material({ pricePerKg: -1 })).errors[0]?.path).toBe('pricePerKg');
  expect(asProblem(await material({ contents: [{ contents: { fatPct: 120 } }] })).errors[0]?.path).toBe(
    'contents.0.contents.fatPct',
  );
  expect(asProblem(await material({ contents: [{ contents: { fatPct: 60, sugarPct: 60 } }] })).errors[0]?.path).toBe(
    'contents.0.contents.fatPct',
  );
  const { body } = await server.call('POST', '/api/workshop/materials', {
    name: 'Praline',
    kind: 'ingredient',
    madeOf: [{ materialId: 'sugar', pct: 100 }],
  });
  const { id } = body as { id: string };
  const self = await server.call('PUT', `/api/workshop/materials/${id}`, {
    name: 'Praline',
    kind: 'ingredient',
    madeOf: [{ materialId: id, pct: 100 }],
  });
  expect(asProblem(self).code).toBe('recipe/contains-itself');
});

test('a recipe is kept in versions, and says what changed and what that did', async () => {
  await pantry();
  const { status, body } = await post<{ id: string }>('/api/recipe/recipes', { recipe: RECIPE });
  expect(status).toBe(201);
  const url = `/api/recipe/recipes/${body.id}`;
  const next = {
    ...RECIPE,
    lines: [
      { ingredient: 'nibs', grams: 7000 },
      { ingredient: 'sugar', grams: 3000 },
    ],
  };
  expect((await post(`${url}/versions`, { recipe: next, after: 1, why: 'too bitter' })).status).toBe(201);
  expect(
    asProblem(await server.call('POST', `${url}/versions`, { personId: 'ann', recipe: next, after: 1 })).code,
  ).toBe('recipe/version');
  const view = (await server.call('GET', url)).body as RecipeView;
  expect(view.versions.map(({ version }) => version)).toEqual([2, 1]);
  expect(view.versions[0]?.changes).toEqual(['Nibs 72.0 % → 70.0 %', 'Sugar 28.0 % → 30.0 %']);
  expect(view.versions[0]?.effects.map(({ words }) => words)).toContain('Cocoa 72 % → 70 %');
  expect(
    asProblem(await server.call('POST', '/api/recipe/recipes', { personId: 'ann', recipe: RECIPE })).errors[0]?.path,
  ).toBe('recipe.name');
});

async function weighing(lines = RECIPE.lines): Promise<WeighingView & { url: string }> {
  const { body: made } = await post<{ id: string }>('/api/recipe/recipes', { recipe: { ...RECIPE, lines } });
  const { status, body } = await post<WeighingView>('/api/recipe/weighings', {
    recipe: { id: made.id, version: 1 },
    name: 'Alpha 72',
    machineId: 'stone',
    routeId: 'from-nibs',
    lines,
  });
  expect(status).toBe(201);
  return { ...body, url: `/api/recipe/weighings/${body.id}` };
}

test('a weighing run: the wrong tub is stopped, an overshoot raises the rest, the bowl gets what was weighed', async () => {
  const { codes, nibs } = await pantry();
  const { url } = await weighing([
    { ingredient: 'nibs', grams: 5000 },
    { ingredient: 'sugar', grams: 1944 },
  ]);
  const weigh = (ingredient: string, code: string | undefined, massG: number) =>
    post<WeighingView>(`${url}/weighed`, { ingredient, code, massG, by: 'scale' });
  const wrong = asProblem(
    await server.call('POST', `${url}/weighed`, {
      personId: 'ann',
      ingredient: 'sugar',
      code: codes['nibs'],
      massG: 100,
    }),
  );
  expect(wrong.code).toBe('recipe/wrong-tub');
  expect(wrong.detail).toContain('Alpha, not Sugar');
  await weigh('nibs', codes['nibs'], 4300);
  // What stands on the bench is taken: nobody else can have it.
  expect(server.workshop.reserved().get(nibs)).toBe(4_300_000);
  expect(
    asProblem(
      await server.call('POST', `${url}/weighed`, {
        personId: 'ann',
        ingredient: 'nibs',
        code: codes['nibs'],
        massG: 1,
      }),
    ).code,
  ).toBe('ledger/short');
  await weigh('nibs', codes['second'], 700);
  // 200 g of sugar too many: 5.514 kg of nibs keep the share.
  const over = await weigh('sugar', codes['sugar'], 1970);
  expect(over.body.lines.map(({ state }) => state)).toEqual(['done', 'over']);
  const replanned = await post<WeighingView & { outcome: string }>(`${url}/replan`, {});
  expect(replanned.body.outcome).toBe('met');
  expect(replanned.body.lines[0]?.plannedG).toBe(5067);
  expect(replanned.body.planned.cocoaPct).toBeCloseTo(72, 1);
  await weigh('nibs', codes['second'], 67);
  const done = await post<{ step: { batchCode: string; inMg: number }; weighing: WeighingView }>(`${url}/finish`, {
    minutes: 12,
  });
  expect(done.status).toBe(201);
  expect(done.body.step.inMg).toBe(7_037_000);
  expect(done.body.weighing.stepBatchCode).toBe(done.body.step.batchCode);
  expect(server.workshop.reserved().size).toBe(0);
  const batch = [...server.workshop.batches.values()][0];
  expect(batch?.recipe?.version).toBe(1);
  expect(batch?.cocoaTargetPct).toBe(72);
  expect(asProblem(await server.call('POST', `${url}/finish`, { personId: 'ann' })).code).toBe('work/closed');
});

test('a weighing that is taken back frees its tub; one that is put back leaves nothing', async () => {
  const { codes, nibs } = await pantry();
  const { url } = await weighing();
  const { body } = await post<WeighingView>(`${url}/weighed`, { ingredient: 'nibs', code: codes['nibs'], massG: 4000 });
  await post(`${url}/undo`, { recordId: body.lines[0]?.weighed[0]?.recordId });
  expect(server.workshop.reserved().get(nibs)).toBeUndefined();
  await post(`${url}/weighed`, { ingredient: 'nibs', code: codes['nibs'], massG: 100 });
  await post(`${url}/put-back`, {});
  expect(server.workshop.reserved().size).toBe(0);
  expect(((await server.call('GET', '/api/recipe/weighings')).body as { weighings: unknown[] }).weighings).toEqual([]);
});

test('butter in late: what the bowl is now, that the label does not hold, and what would restore it', async () => {
  await pantry();
  const { url } = await weighing([
    { ingredient: 'nibs', grams: 4000 },
    { ingredient: 'sugar', grams: 1556 },
  ]);
  const stock = ((await server.call('GET', '/api/recipe/pantry')).body as PantryView).rows;
  const tub = (id: string): string => stock.find((row) => row.id === id)?.stock[0]?.code ?? '';
  await post(`${url}/weighed`, { ingredient: 'nibs', code: tub('nibs'), massG: 4000 });
  await post(`${url}/weighed`, { ingredient: 'sugar', code: tub('sugar'), massG: 1500 });
  const { body: finished } = await post<{ step: { id: string } }>(`${url}/finish`, {});
  expect(finished.step).toBeDefined();
  const batch = [...server.workshop.batches.values()][0];
  clock += HOUR;
  const more = madeBy(
    await server.step({
      kind: 'buy',
      materialId: 'sugar',
      supplier: 'Mill',
      supplierBatch: 'b',
      massG: 900,
      price: 2,
      note: '',
    } as never),
  );
  await server.step({
    kind: 'charge',
    batchId: batch?.id ?? '',
    sources: [{ holdingId: more, massG: 300 }],
    note: '',
  } as never);
  const bowl = (await server.call('GET', `/api/recipe/bowls/${batch?.id}`)).body as {
    label: { tone: string; sentence: string };
    figures: { cocoaPct: number };
  };
  expect(bowl.figures.cocoaPct).toBeCloseTo((100 * 4000) / 5800, 1);
  expect(bowl.label.tone).toBe('watch');
  const { body } = await post<Solved>('/api/calc/recipe/correct', {
    batchId: batch?.id,
    ingredients: ['nibs', 'sugar'],
    limits: [{ of: 'cocoa', least: 72 }],
  });
  // 4000 + x of 5800 + x are 72 %: x = 629.
  expect(body.lines.find(({ id }) => id === 'nibs')?.grams).toBeCloseTo(629, -0.5);
  expect(body.lines.find(({ id }) => id === 'bowl')?.grams).toBe(5800);
});

test('recipes, ladders and runs survive an export and a restore, to the same bytes', async () => {
  const { codes } = await pantry();
  const { url } = await weighing();
  await post(`${url}/weighed`, { ingredient: 'nibs', code: codes['nibs'], massG: 4000 });
  const before = (await server.call('GET', '/api/workshop/export.json')).body;
  await server.workshop.empty();
  server.workshop.routes.clear();
  const restored = await server.call('POST', '/api/workshop/restore', before);
  expect(restored.status).toBe(201);
  expect((await server.call('GET', '/api/workshop/export.json')).body).toEqual(before);
});

test('measured fat of a lot’s nibs and the day an ingredient changed decide what goods are', async () => {
  const { nibs } = await pantry();
  const fat = async (): Promise<number> =>
    ((await server.call('GET', '/api/recipe/pantry')).body as PantryView).rows.find(({ id }) => id === `lot:${nibs}`)
      ?.contents?.fatPct ?? 0;
  expect(await fat()).toBe(53);
  const kept = await server.call('POST', `/api/beans/lots/${server.workshop.book.holding(nibs).code}/records`, {
    personId: 'ann',
    record: { kind: 'nib-fat', fatPct: 49.5, how: 'laboratory' },
  });
  expect(kept.status).toBe(201);
  expect(await fat()).toBe(49.5);
});

test('a sheet to weigh by is a PDF', async () => {
  await pantry();
  const { body } = await post<{ id: string }>('/api/recipe/recipes', { recipe: RECIPE });
  const { status, headers } = await server.call('GET', `/api/recipe/recipes/${body.id}/sheet.pdf?grams=5000`);
  expect(status).toBe(200);
  expect(headers['content-type']).toBe('application/pdf');
});
