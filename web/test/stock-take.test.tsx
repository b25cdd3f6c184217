/** @jest-environment jsdom */
import { cleanup, screen } from '@testing-library/react';
import type { StockTakeRow } from '@wunsch/core/api/losses';
import { StockTakePage } from '../src/losses/StockTakePage';
import { NOBODY } from '../src/parts/save';
import { field, fill, pick, press, refusal, Server, show, type Setting } from './page';

/* Counting what is really there: what differs is booked with its cause, and what was typed is never lost. */

const row = (id: string, code: string, kind: string, grams: number, pieces = 0, usual: StockTakeRow['usual'] = null) =>
  ({
    holding: { id, code, kind, name: kind, massMg: grams * 1000, pieces, freeMg: grams * 1000 },
    usual,
  }) as unknown as StockTakeRow;

const ROWS = [
  row('l1', 'L001', 'lot', 55_000),
  row('n1', 'T010', 'nibs', 1_500, 0, { n: 5, mean: -0.01, low: -0.02, high: 0 }),
  row('b1', 'B050-1', 'packed', 7_000, 100),
  row('w1', 'P003', 'packaging', 0, 400),
];

const page = async (rows: StockTakeRow[] = ROWS, setting: Setting = {}): Promise<Server> => {
  const server = new Server({ '/api/losses/stock-take': { rows } });
  show(<StockTakePage />, setting);
  await screen
    .findByRole(rows.length === 0 ? 'link' : 'heading', rows.length === 0 ? {} : { level: 1 })
    .catch(() => null);
  return server;
};

beforeEach(() => localStorage.clear());
afterEach(cleanup);

test('each is counted as it is kept: sacks in kilograms, tubs in grams, bars and wrappers by the piece', async () => {
  const server = await page();
  await fill('L001, really there, kg', '54.5');
  await fill('T010, really there, g', '1480');
  await fill('B050-1, really there, pieces', '98');
  await fill('P003, really there, pieces', '400');
  expect(screen.getByText('0.9 % short')).toBeTruthy();
  expect(screen.getByText('1.3 % short, as usual')).toBeTruthy();
  expect(screen.getByText('as booked')).toBeTruthy();
  await press('Book 4 counts');
  expect(server.sent[0]).toMatchObject({
    path: '/api/losses/stock-takes',
    body: {
      personId: 'ilse',
      note: '',
      counts: [
        { holdingId: 'l1', cause: 'unaccounted', countedG: 54_500 },
        { holdingId: 'n1', cause: 'unaccounted', countedG: 1480 },
        { holdingId: 'b1', cause: 'unaccounted', countedPieces: 98 },
        { holdingId: 'w1', cause: 'unaccounted', countedPieces: 400 },
      ],
    },
  });
  expect(screen.getByRole('status').textContent).toBe('4 counts are in the book.');
  expect(field('L001, really there, kg').value).toBe('');
});

test('what is less has a cause to choose, what is more has none', async () => {
  const server = await page();
  await fill('B050-1, really there, pieces', '104');
  expect(screen.queryByRole('combobox', { name: 'B050-1, cause' })).toBeNull();
  expect(screen.getByText('4.0 % over')).toBeTruthy();
  await fill('B050-1, really there, pieces', '90');
  await pick('B050-1, cause', 'Samples');
  await fill('A word with it', 'tasting at the fair');
  await press('Book one count');
  expect(server.sent[0]?.body).toMatchObject({
    note: 'tasting at the fair',
    counts: [{ holdingId: 'b1', cause: 'sample', countedPieces: 90 }],
  });
});

test('a count that is off what is usual says what is usual', async () => {
  await page();
  await fill('T010, really there, g', '1350');
  expect(screen.getByText('10.0 % short, usually -2.0 to 0.0 %').className).toContain('crimson');
  expect(screen.getByText(/5 counts before: -1\.0 % on the mean/)).toBeTruthy();
});

test('a figure that is none is told with its tub, and nothing is booked', async () => {
  const server = await page();
  await fill('L001, really there, kg', '54.5');
  await fill('T010, really there, g', '14o0');
  await press('Book one count');
  expect(refusal()).toBe('T010: “14o0” is not a number.');
  expect(server.sent).toEqual([]);
  expect(field('L001, really there, kg').value).toBe('54.5');
});

test('nothing counted, nobody at the bench: told before anything is sent', async () => {
  const server = await page();
  await press('Book 0 counts');
  expect(refusal()).toBe('Count something first.');
  cleanup();
  const other = await page(ROWS, { personId: null });
  await fill('L001, really there, kg', '54');
  await press('Book one count');
  expect(refusal()).toBe(NOBODY);
  expect([...server.sent, ...other.sent]).toEqual([]);
});

test('half a stock-take survives a reload, and a refusal', async () => {
  const server = await page();
  await fill('L001, really there, kg', '60');
  server.refuse('55 kg came into L001: 60 kg cannot be there.');
  await press('Book one count');
  expect(refusal()).toContain('60 kg cannot be there');
  cleanup();
  await page();
  expect(field('L001, really there, kg').value).toBe('60');
});

test('pounds and ounces are taken where the workshop weighs in them', async () => {
  const server = await page(ROWS, { settings: { massSystem: 'imperial' } });
  await fill('L001, really there, lb', '120');
  await fill('T010, really there, oz', '52');
  await press('Book 2 counts');
  const [sack, tub] = server.sent[0]?.body['counts'] as { countedG: number }[];
  expect(sack?.countedG).toBeCloseTo(54_431.1, 1);
  expect(tub?.countedG).toBeCloseTo(1474.175, 2);
});

test('where nothing stands here, that is said', async () => {
  new Server({ '/api/losses/stock-take': { rows: [] } });
  show(<StockTakePage />);
  expect(await screen.findByText('There is nothing to count.')).toBeTruthy();
});
