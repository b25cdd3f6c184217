/** @jest-environment jsdom */
import { act, cleanup, render, screen } from '@testing-library/react';
import { MemoryRouter, useLocation } from 'react-router';
import { KEYS, useKeys } from '../src/app/keys';
import { SHORT_CUT_MS, useScanner } from '../src/app/scanner';

/* Keys anywhere on a page: a letter is a short cut, letters that come as fast as from a scanner are a code. */

const asked: string[] = [];
const links: Record<string, string> = { 'B018-1': '/trace/B018-1', T204: '/tub/T204' };
const calls = { palette: 0, help: 0, theme: 0 };
const failed: string[] = [];

function Page({ children }: { children?: React.ReactNode }) {
  useKeys({
    openPalette: () => (calls.palette += 1),
    openHelp: () => (calls.help += 1),
    turnTheme: () => (calls.theme += 1),
  });
  useScanner(fail);
  return (
    <>
      <p data-testid="at">{useLocation().pathname}</p>
      {children}
    </>
  );
}
const fail = (code: string): void => void failed.push(code);
const show = (children?: React.ReactNode) =>
  render(
    <MemoryRouter initialEntries={['/batches']}>
      <Page>{children}</Page>
    </MemoryRouter>,
  );
const at = (): string | null => screen.getByTestId('at').textContent;

let clock = 0;
/** A key, so many milliseconds after the last one. */
function press(key: string, afterMs: number, options: KeyboardEventInit & { on?: Element } = {}): void {
  clock += afterMs;
  const { on = document.body, ...init } = options;
  const event = new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true, ...init });
  Object.defineProperty(event, 'timeStamp', { value: clock });
  on.dispatchEvent(event);
}
const wait = (ms: number): Promise<void> =>
  act(async () => {
    clock += ms;
    await jest.advanceTimersByTimeAsync(ms);
  });
const scan = async (code: string, everyMs = 8): Promise<void> => {
  await act(async () => {
    for (const letter of code) press(letter, everyMs);
    press('Enter', everyMs);
    await jest.advanceTimersByTimeAsync(0);
  });
};

beforeEach(() => {
  // Long after whatever was typed in the test before.
  clock += 10_000;
  jest.useFakeTimers({ doNotFake: ['queueMicrotask'] });
  jest.spyOn(performance, 'now').mockImplementation(() => clock);
  asked.length = 0;
  failed.length = 0;
  Object.assign(calls, { palette: 0, help: 0, theme: 0 });
  globalThis.fetch = ((url: string) => {
    const code = decodeURIComponent(url.split('/').at(-1) ?? '');
    asked.push(code);
    return Promise.resolve({
      ok: true,
      status: 200,
      headers: new Map([['content-type', 'application/json']]),
      json: () => Promise.resolve({ link: links[code] ?? null }),
    });
  }) as never;
});
afterEach(() => {
  cleanup();
  jest.restoreAllMocks();
  jest.useRealTimers();
});

test.each([
  ['1', '/station/beans'],
  ['5', '/station/grind'],
  ['0', '/station/taste'],
  ['l', '/lots'],
  ['G', '/losses'],
  ['w', '/workshop'],
  ['f', '/'],
])('%s by itself leads to %s', async (key, path) => {
  show();
  press(key, 500);
  expect(at()).toBe('/batches');
  await wait(SHORT_CUT_MS);
  expect(at()).toBe(path);
});

test('the palette, the list of keys and the night have theirs', async () => {
  show();
  for (const key of ['/', '?', 'n']) {
    press(key, 500);
    await wait(SHORT_CUT_MS);
  }
  press('k', 500, { ctrlKey: true });
  expect(calls).toEqual({ palette: 2, help: 1, theme: 1 });
  // What is not in the list does nothing.
  press('q', 500);
  await wait(SHORT_CUT_MS);
  expect(at()).toBe('/batches');
  expect(KEYS.length).toBeGreaterThan(10);
});

test('in a field, with an entry begun or a dialog open, letters are not short cuts', async () => {
  show(
    <>
      <input aria-label="Note" />
      <form data-begun="true" />
    </>,
  );
  press('5', 500, { on: screen.getByLabelText('Note') });
  press('5', 500);
  await wait(SHORT_CUT_MS);
  expect(at()).toBe('/batches');
});

test('a code that comes as from a scanner opens what it names, whatever its first letter is a short cut for', async () => {
  show();
  await scan('B018-1');
  expect(asked).toEqual(['B018-1']);
  await wait(SHORT_CUT_MS);
  expect(at()).toBe('/trace/B018-1');
});

test('a scanner over the air may be late once', async () => {
  show();
  await act(async () => {
    press('T', 10);
    press('2', 120);
    for (const letter of '04') press(letter, 5);
    press('Enter', 5);
    await jest.advanceTimersByTimeAsync(0);
  });
  await wait(SHORT_CUT_MS);
  expect([asked, at()]).toEqual([['T204'], '/tub/T204']);
});

test('what a hand types is no code', async () => {
  show();
  await act(async () => {
    for (const letter of 'T204') press(letter, 140);
    press('Enter', 140);
    await jest.advanceTimersByTimeAsync(0);
  });
  expect(asked).toEqual([]);
});

test('a code that is nowhere is told', async () => {
  show();
  await scan('X999');
  expect([asked, failed]).toEqual([['X999'], ['X999']]);
  await wait(SHORT_CUT_MS);
  expect(at()).toBe('/batches');
});

test('an address of our own is opened as it is; another one is not', async () => {
  show();
  await scan('https://shop.example/tub/T204?x=1');
  await wait(SHORT_CUT_MS);
  expect([asked, at()]).toEqual([[], '/tub/T204']);
  await wait(500);
  await scan('https://elsewhere.example/prices');
  expect(failed).toEqual(['https://elsewhere.example/prices']);
});

test('a tally takes every key, however fast', async () => {
  show(<div data-takes-keys />);
  await scan('B018-1');
  expect(asked).toEqual([]);
});

test('what is scanned into a field belongs there', async () => {
  show(<input aria-label="Note" />);
  const on = screen.getByLabelText('Note');
  await act(async () => {
    for (const letter of 'B018-1') press(letter, 8, { on });
    press('Enter', 8, { on });
    await jest.advanceTimersByTimeAsync(0);
  });
  expect(asked).toEqual([]);
});
