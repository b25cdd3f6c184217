/** @jest-environment jsdom */
import { cleanup, screen } from '@testing-library/react';
import type { BeanLotView } from '@wunsch/core/api/beans';
import { HarvestEntries } from '../src/beans/HarvestEntries';
import { NOBODY } from '../src/parts/save';
import { field, fill, hands, press, refusal, Server, show, type Setting } from './page';

/* Wet beans on their way to dry ones: what is read at the heap and on the racks, and the last weighing. */

const LOT = { id: 'h7', code: 'L012' } as BeanLotView;
const page = (setting: Setting = {}, dryingBegun = false): Server => {
  const server = new Server();
  show(<HarvestEntries lot={LOT} dryingBegun={dryingBegun} />, setting);
  return server;
};
const record = ({ sent }: Server): unknown => sent.at(-1)?.body['record'];

beforeEach(() => localStorage.clear());
afterEach(cleanup);

test('a heap is read: warm in its core and on top, how it smells, that it was turned', async () => {
  const server = page();
  await fill('Middle (°C)', '46,5');
  await fill('Below the top (°C)', '44');
  await hands.click(screen.getByRole('checkbox', { name: /^Turned/u }));
  await press('Save the reading');
  expect(server.sent[0]?.path).toBe('/api/beans/lots/L012/records');
  expect(record(server)).toMatchObject({ kind: 'ferment', coreC: 46.5, topC: 44, turned: true, ph: null });
  expect(field('Middle (°C)').value).toBe('');
});

test('in Fahrenheit it is the same heap', async () => {
  const server = page({ settings: { temperatureUnit: 'F' } });
  await fill('Middle (°F)', '113');
  await press('Save the reading');
  expect((record(server) as { coreC: number }).coreC).toBeCloseTo(45, 9);
});

test('of an empty reading nothing is learned; what cannot be is refused at its field', async () => {
  const server = page();
  await press('Save the reading');
  expect(refusal()).toBe('Nothing is filled in yet: a temperature, a smell, a cut or a turning.');
  await fill('Middle (°C)', 'hot');
  await press('Save the reading');
  expect(field('Middle (°C)').getAttribute('aria-invalid')).toBe('true');
  await fill('Middle (°C)', '46');
  await fill('Beans cut', '10');
  await fill('with a brown ring', '12');
  await press('Save the reading');
  expect(screen.getByText('is more than were cut')).toBeTruthy();
  expect(server.sent).toEqual([]);
});

test('written down later it says when, by the workshop’s clock; half of it is there after a reload', async () => {
  page();
  await fill('Middle (°C)', '46');
  await fill('When (empty: now)', '20 Nov 2026 06:30');
  cleanup();
  const server = page();
  expect(field('Middle (°C)').value).toBe('46');
  expect(field('When (empty: now)').value).toContain('20 Nov 2026');
  await press('Save the reading');
  expect(server.sent[0]?.body['at']).toBe('2026-11-20T06:30:00.000Z');
  expect(field('When (empty: now)').value).toBe('');
});

test('on the racks: raked unless it is said otherwise, with what the weather was', async () => {
  const server = page({}, true);
  await fill(/^Moisture/u, '11.5');
  await press('sun');
  await press('Save the reading');
  expect(record(server)).toMatchObject({ kind: 'drying', moisturePct: 11.5, massG: null, raked: true, weather: 'sun' });
  await hands.click(screen.getByRole('checkbox', { name: 'Raked' }));
  await press('Save the reading');
  expect(refusal()).toBe('Nothing is filled in yet: a moisture, a weight or a raking.');
});

describe('weighed in as dry', () => {
  const open = async (setting: Setting = {}): Promise<Server> => {
    const server = page(setting);
    await press('Weigh it in as dry');
    return server;
  };
  const save = (): Promise<void> =>
    hands.click(screen.getAllByRole('button', { name: 'Weigh it in as dry' })[1] as HTMLElement);

  test('is an entry of the book', async () => {
    const server = await open();
    await fill('Dry beans (kg)', '38.25');
    await fill('Hands-on minutes in all', '300');
    await save();
    expect(server.sent[0]).toMatchObject({
      path: '/api/ledger/steps',
      body: { command: { kind: 'dry', lotId: 'h7', outG: 38_250, note: '' }, personId: 'ilse', minutes: 300 },
    });
    expect(field('Dry beans (kg)').value).toBe('');
  });

  test('in pounds where sacks are weighed so', async () => {
    const server = await open({ settings: { massSystem: 'imperial' } });
    await fill('Dry beans (lb)', '100');
    await save();
    expect((server.sent[0]?.body['command'] as { outG: number }).outG).toBeCloseTo(45_359.237, 3);
  });

  test('is not without a weight, with half a number, by nobody, or where it is refused', async () => {
    const server = await open();
    await save();
    expect(refusal()).toBe('Weigh the dry beans.');
    await fill('Dry beans (kg)', '38');
    await fill('Hands-on minutes in all', 'long');
    await save();
    expect(field('Hands-on minutes in all').getAttribute('aria-invalid')).toBe('true');
    expect(server.sent).toEqual([]);
    await fill('Hands-on minutes in all', '');
    server.refuse('More than went on to the racks.');
    await save();
    expect(refusal()).toBe('More than went on to the racks.');
    expect(field('Dry beans (kg)').value).toBe('38');
    cleanup();
    const nobody = await open({ personId: null });
    expect(field('Dry beans (kg)').value).toBe('38');
    await save();
    expect(refusal()).toBe(NOBODY);
    expect(nobody.sent).toEqual([]);
  });
});
