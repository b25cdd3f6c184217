import type { CurvePreviewView, LoadRow } from '@wunsch/core/api/roast';
import { exportWorkshop } from '../../src/journal/export';
import { asProblem, testServer, type Answer, type TestServer } from '../harness';
import { furnishKitchen, loadOf } from './kitchen';

let server: TestServer;
beforeAll(async () => {
  server = await testServer();
});
beforeEach(() => server.reset());
afterAll(() => server.close());

/** Ten minutes in °F with a clock, through midnight. */
const LOGGED = [
  'Time;Bean Temp (°F);Oven Temp (°F)',
  ...Array.from({ length: 61 }, (_, i) => {
    const second = 86_400 - 300 + i * 10;
    const part = (value: number): string => String(Math.floor(value)).padStart(2, '0');
    return `${part((second / 3600) % 24)}:${part((second / 60) % 60)}:${part(second % 60)};${70 + 3 * i};300`;
  }),
].join('\n');

/** A load entered afterwards, without a curve. */
async function load(): Promise<string> {
  const { tubId, ovenId } = await furnishKitchen(server);
  const step = await server.step(
    {
      kind: 'roast',
      sources: [{ holdingId: tubId, massG: 5000 }],
      program: [{ setC: 150, minutes: 10, note: '' }],
      endBeanC: 121,
      outG: 4720,
      note: '',
    },
    { machineId: ovenId },
  );
  return step.lines.find(({ code, massMg }) => code !== null && massMg > 0)?.code ?? '';
}
const give = (code: string, text: string, more: object = {}): Promise<Answer> =>
  server.call('POST', `/api/roast/loads/${code}/curve`, { text, personId: 'ann', ...more });

describe('curves in', () => {
  it('°F and a clock are recognised, shown, and taken in as °C and seconds', async () => {
    const code = await load();
    const preview = (await server.call('POST', '/api/roast/curves/preview', { text: LOGGED })).body as CurvePreviewView;
    expect(preview).toMatchObject({
      mapping: { roles: ['time', 'bean', 'air'], time: 'clock', unit: 'F' },
      rows: 61,
      badCount: 0,
      minutes: 10,
      startsAt: '23:55:00',
    });
    expect((await loadOf(server, code)).curve).toBe(false);
    expect((await give(code, LOGGED)).status).toBe(201);
    const view = await loadOf(server, code);
    expect(view).toMatchObject({ curve: true, source: 'file', minutes: 10 });
    expect(view.curveData?.seconds.slice(0, 3)).toEqual([0, 10, 20]);
    expect(view.curveData?.beanC[60]).toBeCloseTo(((250 - 32) * 5) / 9, 1);
    const logged = (await server.call('GET', `/api/roast/roasters/${view.machineId}/loads`)).body as {
      loads: { code: string; weightLeft: number }[];
    };
    expect(logged.loads).toMatchObject([{ code, weightLeft: 0.944 }]);
  });

  it('bad rows are named and nothing is taken in; asked to, it leaves them out', async () => {
    const code = await load();
    const broken = LOGGED.replace(/^(23:57:00;)\d+/m, '$1hot');
    const refused = await give(code, broken);
    expect(asProblem(refused)).toMatchObject({
      code: 'roast/bad-rows',
      errors: [{ message: '“hot” is not a temperature' }],
    });
    expect((await loadOf(server, code)).curve).toBe(false);
    expect((await give(code, broken, { leaveOut: true })).body).toEqual({ readings: 60, leftOut: 1 });
  });

  it.each([
    ['no table', 'hello there', 'roast/no-table'],
    ['no time', 'bean;air\n100;140\n101;141', 'roast/no-temperature'],
    ['quotes that never close', '"a;b\n1;2', 'roast/broken-csv'],
  ])('is refused: %s', async (_, text, problemCode) => {
    const answer = await server.call('POST', '/api/roast/curves/preview', {
      text,
      ...(problemCode === 'roast/no-temperature' ? { mapping: { roles: ['time', 'none'] } } : {}),
    });
    expect(answer.status).toBe(422);
    expect(asProblem(answer).code).toBe(problemCode);
  });

  it('a curve is not replaced; one from a file can be taken off, one that was logged cannot', async () => {
    const code = await load();
    await give(code, LOGGED);
    expect(asProblem(await give(code, LOGGED)).code).toBe('roast/has-curve');
    expect((await server.call('DELETE', `/api/roast/loads/${code}/curve`)).status).toBe(200);
    expect((await loadOf(server, code)).curve).toBe(false);
    expect(asProblem(await server.call('DELETE', `/api/roast/loads/${code}/curve`)).code).toBe('roast/no-curve');
    expect((await give(code, LOGGED)).status).toBe(201);
    const meta = server.workshop.roasts.curveOf((await loadOf(server, code)).loadId);
    if (!meta) throw new Error('no curve');
    server.workshop.roasts.addCurve({ ...meta, source: 'sent' });
    expect(asProblem(await server.call('DELETE', `/api/roast/loads/${code}/curve`)).code).toBe('roast/logged-curve');
  });

  it('a hundred thousand rows are taken in, and more are refused', async () => {
    const code = await load();
    const rows = Array.from({ length: 100_000 }, (_, i) => `${i / 10},${(20 + i / 1000).toFixed(1)},150`);
    expect((await give(code, `seconds,bean,air\n${rows.join('\n')}`)).status).toBe(201);
    const view = await loadOf(server, code);
    expect(view.curveData?.seconds.length).toBeLessThanOrEqual(4100);
    const longer = await server.call('POST', '/api/roast/curves/preview', {
      text: `seconds,bean\n${Array.from({ length: 100_200 }, (_, i) => `${i},50`).join('\n')}`,
    });
    expect(asProblem(longer).code).toMatch(/roast\/(long-csv|broken-csv)/);
  });
});

