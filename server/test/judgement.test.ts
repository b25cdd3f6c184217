import type { JudgementWordView } from '@wunsch/core/api/judgement';
import { wordsInForce } from '@wunsch/core/judgement/records';
import type { RoomRecord } from '@wunsch/core/records';
import { asProblem, testServer, type TestServer } from './harness';

let server: TestServer;
beforeAll(async () => {
  server = await testServer();
});
afterAll(() => server.close());
beforeEach(() => server.reset());

const PATH = '/api/judgement/words';
const word = (more: object = {}): object => ({
  personId: 'ann',
  judged: 'pour',
  subject: 'step-1',
  said: 'Too cold at its low point.',
  word: 'The probe hung out of the bowl.',
  ...more,
});
const words = async (): Promise<JudgementWordView[]> =>
  ((await server.call('GET', PATH)).body as { words: JudgementWordView[] }).words;

test('a verdict is overruled with a word, which is kept with what was said then and by whom', async () => {
  const kept = await server.call('POST', PATH, word());
  expect(kept.status).toBe(201);
  expect(await words()).toMatchObject([
    { judged: 'pour', subject: 'step-1', said: 'Too cold at its low point.', word: 'The probe hung out of the bowl.' },
  ]);
  expect((await words())[0]?.person).not.toBe('somebody');
});

test('a word is taken back by a record: both stay in the book, it is shown no more, and a second time is refused', async () => {
  const { body } = await server.call('POST', PATH, word());
  await server.call('POST', PATH, word({ subject: 'step-2' }));
  const path = `${PATH}/${(body as JudgementWordView).id}/taken-back`;
  expect((await server.call('POST', path, { personId: 'ann' })).status).toBe(201);
  expect((await words()).map(({ subject }) => subject)).toEqual(['step-2']);
  expect(server.workshop.records.of('judgement')).toHaveLength(3);
  expect(asProblem(await server.call('POST', path, { personId: 'ann' })).code).toBe('judgement/unknown-word');
});

test.each([
  [{ word: ' ' }, 'word'],
  [{ word: 'x'.repeat(501) }, 'word'],
  [{ judged: 'weather' }, 'judged'],
  [{ subject: '' }, 'subject'],
])('%j is refused at its field', async (more, field) => {
  const answer = await server.call('POST', PATH, word(more));
  expect(answer.status).toBe(422);
  expect(asProblem(answer).errors.map(({ path }) => path)).toContain(field);
  expect(await words()).toEqual([]);
});

test('nobody of the team overrules nothing', async () => {
  const answer = await server.call('POST', PATH, word({ personId: 'nobody' }));
  expect(asProblem(answer).code).toBe('workshop/unknown-person');
  expect(await words()).toEqual([]);
});

test('the same word sent twice with one key is kept once', async () => {
  for (let i = 0; i < 2; i += 1) await server.call('POST', PATH, word(), { 'idempotency-key': 'once' });
  expect(await words()).toHaveLength(1);
});

test('words survive a start', async () => {
  await server.call('POST', PATH, word());
  await server.workshop.reload();
  expect(await words()).toHaveLength(1);
});

test('of records only words that nobody took back count, oldest first', () => {
  const record = (id: string, value: RoomRecord<'judgement'>['value']): RoomRecord<'judgement'> => ({
    id,
    room: 'judgement',
    at: 1,
    recordedAt: 1,
    personId: 'ann',
    value,
  });
  const said = (text: string) => ({ kind: 'word', judged: 'yield', subject: 's', said: '', word: text }) as const;
  const found = wordsInForce([
    record('a', said('first')),
    record('b', said('second')),
    record('c', { kind: 'taken-back', recordId: 'a' }),
  ]);
  expect(found.map(({ id, word: text }) => [id, text])).toEqual([['b', 'second']]);
});
