import type { LiveView, LoadView } from '@wunsch/core/api/roast';
import type { WorkView } from '@wunsch/core/api/types';
import { READY_MADE } from '@wunsch/core/roast/ready-made';
import type { Program } from '@wunsch/core/roast/records';
import { lotCommand, madeBy, sortCommand, type Answer, type TestServer } from '../harness';

export const FALLING: Program = {
  ...(READY_MADE[0] as Program),
  name: 'House, falling',
  steps: [
    { setC: 160, minutes: 6, until: null, note: '' },
    { setC: 145, minutes: 8, until: null, note: '' },
    { setC: 130, minutes: 10, until: { what: 'bean', beanC: 118 }, note: '' },
  ],
};

/** A sorted tub of 20 kg and an oven that holds 8. @returns their ids and the tub's code */
export async function furnishKitchen(
  server: TestServer,
  roaster: object = {},
): Promise<{ tubId: string; tub: string; ovenId: string; lotId: string }> {
  const lotId = madeBy(await server.step(lotCommand(60_000)));
  await server.call('POST', '/api/beans/lots/L001/records', {
    personId: 'ann',
    record: { kind: 'decision', action: 'take in', proposed: 'take in' },
  });
  const sorted = await server.step(sortCommand(lotId, 20_400, 20_000));
  const { body } = await server.call('POST', '/api/workshop/machines', {
    name: 'Oven',
    station: 'roast',
    minG: 1000,
    maxG: 8000,
    kw: 4,
    roaster: { kind: 'oven', trays: 3, trayCm2: 2400, ...roaster },
  });
  const tubId = madeBy(sorted);
  return { tubId, tub: server.workshop.book.holding(tubId).code, ovenId: (body as { id: string }).id, lotId };
}

export async function startRoast(
  server: TestServer,
  { tubId, ovenId }: { tubId: string; ovenId: string },
  roast: object,
  massG = 5000,
): Promise<WorkView> {
  const answer = await server.call('POST', '/api/ledger/works', {
    station: 'roast',
    sources: [{ holdingId: tubId, massG }],
    machineId: ovenId,
    personId: 'ann',
    roast,
  });
  if (answer.status !== 201) throw new Error(JSON.stringify(answer.body));
  return answer.body as WorkView;
}

export const press = (server: TestServer, workId: string, name: string, body: object = {}): Promise<Answer> =>
  server.call('POST', `/api/roast/live/${workId}/${name}`, body);

export const liveOf = async (server: TestServer, workId: string): Promise<LiveView> =>
  (await server.call('GET', `/api/roast/live/${workId}`)).body as LiveView;

/** Weighs a live roast out. @returns the code of the load */
export async function weighOut(
  server: TestServer,
  workId: string,
  tubId: string,
  outG: number,
  massG = 5000,
): Promise<string> {
  const answer = await server.call('POST', `/api/ledger/works/${workId}/finish`, {
    personId: 'ann',
    machineId: server.workshop.works.get(workId)?.machineId ?? null,
    command: { kind: 'roast', sources: [{ holdingId: tubId, massG }], program: [], endBeanC: null, outG, note: '' },
  });
  if (answer.status !== 201) throw new Error(JSON.stringify(answer.body));
  const { step } = answer.body as { step: { lines: { code: string | null; massMg: number }[] } };
  return step.lines.find(({ code, massMg }) => code !== null && massMg > 0)?.code ?? '';
}

export const loadOf = async (server: TestServer, code: string): Promise<LoadView> =>
  (await server.call('GET', `/api/roast/loads/${code}`)).body as LoadView;
