import type { TrialView as AnyTrial } from '@wunsch/core/api/trials';
import type { ProgramView, RoasterView, TrialView } from '@wunsch/core/api/roast';
import type { Command } from '@wunsch/core/commands';
import { asProblem, lotCommand, madeBy, sortCommand, testServer, type TestServer } from '../harness';
import { FALLING, furnishKitchen, loadOf } from './kitchen';

let server: TestServer;
beforeAll(async () => {
  server = await testServer();
});
beforeEach(() => server.reset());
afterAll(() => server.close());

const programs = async (): Promise<ProgramView[]> =>
  ((await server.call('GET', '/api/roast/programs')).body as { programs: ProgramView[] }).programs;
const save = (program: object, headers: Record<string, string> = {}) =>
  server.call('POST', '/api/roast/programs', { personId: 'ann', program }, headers);

describe('roast programs', () => {
  it('every version stays readable; a stale screen is told, not obeyed', async () => {
    const { id } = (await save(FALLING)).body as { id: string };
    const warmer = { ...FALLING, steps: FALLING.steps.map((step) => ({ ...step, setC: step.setC + 4 })) };
    const url = `/api/roast/programs/${id}/versions`;
    expect((await server.call('POST', url, { personId: 'bo', program: warmer, after: 1 })).body).toEqual({
      id,
      version: 2,
    });
    const stale = await server.call('POST', url, { personId: 'ann', program: FALLING, after: 1 });
    expect(asProblem(stale)).toMatchObject({ code: 'roast/version', detail: expect.stringContaining('Version 2') });
    const { versions } = (await server.call('GET', `/api/roast/programs/${id}`)).body as {
      versions: { version: number; person: string; program: { steps: { setC: number }[] } }[];
    };
    expect(versions.map(({ version, person, program }) => [version, person, program.steps[0]?.setC])).toEqual([
      [1, 'Ann', 160],
      [2, 'Bo', 164],
    ]);
    await server.workshop.reload();
    expect(await programs()).toMatchObject([{ id, version: 2, versions: 2, shelved: false, loads: 0 }]);
  });

  it('pressed twice it is saved once; put aside it stays', async () => {
    await save(FALLING, { 'idempotency-key': 'twice' });
    await save(FALLING, { 'idempotency-key': 'twice' });
    const [only, ...others] = await programs();
    expect(others).toEqual([]);
    await server.call('POST', `/api/roast/programs/${only?.id}/shelve`, { personId: 'ann', shelved: true });
    expect(await programs()).toMatchObject([{ shelved: true }]);
  });

  it.each([
    ['no steps', { ...FALLING, steps: [] }, 'program.steps'],
    ['a step of no minutes', { ...FALLING, steps: [{ setC: 150, minutes: 0 }] }, 'program.steps.0.minutes'],
    ['a setting no roaster has', { ...FALLING, steps: [{ setC: 2000, minutes: 5 }] }, 'program.steps.0.setC'],
    ['no name', { ...FALLING, name: ' ' }, 'program.name'],
    ['nothing in it', { ...FALLING, loadG: 0 }, 'program.loadG'],
  ])('is refused: %s', async (_, program, path) => {
    const answer = await save(program);
    expect(answer.status).toBe(422);
    expect(asProblem(answer).errors.map((row) => row.path)).toContain(path);
    expect(await programs()).toEqual([]);
  });

  it('one that is not there is said to be so', async () => {
    expect((await server.call('GET', '/api/roast/programs/none')).status).toBe(404);
  });
});

describe('roasters', () => {
  it('say what they carry and what was validated; half a validation is refused', async () => {
    const { ovenId } = await furnishKitchen(server);
    const kill = { dMin: 1.5, zC: 12, refC: 110, wanted: 5, source: 'own study of May' };
    const body = { name: 'Oven', station: 'roast', minG: 1000, maxG: 7000, kw: 4 };
    const put = (roaster: object) => server.call('PUT', `/api/workshop/machines/${ovenId}`, { ...body, roaster });
    expect((await put({ kind: 'oven', kill })).status).toBe(200);
    const half = await put({ kind: 'oven', kill: { dMin: 1.5 } });
    expect(half.status).toBe(422);
    const { roasters } = (await server.call('GET', '/api/roast/roasters')).body as { roasters: RoasterView[] };
    expect(roasters).toMatchObject([{ name: 'Oven', maxG: 7000, facts: { kill }, loads: 0, curves: 0 }]);
  });
});

