import type { CommandOf, Command } from '@wunsch/core/commands';
import type { StepView } from '@wunsch/core/api/types';
import { byBatch } from '../src/ledger/by-batch';
import { Views } from '../src/ledger/views';
import { madeBy, testServer, type TestServer } from './harness';
import { nibLot } from './shop';

/* What is worked out of a batch is kept, and never longer than it holds. */

let server: TestServer;
let views: Views;
beforeAll(async () => {
  server = await testServer();
});
afterAll(() => server.close());

let lot = '';
let bowl = '';
let other = '';
beforeEach(async () => {
  await server.reset();
  views = new Views(server.workshop);
  lot = await nibLot(server, 'Nibs');
  bowl = await charged('Dark one');
  other = await charged('Dark two');
});

async function charged(name: string): Promise<string> {
  const command = { kind: 'charge', batch: { name, routeId: 'from-nibs' }, sources: [{ holdingId: lot, massG: 3000 }] };
  return madeBy(await server.step({ ...command, note: '' } as never), 'mass');
}
const read = (micron: number, head: object = {}): Promise<StepView> =>
  server.step({ kind: 'reading', batchId: bowl, what: 'micron', value: micron, note: '' } as never, { ...head });
const correct = async (step: StepView, command: Command): Promise<StepView> => {
  const answer = await server.call('POST', `/api/ledger/steps/${step.id}/correct`, {
    command,
    personId: 'ann',
    reason: 'misread',
  });
  expect(answer.body).toMatchObject({ step: { reason: 'misread' } });
  return (answer.body as { step: StepView }).step;
};
const withdraw = async (step: StepView): Promise<void> => {
  const answer = await server.call('POST', `/api/ledger/steps/${step.id}/withdraw`, {
    personId: 'ann',
    reason: 'another bowl',
  });
  expect(answer.status).toBe(201);
};
const microns = (): (number | null)[] => views.readings(bowl).map(({ value }) => value);

test('the word for a batch’s steps is another after each of its own, and the same after those of others', async () => {
  const words = [views.stepsWord(bowl)];
  const next = (): void => void words.push(views.stepsWord(bowl));
  const first = await read(60);
  next();
  const second = await read(40);
  next();
  await withdraw(second);
  next();
  await correct(first, { ...(first.command as CommandOf<'reading'>), value: 50 });
  next();
  await read(30);
  next();
  // Taken back, the second reading has never been there.
  expect(words.splice(3, 1)).toEqual([words[1]]);
  expect(new Set(words).size).toBe(words.length);
  await server.step({ kind: 'reading', batchId: other, what: 'micron', value: 20, note: '' } as never);
  await nibLot(server, 'More nibs');
  expect(views.stepsWord(bowl)).toBe(words.at(-1));
  expect(views.stepsWord('nothing')).not.toBe(views.stepsWord(bowl));
});

test('a late entry stands where it belongs among the steps of its batch', async () => {
  await read(60);
  const begun = server.workshop.book.timeline.at(-1)?.at ?? 0;
  await read(40);
  await read(50, { at: new Date(begun).toISOString() });
  expect(microns()).toEqual([60, 50, 40]);
});

test('lists of steps are nobody else’s: what is done to one is not seen in the next', async () => {
  await read(60);
  const list = views.stepsOfBatch(bowl) as unknown[];
  const { length } = list;
  list.pop();
  expect(views.stepsOfBatch(bowl)).toHaveLength(length);
});

test('what is worked out of a batch is kept until a step of its own comes, or one anywhere is corrected', async () => {
  let reads = 0;
  const count = byBatch((of: Views, batchId) => {
    reads += 1;
    return of.stepsOfBatch(batchId).length;
  });
  expect([count(views, bowl), count(views, bowl), reads]).toEqual([1, 1, 1]);
  const reading = await server.step({ kind: 'reading', batchId: other, what: 'micron', value: 20, note: '' } as never);
  expect([count(views, bowl), reads]).toEqual([1, 1]);
  await read(60);
  expect([count(views, bowl), reads]).toEqual([2, 2]);
  await correct(reading, { ...(reading.command as CommandOf<'reading'>), value: 25 });
  expect([count(views, bowl), reads]).toEqual([2, 3]);
  // Views of another workshop have their own.
  expect([count(new Views(server.workshop), bowl), reads]).toEqual([2, 4]);
});

test('a reading that is corrected is not held against itself, and keeps its time where nothing is said of it', async () => {
  await read(60);
  const fine = await read(20);
  const command = fine.command as CommandOf<'reading'>;
  const again = await correct(fine, { ...command, value: 25 });
  expect(again.at).toBe(fine.at);
  expect(microns()).toEqual([60, 25]);
  // The next one is held against it.
  const refused = await server.call('POST', '/api/ledger/steps', {
    command: { ...command, value: 90 },
    personId: 'ann',
  });
  expect(refused.body).toMatchObject({ code: 'gate/closed' });
});

test('marks of a batch are read again when something was said of it, and are the same lists until then', async () => {
  const marks = views.batchMarks(bowl);
  expect(views.batchMarks(bowl)).toBe(marks);
  await server.step({ kind: 'reading', batchId: other, what: 'micron', value: 20, note: '' } as never);
  expect(views.batchMarks(bowl)).toBe(marks);
  await read(60);
  expect(views.batchMarks(bowl)).not.toBe(marks);
});
