import type { CorrectionPreview, StepView } from '@wunsch/core/api/types';
import type { CommandOf } from '@wunsch/core/commands';
import { exportWorkshop } from '../src/journal/export';
import { asProblem, lotCommand, madeBy, sortCommand, testServer, type TestServer } from './harness';
import { chargeCommand, dischargeCommand } from '../../core/test/commands';

let server: TestServer;
beforeAll(async () => {
  server = await testServer();
});
beforeEach(() => server.reset());
afterAll(() => server.close());

const roastCommand = (holdingId: string, inG: number, outG: number) => ({
  kind: 'roast' as const,
  sources: [{ holdingId, massG: inG }],
  program: [],
  endBeanC: null,
  outG,
  note: '',
});

/** A receipt, all of it sorted, all of that roasted. */
async function chain(): Promise<{ lot: StepView; sorted: StepView; roasted: StepView }> {
  const lot = await server.step(lotCommand(10_000));
  const sorted = await server.step(sortCommand(madeBy(lot), 10_000, 9_800));
  const roasted = await server.step(roastCommand(madeBy(sorted), 9_800, 9_200));
  return { lot, sorted, roasted };
}

const head = (step: StepView) => ({ personId: 'bo', at: new Date(step.at).toISOString() });

test('a wrong weight three steps back: shown with all it reaches, entered all together or not at all', async () => {
  const { lot, sorted, roasted } = await chain();
  const body = { ...head(lot), command: lotCommand(8_500), reason: 'tare forgotten' };
  const alone = await server.call('POST', `/api/ledger/steps/${lot.id}/correct`, body);
  expect(asProblem(alone)).toMatchObject({ code: 'ledger/used-since', facts: { stepIds: [sorted.id] } });

  const asked = await server.call('POST', `/api/ledger/steps/${lot.id}/preview`, body);
  expect(asked.status).toBe(200);
  const preview = asked.body as CorrectionPreview;
  // Sorting took all of the lot, so it takes all of it again; but 9.8 kg do not come out of 8.5 kg.
  expect(preview.steps).toHaveLength(1);
  expect((preview.steps[0]?.command as CommandOf<'sort'>).sources[0]?.massG).toBe(8_500);
  expect(preview.steps[0]?.problem).toMatch(/went in but/);
  expect(preview.problem).not.toBeNull();

  const along = [{ stepId: sorted.id, command: sortCommand(madeBy(lot), 8_500, 8_330) }];
  const second = (await server.call('POST', `/api/ledger/steps/${lot.id}/preview`, { ...body, along }))
    .body as CorrectionPreview;
  expect(second.steps.map(({ before, problem }) => [before.kind, problem === null])).toEqual([
    ['sort', true],
    ['roast', false],
  ]);

  const both = [...along, { stepId: roasted.id, command: roastCommand(madeBy(sorted), 8_330, 7_820) }];
  const refused = await server.call('POST', `/api/ledger/steps/${lot.id}/correct`, { ...body, along });
  expect(refused.status).toBe(422);
  expect(server.workshop.book.steps.size).toBe(3);
  const whole = await server.call('POST', `/api/ledger/steps/${lot.id}/correct`, { ...body, along: both });
  expect(whole.status).toBe(201);
  expect(server.workshop.book.steps.size).toBe(6);
  expect(server.workshop.book.balance(madeBy(lot)).massMg).toBe(0);
  expect(server.workshop.book.balance(madeBy(sorted)).massMg).toBe(0);
  expect(server.workshop.book.balance(madeBy(roasted)).massMg).toBe(7_820_000);
});

test('a preview enters nothing and uses up no codes', async () => {
  const { lot } = await chain();
  const before = await exportWorkshop(server.workshop);
  await server.call('POST', `/api/ledger/steps/${lot.id}/preview`, { ...head(lot), command: lotCommand(8_500) });
  expect(await exportWorkshop(server.workshop)).toBe(before);
});

