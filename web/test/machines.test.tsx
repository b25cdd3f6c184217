/** @jest-environment jsdom */
import { cleanup, screen, within } from '@testing-library/react';
import type { WorkshopView } from '@wunsch/core/api/types';
import { NOBODY } from '../src/parts/save';
import { Machines } from '../src/workshop/MachineSection';
import { field, fill, hands, pick, press, refusal, Server, show, type Setting } from './page';

/* Machines: added, changed, cleaned, looked after, and retired. */

type Machine = WorkshopView['machines'][number];
const OVEN: Machine = { id: 'm1', name: 'Deck oven', station: 'roast', minG: null, maxG: 6000, kw: 3 };
const STONES: Machine = {
  id: 'm2',
  name: 'Small stones',
  station: 'grind',
  minG: 4000,
  maxG: 10_000,
  kw: 0.5,
  rpm: 110,
};
const OLD: Machine = { id: 'm3', name: 'First stones', station: 'grind', minG: null, maxG: null, kw: 0, retired: true };

const GRINDER = {
  grinds: 1,
  hours: { run: 61.4, sinceDressed: 61.4, sinceServiced: 61.4 },
  fill: { sentence: null, said: { least: false, most: false }, least: null, most: null },
  due: [],
  services: [],
};
const nothing = { carries: [], cleanings: [] };

const page = (more: Record<string, unknown> = {}, setting: Setting = {}): Server => {
  const server = new Server({
    '/api/workshop/machines/m1/allergens': nothing,
    '/api/workshop/machines/m2/allergens': nothing,
    '/api/workshop/machines/m3/allergens': nothing,
    '/api/grind/machines/m2': GRINDER,
    '/api/grind/machines/m3': GRINDER,
    ...more,
  });
  show(<Machines />, { view: { machines: [OLD, OVEN, STONES] }, ...setting });
  return server;
};
const row = (name: string): HTMLElement => screen.getByText(name).closest('li') as HTMLElement;
const open = async (name: string): Promise<HTMLElement> => {
  await hands.click(within(row(name)).getByRole('button', { name: 'Open' }));
  return screen.getByRole('group', { name });
};

beforeEach(() => localStorage.clear());
afterEach(cleanup);

test('each says where it stands, what it carries and draws; what is retired stands last', () => {
  page();
  const rows = screen.getAllByRole('listitem').map(({ textContent }) => textContent.replaceAll('\u00a0', ' '));
  expect(rows).toEqual([
    'Deck ovenRoast, up to 6 000 g, 3 kWOpen',
    'Small stonesGrind, 4.00 kg to 10.00 kg, 0.5 kWOpen',
    'First stonesGrind, no longer usedOpen',
  ]);
});

test('one is retired, and taken back; nothing else of it changes', async () => {
  const server = page();
  await open('Small stones');
  await hands.click(screen.getByRole('checkbox', { name: 'No longer used' }));
  await press('Save');
  expect(server.sent[0]).toMatchObject({
    method: 'PUT',
    path: '/api/workshop/machines/m2',
    body: { name: 'Small stones', station: 'grind', minG: 4000, maxG: 10_000, kw: 0.5, rpm: 110, retired: true },
  });
  await open('First stones');
  const used = screen.getByRole('checkbox', { name: 'No longer used' });
  expect((used as HTMLInputElement).checked || used.getAttribute('aria-checked') === 'true').toBe(true);
  await hands.click(used);
  await press('Save');
  expect(server.sent[1]).toMatchObject({ path: '/api/workshop/machines/m3', body: { retired: false } });
});

test('a new one is asked whether it is retired by nobody', async () => {
  const server = page();
  await press('Add a machine');
  expect(screen.queryByRole('checkbox', { name: 'No longer used' })).toBeNull();
  await fill('Machine', 'Tempering machine');
  await pick('Station', 'Temper');
  await fill(/^Most/u, '12');
  await press('Add');
  expect(server.sent[0]).toMatchObject({
    method: 'POST',
    path: '/api/workshop/machines',
    body: { name: 'Tempering machine', station: 'temper', maxG: 12_000, minG: null, kw: 0 },
  });
});

test('what cannot be is told at its field, and nothing is sent', async () => {
  const server = page();
  await press('Add a machine');
  await fill('Machine', 'Second stones');
  await fill(/^Least/u, '9');
  await fill(/^Most/u, '8');
  await fill(/^Power/u, 'much');
  await press('Add');
  expect(screen.getByText('is more than the most')).toBeTruthy();
  expect(screen.getByText('is not a number')).toBeTruthy();
  expect(refusal()).toBe('Look again at what is marked.');
  expect(server.sent).toEqual([]);
});

