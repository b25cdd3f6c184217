/** @jest-environment jsdom */
import { cleanup, screen, within } from '@testing-library/react';
import { useState } from 'react';
import type { DueItem } from '@wunsch/core/api/types';
import { DueLine, untilWords } from '../src/app/DueLine';
import { Palette } from '../src/app/Palette';
import { address, hands, press, Server, show } from './page';

/* The two ways to anywhere: any code, name or page by typing it; and what needs somebody next, at the foot. */

afterEach(() => {
  cleanup();
  jest.useRealTimers();
});

describe('by typing', () => {
  const HITS = [
    { code: 'B050-1', name: 'Fiji 70 %', detail: '120 packed', link: '/tub/B050-1' },
    { code: 'B050', name: 'Fiji 70 %', detail: 'ground in May', link: '/batch/B050' },
  ];
  function Found() {
    const [open, setOpen] = useState(true);
    return (
      <>
        <button type="button" onClick={() => setOpen(true)}>
          Find
        </button>
        <Palette open={open} setOpen={setOpen} />
      </>
    );
  }
  const page = (): Server => {
    const server = new Server({ '/api/trace/search?q=b050': HITS, '/api/trace/search?q=zzz': [] });
    show(<Found />);
    return server;
  };
  const options = (): string[] => screen.queryAllByRole('option').map(({ textContent }) => textContent);
  const type = (text: string): Promise<void> => hands.type(screen.getByPlaceholderText(/^Code on a bar/u), text);

  test('as it comes it offers the ten stations with their digits, and the pages; nothing is asked for', () => {
    const server = page();
    expect(options().slice(0, 10)).toEqual([
      ...['Beans1', 'Sort2', 'Roast3', 'Winnow4', 'Grind5', 'Rest6', 'Temper7', 'Mould8', 'Pack9', 'Taste0'],
    ]);
    expect(options()).toContain('Complaints and recalls');
    expect(server.asked).toEqual([]);
  });

  test('a code finds what carries it, Enter goes to the first, and the next search begins empty', async () => {
    page();
    await type('b050');
    await screen.findByText('120 packed');
    expect(options()).toEqual(['B050-1Fiji 70 %120 packed', 'B050Fiji 70 %ground in May']);
    await hands.keyboard('{ArrowDown}{Enter}');
    expect(address).toBe('/batch/B050');
    expect(screen.queryByRole('dialog')).toBeNull();
    await press('Find');
    expect(options()).toHaveLength(options().length);
    expect(screen.getByPlaceholderText<HTMLInputElement>(/^Code on a bar/u).value).toBe('');
  });

  test('a part of its name finds a page or a station', async () => {
    page();
    await type('blind');
    expect(options()).toEqual(['Blind sessions']);
    await hands.keyboard('{Enter}');
    expect(address).toBe('/sessions');
  });

  test('where nothing is called that, it says so; Escape leaves all as it was', async () => {
    page();
    await type('zzz');
    expect(await screen.findByText('Nothing here carries that code, name or word.')).toBeTruthy();
    await hands.keyboard('{Escape}');
    expect(screen.queryByRole('dialog')).toBeNull();
    expect(address).toBe('/');
  });
});

describe('what is next', () => {
  const NOW = Date.UTC(2026, 10, 27, 9);
  const MIN = 60_000;
  const due = (id: string, station: string, minutes: number, text = `${station} ${id}`): DueItem =>
    ({ id, station, at: NOW + minutes * MIN, text, link: `/station/${station}?due=${id}` }) as DueItem;
  const page = (rows: DueItem[] | undefined): void => {
    jest.useFakeTimers({ now: NOW });
    show(<DueLine due={rows} />);
  };
  const said = (): string[] =>
    screen.queryAllByRole('listitem').map(({ textContent }) => textContent.replaceAll('\u00a0', ' '));

  test('each says what, and in how long or how much over; and leads there', () => {
    page([due('a', 'grind', -75), due('b', 'roast', 0), due('c', 'temper', 12), due('d', 'rest', 3 * 1440)]);
    expect(said()).toEqual(['grind a1 h 15 min over', 'roast bnow', 'temper cin 12 min', 'rest din 3 days']);
    const [first] = screen.getAllByRole('link');
    expect(first?.getAttribute('href')).toBe('/station/grind?due=a');
    expect(within(first as HTMLElement).getByText('1 h 15 min over').className).toContain('crimson');
  });

  test('before the floor was read nothing is said; where nothing is due, that', () => {
    page(undefined);
    expect(screen.getByRole('contentinfo').textContent).toBe('Next');
    cleanup();
    page([]);
    expect(screen.getByRole('contentinfo').textContent).toContain('Nothing needs a person now.');
  });

  test('blocks that come off the shelf within an hour are one thing to do; others stay apart', () => {
    const block = (id: string, minutes: number): DueItem => ({ ...due(id, 'rest', minutes), together: true });
    page([block('a', 600), block('b', 630), block('c', 900), due('d', 'grind', 610), due('e', 'grind', 620)]);
    expect(said().map((row) => row.slice(0, 7))).toEqual(['rest ai', 'rest ci', 'grind d', 'grind e']);
  });

  test('no more than can be read at a glance', () => {
    page(Array.from({ length: 20 }, (_, i) => due(String(i), 'grind', i)));
    expect(said()).toHaveLength(8);
  });

  test.each([
    [NOW + 59_000, 'now'],
    [NOW - 59_000, 'now'],
    [NOW + 5 * MIN, 'in 5 min'],
    [NOW - 26 * 60 * MIN, '1 day over'],
  ])('%d: %s', (at, words) => {
    expect(untilWords(at, NOW).replaceAll('\u00a0', ' ')).toBe(words);
  });
});
