/** @jest-environment jsdom */
import { act, cleanup, screen } from '@testing-library/react';
import type { OpeningRow } from '@wunsch/core/money/opening-table';
import { NOBODY } from '../src/parts/save';
import { TestClock } from '../src/temper/TestClock';
import { OpeningPage } from '../src/workshop/OpeningPage';
import { Team } from '../src/workshop/Team';
import { field, fill, hands, press, refusal, Server, show, type Setting } from './page';

/* How a workshop begins its book: what is there already, and who works here; and the clock of the temper test. */

beforeEach(() => localStorage.clear());
afterEach(() => {
  cleanup();
  jest.useRealTimers();
});

describe('what is there already, as a table', () => {
  const ROUTE = { id: 'r1', name: 'Whole bean', note: 'As usual.', stations: ['beans', 'grind', 'temper', 'mould'] };
  const good = (line: number, name: string): OpeningRow =>
    ({
      line,
      command: { kind: 'open', what: 'bars', name, massG: 1400, pieces: 20 },
      at: '2026-09-01T12:00:00.000Z',
      problems: [],
    }) as unknown as OpeningRow;
  const BAD: OpeningRow = {
    line: 3,
    command: null,
    at: null,
    problems: ['weight is not a number', 'pieces is missing'],
  };

  const give = (text: string): Promise<void> => {
    const file = new File([text], 'stock.csv', { type: 'text/csv' });
    file.text = () => Promise.resolve(text);
    return hands.upload(screen.getByLabelText('Table of opening stock'), file);
  };
  /** Chooses a table, of which the server finds these rows. */
  const page = async (rows: OpeningRow[], setting: Setting = {}): Promise<Server> => {
    const server = new Server({}, ({ path }) => (path.endsWith('/preview') ? { rows } : { codes: ['T001', 'T002'] }));
    show(<OpeningPage />, { view: { routes: [ROUTE] as never }, ...setting });
    await give('what,name\nbars,Fiji');
    await screen.findAllByText(/^line /u);
    return server;
  };
  const lines = (): string[] =>
    screen.getAllByRole('listitem').map(({ textContent }) => textContent.replaceAll(/\s/gu, ' '));

  test('is looked through before anything is entered, each row with what is wrong in it', async () => {
    const server = await page([good(2, 'Fiji 70 %'), BAD]);
    expect(server.sent[0]).toMatchObject({
      path: '/api/ledger/opening/preview',
      body: { text: 'what,name\nbars,Fiji', routeId: null },
    });
    expect(lines()).toEqual([
      'line 2Fiji 70 %: bars, 1 400 g, 20 pieces, 2026-09-01',
      'line 3weight is not a number; pieces is missing',
    ]);
    expect(screen.getByRole<HTMLButtonElement>('button', { name: '1 of 2 rows cannot be read yet' }).disabled).toBe(
      true,
    );
  });

  test('goes in whole, and says under which codes', async () => {
    const server = await page([good(2, 'Fiji 70 %'), good(3, 'Uganda 70 %')]);
    await press('Put all 2 in the book');
    expect(server.sent[1]).toMatchObject({
      path: '/api/ledger/opening/table',
      body: { text: 'what,name\nbars,Fiji', routeId: null, personId: 'ilse' },
    });
    const links = screen.getAllByRole('link', { name: /^T00/u });
    expect(links.map((link) => link.getAttribute('href'))).toEqual(['/tub/T001', '/tub/T002']);
    expect(screen.queryByRole('button', { name: /in the book$/u })).toBeTruthy();
  });

  test('on another route it is looked through again', async () => {
    const server = await page([good(2, 'Fiji 70 %')]);
    const [, route] = screen.getAllByRole('combobox', { name: /^Route/u });
    await hands.click(route as HTMLElement);
    await hands.click(screen.getByRole('option', { name: 'Whole bean' }));
    await screen.findAllByText(/^line 2/u);
    expect(server.sent.map(({ body }) => body['routeId'])).toEqual([null, 'r1']);
  });

  test('entered by nobody it is not, and without an answer only once', async () => {
    const nobody = await page([good(2, 'Fiji 70 %')], { personId: null });
    await press('Put all 1 in the book');
    expect(refusal()).toBe(NOBODY);
    expect(nobody.sent).toHaveLength(1);
    cleanup();
    const server = await page([good(2, 'Fiji 70 %')]);
    server.vanish();
    await press('Put all 1 in the book');
    await press('Put all 1 in the book');
    expect(server.sent).toHaveLength(3);
    expect(server.sent[1]?.key).toBe(server.sent[2]?.key);
  });

  test('what cannot be read at all says why', async () => {
    const server = await page([good(2, 'Fiji 70 %')]);
    server.refuse('There is no heading for what it is.');
    await give('x');
    expect((await screen.findByText('There is no heading for what it is.')).textContent).toBeTruthy();
    expect(screen.queryByRole('button', { name: /^Put all/u })).toBeNull();
  });
});

