/** @jest-environment jsdom */
import { cleanup, screen, waitFor } from '@testing-library/react';
import type { ComplaintView } from '@wunsch/core/api/recall';
import { NOBODY } from '../src/parts/save';
import { ComplaintsPage } from '../src/trace/ComplaintsPage';
import { address, field, fill, hands, press, refusal, Server, show, type Setting } from './page';

/* What buyers say is wrong, written down; and goods taken back, or that practised. */

const complaint = (id: string, code: string, more: Partial<ComplaintView> = {}): ComplaintView => ({
  id,
  at: Date.UTC(2026, 10, 20, 10),
  person: 'Tomo',
  code,
  name: 'Viet Nam 72 %',
  batchCode: 'B050',
  what: 'bloom',
  from: 'The Quay Deli',
  pieces: 3,
  note: '',
  photos: [],
  answer: null,
  ...more,
});

const page = async (complaints: ComplaintView[] = [], setting: Setting = {}): Promise<Server> => {
  const server = new Server(
    { '/api/trace/complaints': { complaints }, '/api/trace/recalls': { recalls: [] } },
    ({ path }) => (path === '/api/trace/recalls' ? { id: 'r9' } : { groups: [], unknown: [] }),
  );
  show(<ComplaintsPage />, { at: '/complaints', ...setting });
  await screen.findByRole('heading', { level: 1 });
  return server;
};

beforeEach(() => localStorage.clear());
afterEach(cleanup);

describe('one is written down', () => {
  test('with its code, what is wrong, and who says so', async () => {
    const server = await page();
    await fill('Code on the bar', 'B050-1');
    await fill('Who says so', 'a customer at the market');
    await fill('Bars', '2');
    await press('grey or streaked');
    await fill('In their words', 'looks like dust');
    await press('Keep the complaint');
    expect(server.sent[0]).toMatchObject({
      method: 'POST',
      path: '/api/trace/complaints',
      body: {
        personId: 'ilse',
        code: 'B050-1',
        what: 'bloom',
        from: 'a customer at the market',
        pieces: 2,
        note: 'looks like dust',
      },
    });
    expect([field('Code on the bar').value, field('Bars').value]).toEqual(['', '']);
    expect(localStorage).toHaveLength(0);
  });

  test('how many bars may be left open; nobody, no kind and no code are told in turn', async () => {
    const server = await page([], { personId: null });
    await press('Keep the complaint');
    expect(refusal()).toBe(NOBODY);
    cleanup();
    const other = await page();
    await press('Keep the complaint');
    expect(refusal()).toBe('Choose what is wrong.');
    await press('broken');
    await press('Keep the complaint');
    expect(screen.getByText('is missing')).toBeTruthy();
    expect(field('Code on the bar').getAttribute('aria-invalid')).toBe('true');
    expect([...server.sent, ...other.sent]).toEqual([]);
    await fill('Code on the bar', 'B050-1');
    expect(screen.queryByText('is missing')).toBeNull();
    await press('Keep the complaint');
    expect(other.sent[0]?.body).toMatchObject({ code: 'B050-1', what: 'broken', pieces: null });
  });

  test('bars that are no number are refused at their field', async () => {
    const server = await page();
    await press('broken');
    await fill('Code on the bar', 'B050-1');
    await fill('Bars', 'tw0');
    await press('Keep the complaint');
    expect(screen.getByText('is not a number')).toBeTruthy();
    expect(server.sent).toEqual([]);
  });

  test('half typed it survives a reload; refused it stays, and sent again it is one', async () => {
    await page();
    await fill('Code on the bar', 'B05O-1');
    await press('moth or larvae');
    cleanup();
    const server = await page();
    expect(field('Code on the bar').value).toBe('B05O-1');
    expect(screen.getByRole('button', { name: 'moth or larvae' }).getAttribute('aria-pressed')).toBe('true');
    server.vanish();
    await press('Keep the complaint');
    expect(refusal()).toContain('The server does not answer.');
    server.refuse('Nothing here carries that code.');
    await press('Keep the complaint');
    expect(refusal()).toBe('Nothing here carries that code.');
    expect(field('Code on the bar').value).toBe('B05O-1');
    expect(server.sent[1]?.key).toBe(server.sent[0]?.key);
  });

  test('from a delivery it comes with its code', async () => {
    await page([], { at: '/complaints?code=B061-1' });
    expect(field('Code on the bar').value).toBe('B061-1');
  });

  test('the caution stands where somebody reacted', async () => {
    await page();
    expect(screen.getByText(/stop selling at once, and ask the food authority/u)).toBeTruthy();
  });
});

describe('those there are', () => {
  test('each says what, where from and how many; the open ones are counted', async () => {
    await page([
      complaint('c1', 'B050-1', { note: 'white lines' }),
      complaint('c2', 'B061-1', { pieces: null, from: '', answer: 'Two bars sent instead.' }),
    ]);
    expect(screen.getByText('1 open')).toBeTruthy();
    expect(screen.getByText('“white lines”')).toBeTruthy();
    expect(screen.getByText('Viet Nam 72 %, 3 bars, The Quay Deli, 20 Nov 2026, Tomo')).toBeTruthy();
    expect(screen.getByText('Viet Nam 72 %, 20 Nov 2026, Tomo')).toBeTruthy();
    expect(screen.getByText('Answered: Two bars sent instead.')).toBeTruthy();
    expect(screen.getAllByText('Answer it, or add a photo')).toHaveLength(1);
  });

  test('one is answered with a word', async () => {
    const server = await page([complaint('c1', 'B050-1')]);
    await hands.click(screen.getByText('Answer it, or add a photo'));
    await fill('What was answered', 'Two bars sent instead.');
    await press('Keep the answer');
    expect(server.sent[0]).toMatchObject({
      path: '/api/trace/complaints/c1/answer',
      body: { personId: 'ilse', word: 'Two bars sent instead.' },
    });
  });
});

describe('taking back', () => {
  const recalled = ({ sent }: Server) => sent.find(({ path }) => path === '/api/trace/recalls');

  test('nothing is recalled where nothing is named', async () => {
    await page();
    const button = screen.getByRole('button', { name: 'Practise the recall' });
    expect((button as HTMLButtonElement).disabled).toBe(true);
  });

  test('codes that are typed and complaints that are ticked, each once; for practice unless it is said', async () => {
    const server = await page([complaint('c1', 'B050-1'), complaint('c2', 'B050-1'), complaint('c3', 'B061-1')]);
    await fill('Codes on bars, tubs, sacks', 'L001; B061-1');
    for (const tick of screen.getAllByRole('checkbox', { name: /grey or streaked/u }).slice(0, 2))
      await hands.click(tick);
    await fill('Why', 'bloom on both');
    await press('Practise the recall');
    expect(recalled(server)?.body).toEqual({
      personId: 'ilse',
      codes: ['B050-1', 'L001', 'B061-1'],
      why: 'bloom on both',
      mock: true,
    });
    await waitFor(() => expect(address).toBe('/recall/r9'));
  });

  test('in earnest it says what it does before it is pressed', async () => {
    const server = await page();
    await fill('Codes on bars, tubs, sacks', 'B050-1');
    await hands.click(screen.getByRole('checkbox', { name: 'For practice: nothing is blocked' }));
    await waitFor(() => expect(server.sent).toHaveLength(1));
    server.refuse('Say why, in a word or two.');
    await press('Recall them: block what is here');
    expect(recalled(server)?.body).toMatchObject({ mock: false, why: '' });
    expect(refusal()).toBe('Say why, in a word or two.');
    expect(address).toBe('/complaints');
  });
});