test('a corrected charge behind an emptying survives export and restore', async () => {
  const lot = await server.step({ ...(lotCommand(10_000) as CommandOf<'receive'>), form: 'nibs' });
  const charge = await server.step(chargeCommand([{ holdingId: madeBy(lot), massG: 5_000 }]));
  await server.step(dischargeCommand(madeBy(charge), 4_900));
  const corrected = await server.call('POST', `/api/ledger/steps/${charge.id}/correct`, {
    ...head(charge),
    command: {
      kind: 'charge',
      batchId: madeBy(charge),
      sources: [{ holdingId: madeBy(lot), massG: 4_950 }],
      note: '',
    },
    reason: 'weighed again',
  });
  expect(corrected.status).toBe(201);
  const exported = await exportWorkshop(server.workshop);
  const other = await testServer();
  try {
    await other.workshop.empty();
    const restored = await other.call('POST', '/api/workshop/restore', exported);
    expect(restored.body).toMatchObject({ steps: server.workshop.book.steps.size });
    expect(await exportWorkshop(other.workshop)).toBe(exported);
  } finally {
    await other.close();
  }
});

test('a late entry is costed at the wage of its day', async () => {
  const settings = { ...server.workshop.settings };
  const { demo: _, earlierRates: _r, ...body } = settings;
  const change = (wagePerHour: number, ratesFrom: string) =>
    server.call('PUT', '/api/workshop/settings', { ...body, wagePerHour, ratesFrom });
  expect((await change(20, '2026-05-01')).status).toBe(200);
  const before = await server.step(lotCommand(1_000), { at: '2026-04-30T10:00:00Z', minutes: 60 });
  const after = await server.step(lotCommand(1_000), { at: '2026-05-01T10:00:00Z', minutes: 60 });
  expect(before.cost.labourMilli).toBe(settings.wagePerHour * 100_000);
  expect(after.cost.labourMilli).toBe(2_000_000);
});

test('a later step that is corrected along may make what it had not made before', async () => {
  const lot = await server.step(lotCommand(10_000));
  const winnow = (huskG: number, nibsG: number, massG: number) => ({
    kind: 'winnow' as const,
    sources: [{ holdingId: madeBy(lot), massG }],
    nibsG,
    huskG,
    dustG: 0,
    setting: '',
    note: '',
  });
  const nibs = await server.step(winnow(0, 8_000, 10_000));
  const whole = await server.call('POST', `/api/ledger/steps/${lot.id}/correct`, {
    ...head(lot),
    command: lotCommand(9_500),
    reason: 'tare forgotten',
    along: [{ stepId: nibs.id, command: winnow(1_200, 8_000, 9_500) }],
  });
  expect(whole.status).toBe(201);
  const { steps } = (await server.call('GET', '/api/ledger/steps?station=winnow')).body as { steps: StepView[] };
  const husk = steps[0]?.lines.find(({ kind }) => kind === 'husk');
  expect(husk).toMatchObject({ massMg: 1_200_000 });
  expect((await server.call('GET', `/api/trace/codes/${husk?.code}`)).status).toBe(200);
  await server.workshop.reload();
  expect((await server.call('GET', `/api/trace/codes/${husk?.code}`)).status).toBe(200);
});

test('a charge taken back under what was poured from it is refused, and nothing of it is entered', async () => {
  const lot = await server.step({ ...(lotCommand(10_000) as CommandOf<'receive'>), form: 'nibs' });
  const charge = await server.step(chargeCommand([{ holdingId: madeBy(lot), massG: 5_000 }]));
  const poured = await server.step(dischargeCommand(madeBy(charge), 4_950));
  const before = await exportWorkshop(server.workshop);
  const back = await server.call('POST', `/api/ledger/steps/${charge.id}/withdraw`, {
    personId: 'ann',
    reason: 'wrong bowl',
  });
  expect(asProblem(back)).toMatchObject({ code: 'ledger/later-step', facts: { stepIds: [poured.id] } });
  expect(await exportWorkshop(server.workshop)).toBe(before);
});