describe('curves out', () => {
  it('CSV comes in again as it went out; JSON can be thinned', async () => {
    const code = await load();
    await give(code, LOGGED);
    const table = await server.call('GET', `/api/roast/loads/${code}/curve.csv`);
    expect(table.headers['content-type']).toContain('text/csv');
    const again = (await server.call('POST', '/api/roast/curves/preview', { text: table.body }))
      .body as CurvePreviewView;
    expect(again).toMatchObject({ rows: 61, mapping: { unit: 'C', time: 'seconds' } });
    const thinned = (await server.call('GET', `/api/roast/loads/${code}/curve.json?points=10`)).body as {
      seconds: number[];
    };
    expect(thinned.seconds.length).toBeLessThanOrEqual(10);
    expect(thinned.seconds[0]).toBe(0);
    expect(thinned.seconds.at(-1)).toBe(600);
  });

  it('the whole workshop goes out and comes back to the same bytes, curves and programs with it', async () => {
    const code = await load();
    await give(code, LOGGED);
    await server.call('POST', `/api/roast/loads/${code}/scores`, { personId: 'bo', score: 7.5 });
    const whole = await exportWorkshop(server.workshop);
    await server.workshop.empty();
    expect((await server.call('POST', '/api/workshop/restore', whole)).status).toBe(201);
    expect(await exportWorkshop(server.workshop)).toBe(whole);
    expect((await loadOf(server, code)).curveData?.seconds).toHaveLength(61);
    const { loads } = (await server.call('GET', '/api/roast/loads')).body as { loads: LoadRow[] };
    expect(loads).toMatchObject([{ code, score: 7.5, curve: true }]);
  });

  it('a correction of its weights keeps the load its curve', async () => {
    const code = await load();
    await give(code, LOGGED);
    const { stepId } = await loadOf(server, code);
    const { step } = (await server.call('GET', `/api/ledger/steps/${stepId}`)).body as { step: { command: object } };
    const corrected = await server.call('POST', `/api/ledger/steps/${stepId}/correct`, {
      command: { ...step.command, outG: 4650 },
      personId: 'bo',
      reason: 'tare was on',
    });
    expect(corrected.status).toBe(201);
    expect(await loadOf(server, code)).toMatchObject({ weightLeft: 0.93, curve: true, person: 'Bo' });
  });
});