describe('one thing that is there already', () => {
  const page = (setting: Setting = {}): Server => {
    const server = new Server();
    show(<OpeningPage />, setting);
    return server;
  };

  test('is asked for what it is: bars by the piece, beans by where they come from', async () => {
    page();
    expect(field(/^Bars|^Pieces/u)).toBeTruthy();
    expect(screen.queryByLabelText(/^Producer/u)).toBeNull();
    await press('nibs');
    expect(screen.getByRole('button', { name: 'Raw' })).toBeTruthy();
    expect(field(/^Producer/u)).toBeTruthy();
  });

  test('a batch on the stones has to follow a route', async () => {
    const server = page();
    await press('a batch on the stones');
    await fill(/^What it is called/u, 'Fiji 70 %');
    await fill(/^Weight, all of it/u, '4000');
    await press('Put it in the book');
    expect(document.body.textContent).toContain('A batch on the stones follows a route: choose it.');
    expect(server.sent).toEqual([]);
  });
});

describe('who works here', () => {
  const PEOPLE = [
    { id: 'ilse', name: 'Ilse', active: true },
    { id: 'tomo', name: 'Tomo', active: false },
  ];
  const page = (): Server => {
    const server = new Server({}, () => ({ id: 'new' }));
    show(<Team />, { view: { people: PEOPLE } });
    return server;
  };

  test('somebody is added, renamed, away, and back', async () => {
    const server = page();
    await fill('Name', 'Danso');
    await hands.keyboard('{Enter}');
    await hands.click(screen.getAllByRole('button', { name: 'Rename' })[1] as HTMLElement);
    const [first] = screen.getAllByLabelText<HTMLInputElement>('Name');
    expect(first?.value).toBe('Tomo');
    await hands.clear(first as HTMLElement);
    await hands.type(first as HTMLElement, 'Tomo B');
    await press('Save the name');
    await press('Away');
    await press('Back');
    expect(server.sent.map(({ method, path, body }) => [method, path, body])).toEqual([
      ['POST', '/api/workshop/people', { name: 'Danso' }],
      ['PUT', '/api/workshop/people/tomo', { name: 'Tomo B', active: false }],
      ['PUT', '/api/workshop/people/ilse', { name: 'Ilse', active: false }],
      ['PUT', '/api/workshop/people/tomo', { name: 'Tomo', active: true }],
    ]);
  });

  test('a name that is refused stays to be mended', async () => {
    const server = page();
    server.refuse('Somebody is called Ilse already.');
    await fill('Name', 'Ilse');
    await press('Add');
    expect(refusal()).toBe('Somebody is called Ilse already.');
    expect(field('Name').value).toBe('Ilse');
  });
});

describe('the clock of the temper test', () => {
  const NOW = Date.UTC(2026, 10, 27, 9);
  const said = (): string => screen.getByRole('timer').textContent;
  const later = (minutes: number): void =>
    act(() => {
      jest.advanceTimersByTime(minutes * 60_000);
    });

  test('runs for five minutes, says what setting means by then, and survives a reload', () => {
    jest.useFakeTimers({ now: NOW });
    show(<TestClock />);
    act(() => screen.getByRole('button', { name: 'Test dipped' }).click());
    expect(said()).toContain('5:00');
    expect(said()).toContain('too much crystal');
    later(3.5);
    expect(said()).toContain('1:30');
    expect(said()).toContain('Set and glossy by now is well tempered.');
    cleanup();
    show(<TestClock />);
    expect(said()).toContain('1:30');
    later(2);
    expect(said()).toContain('0:00');
    expect(said()).toContain('not in temper');
    act(() => screen.getByRole('button', { name: 'Done' }).click());
    expect(screen.getByRole('button', { name: 'Test dipped' })).toBeTruthy();
  });

  test('one that was forgotten is not gone on with the next day', () => {
    jest.useFakeTimers({ now: NOW });
    localStorage.setItem('wunsch.temper-test', String(NOW - 24 * 3_600_000));
    show(<TestClock />);
    expect(screen.queryByRole('timer')).toBeNull();
  });
});