describe('loads and trials', () => {
  const roast = async (tubId: string, machineId: string, massG = 800): Promise<string> => {
    const step = await server.step(
      {
        kind: 'roast',
        sources: [{ holdingId: tubId, massG }],
        program: [],
        endBeanC: 120,
        outG: massG * 0.94,
        note: '',
      },
      { machineId },
    );
    return step.lines.find(({ code, massMg }) => code !== null && massMg > 0)?.code ?? '';
  };

  it('a trial takes loads of its lot only, each once, and says what the panel found', async () => {
    const kitchen = await furnishKitchen(server);
    const cells = [
      { peakC: 114, minutes: 20 },
      { peakC: 122, minutes: 20 },
    ];
    const trial = { name: 'First roasts', lotId: kitchen.lotId, roasterId: kitchen.ovenId, loadG: 800, cells };
    const { id } = (await server.call('POST', '/api/roast/trials', { personId: 'ann', trial })).body as { id: string };
    const add = (cell: number, code: string) =>
      server.call('POST', `/api/roast/trials/${id}/loads`, { personId: 'ann', cell, code });
    const [cool, warm] = [await roast(kitchen.tubId, kitchen.ovenId), await roast(kitchen.tubId, kitchen.ovenId)];
    expect((await add(0, cool)).status).toBe(201);
    expect(asProblem(await add(1, cool)).code).toBe('roast/in-trial');
    expect(asProblem(await add(7, warm)).code).toBe('roast/no-cell');
    await add(1, warm);
    for (const [code, score] of [
      [cool, 5],
      [warm, 8],
    ] as const)
      await server.call('POST', `/api/roast/loads/${code}/scores`, { personId: 'bo', score });
    const view = (await server.call('GET', `/api/roast/trials/${id}`)).body as TrialView;
    // It is a trial like any other, with the same loads and scores.
    const all = (await server.call('GET', `/api/trials/${id}`)).body as AnyTrial;
    expect(all.made.map(({ arm, code, scores }) => [arm, code, scores])).toEqual(
      view.loads.map(({ cell, code, scores }) => [cell, code, scores]),
    );
    expect(all.verdict.sentence).toBe(view.verdict.sentence);
    expect(view.loads.map(({ cell, scores }) => [cell, scores])).toEqual([
      [0, [5]],
      [1, [8]],
    ]);
    expect(view.verdict.sentence).toMatch(/Roast 2 is likely the best of them.*2 loads are tasted/);
    const bad = await server.call('POST', `/api/roast/loads/${warm}/scores`, { personId: 'bo', score: 11 });
    expect(asProblem(bad).errors).toMatchObject([{ path: 'score', message: 'is 0 to 10' }]);

    const other = madeBy(await server.step({ ...lotCommand(9000), country: 'Fiji' } as Command));
    const sorted = madeBy(await server.step(sortCommand(other, 2000, 1950)));
    expect(asProblem(await add(1, await roast(sorted, kitchen.ovenId))).code).toBe('roast/other-lot');
  });

  it('a judgement can be overruled with a word, and the word stays', async () => {
    const { tubId, ovenId } = await furnishKitchen(server);
    const code = await roast(tubId, ovenId);
    await server.call('POST', `/api/roast/loads/${code}/words`, { personId: 'bo', word: 'The probe had slipped.' });
    expect((await loadOf(server, code)).words).toMatchObject([{ word: 'The probe had slipped.', person: 'Bo' }]);
  });

  it('is held against loads like it: same beans, same roaster, same program', async () => {
    const { tubId, ovenId } = await furnishKitchen(server);
    const other = (
      (await server.call('POST', '/api/workshop/machines', { name: 'Drum', station: 'roast' })).body as { id: string }
    ).id;
    for (let i = 0; i < 3; i += 1) await roast(tubId, ovenId);
    await roast(tubId, other);
    expect((await loadOf(server, await roast(tubId, ovenId))).past).toMatchObject({
      n: 3,
      mean: expect.closeTo(0.94, 6),
    });
    expect((await loadOf(server, await roast(tubId, other))).past).toBeNull();
  });

  it('loads that were winnowed together are one fill', async () => {
    const { tubId, ovenId } = await furnishKitchen(server);
    const codes = [await roast(tubId, ovenId), await roast(tubId, ovenId), await roast(tubId, ovenId)];
    expect((await loadOf(server, codes[0] ?? '')).fill).toEqual(codes);
    const ids = await Promise.all(codes.slice(0, 2).map(async (code) => (await loadOf(server, code)).loadId));
    await server.step({
      kind: 'winnow',
      sources: ids.map((holdingId) => ({ holdingId, massG: 752 })),
      nibsG: 1220,
      huskG: 260,
      dustG: 10,
      note: '',
    } as never);
    const view = await loadOf(server, codes[0] ?? '');
    expect(view.fill).toEqual(codes.slice(0, 2));
    expect(view.winnow?.nibYield).toBeCloseTo(1220 / 1504, 6);
    // The third still stands alone.
    expect(await loadOf(server, codes[2] ?? '')).toMatchObject({ fill: [codes[2]], fillOf: null, winnow: null });
  });

  it('what is no roast load is said to be none', async () => {
    const { tub } = await furnishKitchen(server);
    expect(asProblem(await server.call('GET', `/api/roast/loads/${tub}`)).code).toBe('roast/no-load');
    expect(asProblem(await server.call('GET', '/api/roast/loads/T999')).code).toBe('roast/no-load');
  });
});
