/** @jest-environment jsdom */
import { cleanup, screen } from '@testing-library/react';
import type { WindowsView } from '@wunsch/core/api/temper';
import type { BenchView } from '@wunsch/core/api/types';
import { USUAL_WINDOWS, type Windows } from '@wunsch/core/temper/windows';
import { NOBODY } from '../src/parts/save';
import { WindowsPanel } from '../src/temper/WindowsPanel';
import { field, fill, press, refusal, Server, show, toldAt, type Setting } from './page';

/* Where a bowl is melted out, cooled and worked: said in the maker's degrees, and given to a bar of its own. */

const DARK = USUAL_WINDOWS.dark;
const OWN: Windows = { ...DARK, work: { from: 31.5, to: 32.3 }, hold: { from: 31, to: 32.8, minutes: 50 } };
const windows = (more: Partial<WindowsView> = {}): WindowsView => ({
  code: 'B051-1',
  subject: 'recipe:dark',
  subjectName: 'Fiji 70 %',
  chocolate: 'dark',
  windows: DARK,
  because: 'Usual for dark.',
  own: false,
  usual: DARK,
  fatShare: 0.38,
  softShare: 0,
  ...more,
});
const bench = (waiting: object[] = [{ code: 'B051-1', freeMg: 3_000_000 }]): BenchView =>
  ({ works: [], waiting }) as unknown as BenchView;

const PATH = '/api/temper/windows/B051-1';
const page = async (of = windows(), setting: Setting = {}, learned: object | null = null): Promise<Server> => {
  const server = new Server({
    [PATH]: of,
    '/api/temper/windows/B052-1': windows({ code: 'B052-1', windows: USUAL_WINDOWS.milk, chocolate: 'milk' }),
    '/api/temper/learned/B051-1': { settings: learned === null ? [] : [learned] },
  });
  show(<WindowsPanel view={bench()} />, setting);
  await screen.findByRole('region', { name: 'Windows' });
  return server;
};
const said = (): string => screen.getByRole('region', { name: 'Windows' }).textContent.replaceAll('\u00a0', ' ');
const boxes = (): string[] =>
  [...document.querySelectorAll<HTMLInputElement>('[role=group] input')].map(({ value }) => value);
const F: Setting = { settings: { temperatureUnit: 'F' } };

beforeEach(() => localStorage.clear());
afterEach(cleanup);

test('they are said in degrees Celsius', async () => {
  await page();
  expect(said()).toContain('melt 45 to 50 °C, cool 27 to 28 °C, work 31 to 32 °C, hold 30.5 to 32.5 °C for 75 min.');
});

test('and in degrees Fahrenheit', async () => {
  await page(windows(), F);
  expect(said()).toContain('melt 113 to 122 °F, cool 80.6 to 82.4 °F, work 87.8 to 89.6 °F');
});

test('nothing is said where nothing is to be tempered', () => {
  new Server();
  show(<WindowsPanel view={bench([])} />);
  expect(screen.queryByRole('region', { name: 'Windows' })).toBeNull();
});

