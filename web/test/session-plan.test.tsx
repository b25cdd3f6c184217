/** @jest-environment jsdom */
import { cleanup, screen, waitFor } from '@testing-library/react';
import type { SubjectView } from '@wunsch/core/api/taste';
import { MOST_AT_ONCE } from '@wunsch/core/taste/records';
import { NOBODY } from '../src/parts/save';
import { SessionPlanPage } from '../src/taste/SessionPlanPage';
import { WordsPage } from '../src/taste/WordsPage';
import { address, field, fill, press, refusal, Server, show, type Setting } from './page';

/* A blind session is planned; and the words that tasters use are kept, joined and parted. */

const subject = (no: number, name = `Bar ${no}`): SubjectView => ({
  subject: { of: 'holding', id: `h${no}` },
  code: `B05${no}-1`,
  name,
  what: 'packed bars',
  batchCode: `B05${no}`,
  allergens: no === 2 ? ['milk'] : [],
  caution: null,
  pieces: 40,
  earlier: [],
});

beforeEach(() => localStorage.clear());
afterEach(cleanup);

describe('a session', () => {
  const page = async (subjects = [1, 2, 3].map((no) => subject(no)), setting: Setting = {}): Promise<Server> => {
    const server = new Server(
      {
        '/api/taste/subjects?limit=8&find=': { subjects },
        '/api/taste/subjects?limit=8&find=zz': { subjects: [] },
      },
      () => ({ id: 's9' }),
    );
    show(<SessionPlanPage />, setting);
    await screen.findByRole('button', { name: /B051-1/u });
    return server;
  };
  const take = (no: number): Promise<void> => press(new RegExp(`B05${no}-1`, 'u'));
  const lay = (): HTMLButtonElement => screen.getByRole('button', { name: 'Lay it out' });

  test('of two bars and more; called after them where it has no name of its own', async () => {
    const server = await page();
    await take(1);
    expect(lay().disabled).toBe(true);
    await take(2);
    await press('Lay it out');
    expect(server.sent[0]).toMatchObject({
      path: '/api/taste/sessions',
      body: {
        personId: 'ilse',
        session: {
          name: 'Bar 1 and Bar 2',
          question: 'Which would you rather eat again?',
          tasters: 8,
          scales: true,
          trialId: null,
          bars: [
            { subject: { of: 'holding', id: 'h1' }, name: 'Bar 1' },
            { subject: { of: 'holding', id: 'h2' }, name: 'Bar 2' },
          ],
        },
      },
    });
    await waitFor(() => expect(address).toBe('/session/s9'));
  });

  test('two of one name are told apart by their codes; what is in one is said', async () => {
    await page([subject(1, 'Fiji 70 %'), subject(2, 'Fiji 70 %')]);
    expect(screen.getByText('packed bars, has milk')).toBeTruthy();
    await take(1);
    await take(2);
    expect(field(/B051-1, packed bars$/u).value).toBe('Fiji 70 %');
    expect(field(/B052-1, packed bars$/u).value).toBe('Fiji 70 % B052');
  });

  test('one that is pressed again is left out, and a name can be typed over', async () => {
    const server = await page();
    for (const no of [1, 2, 3]) await take(no);
    await fill(/B053-1, packed bars$/u, 'The dark one');
    await take(1);
    await press('Lay it out');
    expect(server.sent[0]?.body).toMatchObject({ session: { name: 'Bar 2 and The dark one' } });
  });

  test('with how many it is fair, and from how many on it tells something', async () => {
    await page();
    for (const no of [1, 2, 3]) await take(no);
    expect(screen.getByText(/^With 12 instead of 8 tasters every bar would stand in every place/u)).toBeTruthy();
    await fill('Tasters', '6');
    expect(screen.getByText(/^6 tasters: every bar stands in every place/u).textContent).not.toContain('Fewer');
    await fill('Tasters', '3');
    expect(screen.getByText(/^With 6 instead of 3/u).textContent).toContain('Fewer than six seldom tell two good bars');
  });

  test.each([
    ['eight', 'is not a number'],
    ['2.5', 'is no number of people'],
    ['0', 'is no number of people'],
  ])('%s tasters are refused at their field: %s', async (text, problem) => {
    const server = await page();
    await take(1);
    await take(2);
    await fill('Tasters', text);
    expect(screen.getByText(problem)).toBeTruthy();
    await press('Lay it out');
    expect(refusal()).toBe('Say how many taste.');
    expect(server.sent).toEqual([]);
  });

  test('more than five tire a tongue, more than a sitting holds are not taken', async () => {
    const many = Array.from({ length: MOST_AT_ONCE + 1 }, (_, i) => subject(i + 1));
    await page(many);
    for (let no = 1; no <= 6; no += 1) await take(no);
    expect(screen.getByText(/^6 at one sitting tire a tongue/u)).toBeTruthy();
    for (let no = 7; no <= MOST_AT_ONCE + 1; no += 1) await take(no);
    expect(refusal()).toBe(`${MOST_AT_ONCE} at the most: nobody tastes more well.`);
    expect(screen.getByText(`${MOST_AT_ONCE} of ${MOST_AT_ONCE} at the most`)).toBeTruthy();
  });

  test('half planned it is there after a reload; without somebody it is not laid out', async () => {
    await page();
    await take(1);
    await take(2);
    await fill('What is asked', 'Which is sourer?');
    cleanup();
    const server = await page(undefined, { personId: null });
    expect(field('What is asked').value).toBe('Which is sourer?');
    await press('Lay it out');
    expect(refusal()).toBe(NOBODY);
    expect(server.sent).toEqual([]);
    expect(field(/B052-1, packed bars$/u).value).toBe('Bar 2');
  });

  test('what is not here says where bars of others are kept', async () => {
    await page();
    await fill('Find a bar', 'zz');
    expect(await screen.findByText(/^Nothing of that name is here/u)).toBeTruthy();
  });
});