test('a grinder is asked what it does; a mill of blades is coarse', async () => {
  const server = page();
  await press('Add a machine');
  await fill('Machine', 'Kitchen mill');
  await press('Grinds coarse');
  expect(screen.getByText(/texture is described, passes are counted/u)).toBeTruthy();
  await press('Add');
  expect(server.sent[0]?.body).toMatchObject({ station: 'grind', coarse: true, conches: false });
});

test('a name that is taken is refused at its field, and what was typed stays', async () => {
  const server = page();
  await press('Add a machine');
  await fill('Machine', 'Deck oven');
  server.refuse('There is a Deck oven already.', [{ path: 'name', message: 'is there already' }]);
  await press('Add');
  expect(refusal()).toBe('There is a Deck oven already.');
  expect(field('Machine').getAttribute('aria-invalid')).toBe('true');
  expect(field('Machine').value).toBe('Deck oven');
});

describe('allergens', () => {
  const seen = {
    carries: [{ allergen: 'hazelnut', code: 'B071', at: Date.UTC(2026, 10, 20) }],
    cleanings: [{ at: Date.UTC(2026, 9, 1), person: 'Tomo', how: 'Taken apart' }],
  };

  test('what it saw last and when it was cleaned of it', async () => {
    page({ '/api/workshop/machines/m1/allergens': seen });
    await open('Deck oven');
    expect(await screen.findByText(/Last allergens: hazelnut in B071, 20 Nov 2026\./u)).toBeTruthy();
    expect(screen.getByText('Cleaned 1 Oct 2026 by Tomo: Taken apart.')).toBeTruthy();
  });

  test('none, and no cleaning, is said too', async () => {
    page();
    await open('Deck oven');
    expect(await screen.findByText(/It has seen no allergen since/u)).toBeTruthy();
    expect(screen.getByText('No cleaning is recorded.')).toBeTruthy();
  });

  test('a cleaning has its word and who did it', async () => {
    const server = page();
    await open('Deck oven');
    await fill('Cleaned of allergens, how', 'Hot water, dried');
    await press('Cleaned now');
    expect(server.sent[0]).toMatchObject({
      path: '/api/workshop/machines/m1/cleanings',
      body: { personId: 'ilse', how: 'Hot water, dried' },
    });
    expect(field('Cleaned of allergens, how').value).toBe('');
    cleanup();
    const nobody = page({}, { personId: null });
    await open('Deck oven');
    await press('Cleaned now');
    expect(refusal()).toBe(NOBODY);
    expect(nobody.sent).toEqual([]);
  });
});

describe('upkeep of a grinder', () => {
  test('its hours, what is due, what was done', async () => {
    page({
      '/api/grind/machines/m2': {
        ...GRINDER,
        grinds: 12,
        due: ['Its stones are to be dressed: 61 h since, every 50.'],
        services: [{ at: Date.UTC(2026, 9, 1), what: 'dressed', note: 'light', person: 'Tomo' }],
      },
    });
    await open('Small stones');
    const box = within(await screen.findByRole('group', { name: 'Upkeep of Small stones' }));
    expect(box.getByText(/61 h run in 12 bowls; 61 h since its stones were dressed/u)).toBeTruthy();
    expect(box.getByText('Its stones are to be dressed: 61 h since, every 50.')).toBeTruthy();
    expect(box.getByText('Stones dressed 1 Oct 2026 by Tomo: light')).toBeTruthy();
    expect(screen.queryByRole('group', { name: 'Upkeep of Deck oven' })).toBeNull();
  });

  test('what was done is kept with its word', async () => {
    const server = page();
    await open('Small stones');
    await screen.findByRole('group', { name: 'Upkeep of Small stones' });
    await fill(/^What was done/u, 'new bearings');
    await press('Repaired');
    expect(server.sent[0]).toMatchObject({
      path: '/api/workshop/machines/m2/services',
      body: { personId: 'ilse', what: 'repaired', note: 'new bearings' },
    });
  });

  test('what its bowls taught becomes its most by one press, and its plate is kept', async () => {
    const server = page({
      '/api/grind/machines/m2': {
        ...GRINDER,
        fill: {
          sentence: 'It really carries about 8.3 kg.',
          said: { least: false, most: true },
          least: null,
          most: { p50: 8_340 },
        },
      },
    });
    await open('Small stones');
    await hands.click(await screen.findByRole('button', { name: 'Count with that' }));
    expect(server.sent[0]?.body).toMatchObject({
      name: 'Small stones',
      maxG: 8300,
      minG: 4000,
      plateMaxG: 10_000,
      plateMinG: 4000,
    });
  });
});