describe('a bar gets its own', () => {
  test('typed in Celsius', async () => {
    const server = await page();
    await press('Give it its own');
    expect(boxes()).toEqual(['45', '50', '27', '28', '31', '32', '30.5', '32.5', '75', '']);
    await fill('Work from (°C)', '31.4');
    await fill('Hold for (min)', '50');
    await fill('Why, in a word', 'thick');
    await press('Keep these windows');
    expect(server.sent[0]).toMatchObject({
      method: 'POST',
      path: PATH,
      body: {
        personId: 'ilse',
        why: 'thick',
        windows: { ...DARK, work: { from: 31.4, to: 32 }, hold: { from: 30.5, to: 32.5, minutes: 50 } },
      },
    });
    expect(screen.queryByRole('button', { name: 'Keep these windows' })).toBeNull();
  });

  test('typed in Fahrenheit they are the same; what is not touched stays to the tenth', async () => {
    const server = await page(windows(), F);
    await press('Give it its own');
    expect(boxes().slice(0, 6)).toEqual(['113', '122', '80.6', '82.4', '87.8', '89.6']);
    await fill('Work to (°F)', '90.5');
    await press('Keep these windows');
    const sent = server.sent[0]?.body['windows'] as Windows;
    expect(sent.work.from).toBe(31);
    expect(sent.work.to).toBeCloseTo(32.5, 6);
    expect(sent.melt).toEqual(DARK.melt);
  });

  test.each([
    ['Cool from (°C)', 'x', 'is not a number'],
    ['Melt to (°C)', '', 'is missing'],
    ['Melt to (°C)', '90', 'is hotter than anybody melts it'],
    ['Melt to (°C)', '40', 'ends before it begins'],
    ['Work from (°C)', '26', 'is not over what it is cooled to'],
    ['Hold from (°C)', '31.5', 'leaves a part of the work out'],
    ['Hold for (min)', '2', 'are fewer than filling takes'],
  ])('%s: “%s” is refused there: %s', async (name, text, problem) => {
    const server = await page();
    await press('Give it its own');
    await fill(name, text);
    await press('Keep these windows');
    expect(server.sent).toEqual([]);
    const box = field(name);
    expect(box.getAttribute('aria-invalid')).toBe('true');
    expect(toldAt(name)).toContain(problem);
    expect(box.value).toBe(text);
  });

  test('half typed they are there after a reload', async () => {
    await page();
    await press('Give it its own');
    await fill('Work from (°C)', '31.4');
    cleanup();
    await page();
    await press('Give it its own');
    expect(field('Work from (°C)').value).toBe('31.4');
    await press('Leave it');
    await press('Give it its own');
    expect(field('Work from (°C)').value).toBe('31');
  });

  test('of what was learned, or of the usual, by one press', async () => {
    const server = await page(windows({ windows: OWN, own: true }), {}, { sentence: 'Best at 31.8.', windows: OWN });
    expect(said()).toContain('Best at 31.8.');
    await press('Its own windows');
    expect(boxes()[4]).toBe('31.5');
    await press('Fill in the usual');
    expect(boxes()).toEqual(['45', '50', '27', '28', '31', '32', '30.5', '32.5', '75', '']);
    await press('Fill in what was learned');
    expect(boxes().slice(4)).toEqual(['31.5', '32.3', '31', '32.8', '50', 'learned from pours that set']);
    await press('Keep these windows');
    expect(server.sent[0]?.body).toMatchObject({ windows: OWN, why: 'learned from pours that set' });
  });

  test('and goes by the usual again', async () => {
    const server = await page(windows({ windows: OWN, own: true }));
    await press('Its own windows');
    await fill('Why, in a word', 'new beans');
    await press('Go by the usual again');
    expect(server.sent[0]?.body).toEqual({ personId: 'ilse', windows: null, why: 'new beans' });
  });

  test('only by somebody', async () => {
    const server = await page(windows({ own: true }), { personId: null });
    await press('Its own windows');
    await press('Keep these windows');
    expect(refusal()).toBe(NOBODY);
    await press('Go by the usual again');
    expect(server.sent).toEqual([]);
  });

  test('what the server refuses stands at its field', async () => {
    const server = await page();
    await press('Give it its own');
    server.refuse('The windows cannot be so.', [{ path: 'windows.cool.to', message: 'is over the work' }]);
    await fill('Cool to (°C)', '29');
    await press('Keep these windows');
    expect(field('Cool to (°C)').getAttribute('aria-invalid')).toBe('true');
    expect(field('Cool to (°C)').value).toBe('29');
  });
});

describe('the sums of a school', () => {
  const sum = (): string => document.querySelector('.figure.text-xl')?.textContent.replaceAll(/\s/gu, ' ') ?? '(none)';
  const open = async (setting: Setting = {}): Promise<void> => {
    await page(windows(), setting);
    await press('Work it out');
  };

  test('a slab: 3 kg, 40 kept warm, 27 back, 31.5 wanted are 4.5 of 13 degrees', async () => {
    await open();
    expect(sum()).toBe('Keep 1 039 g warm (35 %), spread 1 962 g.');
    await fill('Bowl of steel (kg)', '1');
    expect(sum()).not.toBe('Keep 1 039 g warm (35 %), spread 1 962 g.');
  });

  test('the same in Fahrenheit', async () => {
    await open(F);
    expect(field('Kept warm (°F)').value).toBe('104');
    expect(field('Back from the slab (°F)').value).toBe('80.6');
    expect(sum()).toBe('Keep 1 039 g warm (35 %), spread 1 962 g.');
  });

  test('a figure that is none has no sum, and is told at its field; so has an empty one', async () => {
    await open();
    await fill('Bowl of steel (kg)', 'l');
    expect(field('Bowl of steel (kg)').getAttribute('aria-invalid')).toBe('true');
    expect(sum()).toBe('(none)');
    await fill('Bowl of steel (kg)', '');
    expect(sum()).toBe('(none)');
    expect(screen.getByText(/Fill in what is empty/u)).toBeTruthy();
    await fill('Bowl of steel (kg)', '0');
    expect(sum()).toBe('Keep 1 039 g warm (35 %), spread 1 962 g.');
  });

  test('what no share can do says what to do', async () => {
    await open();
    await fill('Kept warm (°C)', '31');
    expect(sum()).toBe('(none)');
    expect(screen.getByRole('status').textContent).toContain('warm it more');
  });

  test('seed goes in in thirds, and of it melts what is said', async () => {
    await open();
    await press('Seed');
    const before = sum();
    expect(before).toMatch(/of seed, in thirds/u);
    await fill('Of it melts (%)', '100');
    expect(sum()).not.toBe(before);
    await fill('Of it melts (%)', '700');
    expect(screen.getByRole('status').textContent).toContain('all of it at the most');
  });

  test('silk is held where it is a paste, in the maker’s degrees', async () => {
    await open(F);
    await press(/^Silk/u);
    expect(sum()).toContain('30 g of silk (1 %) at 92.3 °F');
    expect(screen.getByText(/held at 91.4 to 93.2.°F/u)).toBeTruthy();
  });
});