describe('words', () => {
  const WORDS = [
    { word: 'bread', near: ['toast'], uses: 14 },
    { word: 'plum', near: [], uses: 3 },
    { word: 'prune', near: [], uses: 0 },
  ];
  const GROUP = { group: 'fiji, west', impressions: 12 };
  const page = async (words = WORDS, setting: Setting = {}): Promise<Server> => {
    const server = new Server({
      '/api/taste/words': { words, groups: words.length === 0 ? [] : [GROUP, { group: 'young bars', impressions: 4 }] },
      '/api/taste/words/of?group=fiji%2C%20west': {
        words: [
          { word: 'plum', here: 6, of: 12, elsewhere: 0.1, own: true },
          { word: 'bread', here: 3, of: 12, elsewhere: null, own: false },
        ],
      },
      '/api/taste/words/of?group=young%20bars': { words: [] },
    });
    show(<WordsPage />, setting);
    await screen.findByRole('heading', { level: 1 });
    return server;
  };
  const sent = ({ sent: rows }: Server): unknown => rows.map(({ body }) => body['act']);

  test('which come up where, beside how often they do elsewhere', async () => {
    await page();
    await screen.findByText(/6 of 12/u);
    const rows = screen.getAllByRole('listitem').map(({ textContent }) => textContent.replaceAll('\u00a0', ' '));
    expect(rows.slice(0, 2)).toEqual(['plum6 of 12, elsewhere 10 %', 'bread3 of 12']);
    await press('Young bars (4)');
    expect(await screen.findByText('No words yet for these.')).toBeTruthy();
  });

  test('a new one is added as it is said; one that is there is not', async () => {
    const server = await page();
    await fill(/^Find a word/u, ' Smoke ');
    await press('Add it');
    expect(sent(server)).toEqual([{ kind: 'word', word: 'smoke' }]);
    for (const known of ['plum', 'TOAST', '']) {
      await fill(/^Find a word/u, known);
      expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Add it' }).disabled).toBe(true);
    }
  });

  test('two that say the same are joined by two presses, and parted again', async () => {
    const server = await page();
    await press('prune');
    expect(screen.getByRole('status').textContent).toBe('“prune” means the same as … press the other word.');
    await press('prune');
    expect(screen.getByRole('status').textContent).toContain('Press a word');
    await press('prune');
    await press(/^plum/u);
    const part = screen.getByRole<HTMLButtonElement>('button', { name: 'part toast' });
    await waitFor(() => expect(part.disabled).toBe(false));
    await press('part toast');
    expect(sent(server)).toEqual([
      { kind: 'join', word: 'prune', into: 'plum' },
      { kind: 'part', word: 'toast' },
    ]);
  });

  test('a search finds a word by those that were joined to it', async () => {
    await page();
    await fill(/^Find a word/u, 'toas');
    expect(screen.queryByRole('button', { name: /^plum/u })).toBeNull();
    expect(screen.getByRole('button', { name: /^bread/u })).toBeTruthy();
  });

  test('only by somebody; what is refused says why', async () => {
    const nobody = await page(WORDS, { personId: null });
    await fill(/^Find a word/u, 'smoke');
    await press('Add it');
    expect(refusal()).toBe(NOBODY);
    expect(nobody.sent).toEqual([]);
    cleanup();
    const server = await page();
    server.refuse('A word is not joined to itself.');
    await press('prune');
    await press(/^plum/u);
    expect(refusal()).toBe('A word is not joined to itself.');
  });

  test('where nobody has tasted yet there is nothing to compare', async () => {
    await page([]);
    expect(screen.queryByRole('heading', { name: 'What comes up' })).toBeNull();
  });
});
