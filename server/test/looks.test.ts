import type { FloorView } from '@wunsch/core/api/types';
import { testServer, type TestServer } from './harness';
import { moulded, nibLot, poured } from './shop';

const DAY = 86_400_000;
const BEGAN = Date.UTC(2026, 2, 2, 9);
let now = BEGAN;
let server: TestServer;
beforeAll(async () => void (server = await testServer(() => now)));
afterAll(() => server.close());

const due = async (): Promise<string[]> =>
  ((await server.call('GET', '/api/ledger/floor')).body as FloorView).due
    .filter(({ id }) => id.startsWith('look-'))
    .map(({ text }) => text);

test('bars are looked at a day, a week and a month after they were moulded, once each, and then no more', async () => {
  const lot = await nibLot(server, 'Look nibs');
  const bars = await moulded(server, await poured(server, lot, 'Looked at'));
  const { code, id } = [...server.workshop.batches.values()][0] ?? { code: '', id: '' };
  const after = (days: number): void => void (now = BEGAN + days * DAY);
  expect(await due()).toEqual([]);
  after(1.5);
  expect(await due()).toEqual([`Look at the bars of ${code}, a day old`]);
  // Nobody did: it is of no use any more.
  after(5);
  expect(await due()).toEqual([]);
  after(8);
  expect(await due()).toEqual([`Look at the bars of ${code}, a week old`]);
  await server.step({ kind: 'reading', batchId: id, what: 'seen', seen: ['glossy'], note: '' } as never);
  expect(await due()).toEqual([]);
  after(31);
  expect(await due()).toEqual([`Look at the bars of ${code}, a month old`]);
  after(44.9);
  expect(await due()).toHaveLength(1);
  after(45.1);
  expect(await due()).toEqual([]);
  // Of bars that have all gone nobody is asked.
  after(31);
  const { pieces, massMg } = server.workshop.book.balance(bars);
  await server.step({
    kind: 'sell',
    sources: [{ holdingId: bars, massG: massMg / 1000, pieces }],
    takings: 100,
    to: 'Corner grocers',
    note: '',
  } as never);
  expect(await due()).toEqual([]);
});
