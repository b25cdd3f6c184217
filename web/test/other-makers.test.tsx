/** @jest-environment jsdom */
import { cleanup, screen } from '@testing-library/react';
import type { OutsideView } from '@wunsch/core/api/taste';
import { NOBODY } from '../src/parts/save';
import { OtherMakersPage } from '../src/taste/OtherMakersPage';
import { field, fill, hands, press, refusal, Server, show, toldAt, type Setting } from './page';

/* Bars of other makers: bought, described, tasted. */

const BAR: OutsideView = {
  id: 'o1',
  at: Date.UTC(2026, 9, 3),
  person: 'Tomo',
  bar: {
    maker: 'Harbour Bakers',
    bar: 'Dark sea',
    origin: 'Fiji',
    cocoaPct: 72,
    batch: '',
    bestBefore: '2027-05-31',
    massG: 60,
    price: null,
    note: 'bought at the fair',
  },
  photos: [],
  sheets: 2,
  score: 6.4,
};
const page = async (bars: OutsideView[] = [BAR], setting: Setting = {}): Promise<Server> => {
  const server = new Server({ '/api/taste/outside': { bars } });
  show(<OtherMakersPage />, setting);
  await screen.findByRole('heading', { level: 1 });
  return server;
};

beforeEach(() => localStorage.clear());
afterEach(cleanup);

test('each says what is known of it, and nothing of what is not', async () => {
  await page();
  const row = screen.getByRole('listitem').textContent.replaceAll('\u00a0', ' ');
  expect(row).toContain('Harbour Bakers, Dark sea6.4Taste it again');
  expect(row).toContain('Fiji, 72 %, 60 g, best before 2027-05-31, kept by Tomo');
  expect(screen.getByRole('link', { name: 'Taste it again' }).getAttribute('href')).toBe('/tasting?outside=o1');
});

test('one is kept with its figures; what is left empty is not known', async () => {
  const server = await page([]);
  expect(screen.getByText('None yet.')).toBeTruthy();
  await fill('Maker', 'Salt Street');
  await fill('Bar', 'Milk and nuts');
  await fill('Cocoa (%)', '45,5');
  await fill('Price (EUR)', '6.2');
  await fill('Best before', '31 May 2027');
  await press('Keep it');
  expect(server.sent[0]).toMatchObject({
    path: '/api/taste/outside',
    body: {
      personId: 'ilse',
      bar: {
        maker: 'Salt Street',
        bar: 'Milk and nuts',
        origin: '',
        cocoaPct: 45.5,
        massG: null,
        price: 6.2,
        bestBefore: '2027-05-31',
      },
    },
  });
  expect(field('Maker').value).toBe('');
});

test.each([
  ['Maker', '', 'is missing'],
  ['Cocoa (%)', 'seventy', 'is not a number'],
  ['Cocoa (%)', '170', 'is 0 to 100'],
  ['Weight (g)', '0', 'must be more than 0'],
  ['Price (EUR)', '-1', 'cannot be below 0'],
])('%s: “%s” is refused at its field: %s', async (name, text, problem) => {
  const server = await page([]);
  await fill('Maker', 'Salt Street');
  await fill('Bar', 'Milk');
  await fill(name, text);
  await press('Keep it');
  expect(server.sent).toEqual([]);
  expect(toldAt(name)).toContain(problem);
  expect(field('Bar').value).toBe('Milk');
});

test('half described it is there after a reload, and in another moment entered once', async () => {
  await page([]);
  await fill('Maker', 'Salt Street');
  cleanup();
  const server = await page([]);
  expect(field('Maker').value).toBe('Salt Street');
  await fill('Bar', 'Milk');
  server.vanish();
  await press('Keep it');
  expect(field('Bar').value).toBe('Milk');
  await hands.click(screen.getByRole('button', { name: 'Keep it' }));
  expect(server.sent).toHaveLength(2);
  expect(server.sent[0]?.key).toBe(server.sent[1]?.key);
});

test('only by somebody', async () => {
  const server = await page([], { personId: null });
  await fill('Maker', 'Salt Street');
  await fill('Bar', 'Milk');
  await press('Keep it');
  expect(refusal()).toBe(NOBODY);
  expect(server.sent).toEqual([]);
});
