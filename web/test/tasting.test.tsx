/** @jest-environment jsdom */
import { cleanup, screen, waitFor } from '@testing-library/react';
import type { SubjectView } from '@wunsch/core/api/taste';
import { MOST_SMELLS } from '@wunsch/core/taste/records';
import { NOBODY } from '../src/parts/save';
import { TastingPage } from '../src/taste/TastingPage';
import { address, field, fill, hands, press, refusal, Server, show, type Setting } from './page';

/* Tasting alone, bar after bar, forth and back: what is kept of each look, and what is eaten of the stock. */

const subject = (no: number, more: Partial<SubjectView> = {}): SubjectView => ({
  subject: { of: 'holding', id: `h${no}` },
  code: `B05${no}-1`,
  name: `Bar ${no}`,
  what: 'packed bars',
  batchCode: `B05${no}`,
  allergens: [],
  caution: null,
  pieces: 40,
  earlier: [],
  ...more,
});

const page = async (
  subjects = [subject(1), subject(2)],
  setting: Setting = {},
  more: Record<string, unknown> = {},
): Promise<Server> => {
  const server = new Server(
    {
      '/api/taste/words': { words: [{ word: 'bread' }, { word: 'plum' }], groups: [] },
      '/api/taste/subjects?limit=9&find=': { subjects },
      ...more,
    },
    () => ({ tastingId: 't1' }),
  );
  show(<TastingPage />, setting);
  await screen.findByRole('heading', { level: 1 });
  return server;
};
const take = async (no: number): Promise<void> =>
  hands.click(await screen.findByRole('button', { name: new RegExp(`^B05${no}-1`, 'u') }));
const on = async (...presses: string[]): Promise<void> => {
  for (const name of presses) await press(name);
};
const ALL_STEPS = ['Break it', 'Let it melt', 'Sum it up'];
const keep = async (overall: number): Promise<void> => {
  await on(...ALL_STEPS, `Overall ${overall}`, 'Keep it');
  await screen.findByText('So far');
};
const said = (): string => document.body.textContent.replaceAll('\u00a0', ' ');

beforeEach(() => localStorage.clear());
afterEach(cleanup);

test('what has to be known before anybody eats stands over the first look', async () => {
  await page([subject(1, { allergens: ['hazelnut'], caution: 'Raw beans are not ready to eat.' })]);
  await take(1);
  expect(said()).toContain('Before anybody eats: it has hazelnut.');
  expect(said()).toContain('Raw beans are not ready to eat.');
});

test('a look is kept with its place, and a bar of it leaves the stock', async () => {
  const server = await page();
  await fill('Mood, cold, tired, in a hurry', 'tired');
  await press('Before food');
  await take(1);
  await keep(7);
  expect(server.sent[0]).toMatchObject({
    path: '/api/taste/sheets',
    body: {
      personId: 'ilse',
      eaten: 1,
      sheet: { overall: 7, place: 1, visit: 1, mood: 'tired', food: 'before', tastingId: null },
    },
  });
  await take(2);
  await keep(5);
  expect(server.sent[1]?.body).toMatchObject({ sheet: { place: 2, visit: 1, tastingId: 't1' } });
});

test('going back is another look: what it was is said, nothing more is eaten, and the pieces are not asked for', async () => {
  const server = await page();
  await take(1);
  await keep(7);
  await press('Go back to it');
  expect(said()).toContain('look 2');
  await press('Sum it up');
  expect(screen.queryByLabelText('Bars eaten')).toBeNull();
  await on('Overall 6', 'Keep this look');
  await screen.findByText('was 7 before');
  expect(server.sent[1]?.body).toMatchObject({ eaten: 0, sheet: { overall: 6, visit: 2, place: 1 } });
  expect(server.sent[1]?.key).not.toBe(server.sent[0]?.key);
});

test('of nibs and bars of others nothing is eaten in the book', async () => {
  const server = await page([subject(1, { pieces: 0, what: 'nibs' })]);
  await take(1);
  await on(...ALL_STEPS);
  expect(screen.queryByLabelText('Bars eaten')).toBeNull();
  await on('Overall 4', 'Keep it');
  expect(server.sent[0]?.body).toMatchObject({ eaten: 0 });
});

test.each([
  ['half', 'is not a number'],
  ['0.5', 'is no count'],
  ['-1', 'is no count'],
])('“%s” bars are refused at their field: %s', async (text, problem) => {
  const server = await page();
  await take(1);
  await on(...ALL_STEPS, 'Overall 7');
  await fill('Bars eaten', text);
  expect(screen.getByText(problem)).toBeTruthy();
  await press('Keep it');
  expect(refusal()).toBe('Look again at the bars eaten.');
  expect(server.sent).toEqual([]);
  await fill('Bars eaten', '');
  await press('Keep it');
  expect(server.sent[0]?.body).toMatchObject({ eaten: 0 });
});

test('without a word on the whole, or without somebody, it is not kept; what was said stays', async () => {
  const server = await page(undefined, { personId: null });
  await take(1);
  await on(...ALL_STEPS, 'Overall 7', 'Keep it');
  expect(refusal()).toBe(NOBODY);
  cleanup();
  const again = await page();
  await press('Overall 7');
  await press('Keep it');
  expect(refusal()).toBe('Say how it is on the whole: one press on the scale.');
  expect([...server.sent, ...again.sent]).toEqual([]);
});

test('a look without an answer is entered once', async () => {
  const server = await page();
  server.vanish();
  await take(1);
  await on(...ALL_STEPS, 'Overall 7', 'Keep it');
  await waitFor(() => expect(screen.getByRole('alert')).toBeTruthy());
  await press('Keep it');
  expect(server.sent).toHaveLength(2);
  expect(server.sent[0]?.key).toBe(server.sent[1]?.key);
});

test('more words of a smell than are kept are not left out in silence', async () => {
  await page();
  await take(1);
  await press('Break it');
  for (let i = 1; i <= MOST_SMELLS; i += 1) await hands.type(field('It smells of'), `smell${i}{Enter}`);
  expect(said()).toContain('More are not kept');
  await hands.type(field('It smells of'), 'one more{Enter}');
  expect(said()).not.toContain('one more,');
  await hands.type(field('It smells of'), 'smell3{Enter}');
  expect(said()).not.toContain('More are not kept');
});

test('what a bench or a page names is taken in hand at once', async () => {
  await page(undefined, { at: '/tasting?holding=h9' }, { '/api/taste/subject?holding=h9': subject(9) });
  await screen.findByRole('heading', { level: 1, name: 'B059-1 Bar 9' });
  await waitFor(() => expect(address).toBe('/tasting'));
});

test('put aside it is not in the tasting; that was all leads to what was tasted', async () => {
  await page();
  await take(1);
  await press('Put it aside');
  expect(said()).toContain('What is tasted first');
  await take(2);
  await keep(8);
  await press('That was all');
  expect(address).toBe('/tastings');
  cleanup();
  await page();
  expect(said()).not.toContain('So far');
});
