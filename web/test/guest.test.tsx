/** @jest-environment jsdom */
import { cleanup, screen, waitFor } from '@testing-library/react';
import { Route, Routes } from 'react-router';
import type { GuestView, SeatView } from '@wunsch/core/api/taste';
import { GuestPage } from '../src/taste/GuestPage';
import { field, fill, press, refusal, Server, show } from './page';

/* A taster's phone in a blind session: a seat, codes, sheets that wait where the house has no net, and the end of it. */

const PATH = '/api/taste/guest/s1';
const SEAT: SeatView = { seat: 2, taster: 'Rosa', codes: ['417', '238'], names: null, palate: null };
const view = (more: Partial<GuestView> = {}): GuestView => ({
  id: 's1',
  workshop: 'Cabo Lume',
  name: 'Two roasts',
  question: 'Which would you rather eat again?',
  state: 'open',
  bars: 2,
  scales: false,
  allergens: ['milk'],
  words: ['bread', 'plum'],
  ...more,
});

const page = async (of = view(), after?: SeatView): Promise<Server> => {
  const server = new Server({ [PATH]: of, ...(after ? { [`${PATH}/seats/2`]: after } : {}) }, ({ path }) =>
    path === `${PATH}/seats` ? SEAT : {},
  );
  show(
    <Routes>
      <Route path="/guest/:id" element={<GuestPage />} />
    </Routes>,
    { at: '/guest/s1', personId: null },
  );
  await screen.findByRole('heading', { level: 1 });
  return server;
};
const sitDown = async (): Promise<void> => {
  await fill(/^Your name/u, 'Rosa');
  await press('Sit down');
};
/** Tastes what is in hand, and says how it is on the whole. */
const taste = async (overall: number): Promise<void> => {
  for (const name of ['Break it', 'Let it melt', 'Sum it up']) await press(name);
  await press(`Overall ${overall}`);
  await press('Keep it');
};
const told = (): string => document.querySelector('main')?.textContent ?? '';

beforeEach(() => localStorage.clear());
afterEach(cleanup);

test('what is among the bars is said before anybody eats', async () => {
  await page();
  expect(screen.getByText('Before you eat: among these there is milk.')).toBeTruthy();
  cleanup();
  await page(view({ allergens: [] }));
  expect(told()).not.toContain('Before you eat');
});

test('one sits down by name; the seat says what to take first', async () => {
  const server = await page();
  expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Sit down' }).disabled).toBe(true);
  await sitDown();
  expect(server.sent[0]).toMatchObject({ path: `${PATH}/seats`, body: { taster: 'Rosa' } });
  expect(told()).toContain('Take 417.');
  cleanup();
  await page();
  expect(told()).toContain('Take 417.');
});

test('a session without a seat for one more says so, and is not sat down at', async () => {
  const server = await page();
  server.refuse('All seats are taken.');
  await sitDown();
  expect(refusal()).toBe('All seats are taken.');
  expect(field(/^Your name/u).value).toBe('Rosa');
  cleanup();
  localStorage.clear();
  await page(view({ state: 'closed' }));
  expect(told()).toContain('This session is closed.');
});

test('a sheet is sent under its code; then the next is taken, and one can go back', async () => {
  const server = await page();
  await sitDown();
  await press('Taste it, 417');
  expect(screen.getByRole('heading', { level: 1 }).textContent).toBe('417');
  await taste(7);
  expect(server.sent[1]).toMatchObject({ path: `${PATH}/seats/2/sheets`, body: { code: '417', overall: 7 } });
  expect(told()).toContain('Take 238.');
  await press('Go back to it, 417');
  expect(told()).toContain('Overall');
  await press('Overall 5');
  expect(told()).toContain('was 7');
  await press('Keep it');
  expect(server.sent[2]).toMatchObject({ body: { code: '417', overall: 5 } });
  expect(server.sent[2]?.key).not.toBe(server.sent[1]?.key);
});

test('without a word on the whole it is not kept', async () => {
  const server = await page();
  await sitDown();
  await press('Taste it, 417');
  for (const name of ['Break it', 'Let it melt', 'Sum it up', 'Keep it']) await press(name);
  expect(refusal()).toBe('Say how it is on the whole: one press on the scale.');
  expect(server.sent).toHaveLength(1);
  await press('Overall 4');
  await press('Keep it');
  expect(server.sent).toHaveLength(2);
});

test('a sheet that cannot be sent waits on the phone, over a reload, and is entered once', async () => {
  const server = await page();
  await sitDown();
  server.vanish();
  await press('Taste it, 417');
  await taste(6);
  expect(screen.getByRole('status').textContent).toContain('One sheet waits to be sent');
  cleanup();
  const again = await page();
  await waitFor(() => expect(told()).not.toContain('waits'));
  expect(again.sent).toHaveLength(1);
  expect(again.sent[0]).toMatchObject({ body: { code: '417', overall: 6 }, key: server.sent[1]?.key });
  expect(told()).not.toContain('waits');
});

test('a sheet that is refused is not sent for ever: it stays here, with the reason', async () => {
  const server = await page();
  await sitDown();
  server.refuse('The session was closed at 10:20.', [], 409);
  await press('Taste it, 417');
  await taste(6);
  expect(screen.getByRole('alert').textContent).toBe(
    '417 was not taken: The session was closed at 10:20. It is still on this phone; tell your host.',
  );
  expect(told()).not.toContain('waits to be sent');
  cleanup();
  const again = await page();
  expect(again.sent).toEqual([]);
  expect(told()).toContain('417 was not taken');
});

test('one that is begun and put aside is begun anew', async () => {
  await page();
  await sitDown();
  await press('Taste it, 417');
  for (const name of ['Break it', 'Let it melt', 'Sum it up', 'Overall 9', 'Not this one yet']) await press(name);
  expect(told()).toContain('Take 417.');
  await press('Taste it, 417');
  expect(screen.getByRole('button', { name: 'Break it' })).toBeTruthy();
});

test('a closed one takes nothing more; an opened one says what was what, and how this palate did', async () => {
  await page();
  await sitDown();
  await press('Taste it, 417');
  await taste(7);
  cleanup();
  await page(view({ state: 'closed' }));
  expect(told()).toContain('nothing is taken any more');
  expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Taste it, 238' }).disabled).toBe(true);
  cleanup();
  const palate = { taster: 'Rosa', n: 12, lean: 0.6, spread: 0.7, repeat: 0.4, drift: -0.3 };
  await page(view({ state: 'opened' }), { ...SEAT, names: ['Fiji, hot and quick', 'Fiji, low and long'], palate });
  await screen.findByText('Fiji, hot and quick');
  expect(told()).toContain('417Fiji, hot and quick7');
  expect(told()).toContain('238Fiji, low and long–');
  expect(told()).toContain('0.6 points higher than the panel');
  expect(told()).toContain('dare a little more');
  expect(told()).toContain('(give or take 0.4): steady.');
  expect(told()).toContain('Your level falls by 0.3 a session.');
  expect(told()).toContain('Thank you, Rosa.');
});
