/** @jest-environment jsdom */
import { cleanup, screen, within } from '@testing-library/react';
import type { MouldsView, MouldView } from '@wunsch/core/api/mould';
import { MouldList } from '../src/mould/MouldList';
import { NOBODY } from '../src/parts/save';
import { field, fill, hands, press, refusal, Server, show, toldAt, type Setting } from './page';

/* Moulds, and how many set at once: described, changed, not used any more. */

const TABLET: MouldView = {
  id: 'm1',
  name: 'Tablet',
  cavities: 3,
  cavityG: 70,
  owned: 20,
  painted: false,
  retired: false,
  cleanedAt: null,
  cleanedHow: '',
};
const list = async (says: Partial<MouldsView> = {}, setting: Setting = {}): Promise<Server> => {
  const server = new Server({ '/api/mould/moulds': { moulds: [TABLET], cabinet: null, ...says } });
  show(<MouldList />, setting);
  await screen.findByRole('heading', { name: 'Moulds' });
  return server;
};
const describe_ = async (): Promise<void> => {
  await press('Add a mould');
  await fill('Name', 'Praline');
  await fill('Cavities', '24');
  await fill('Each holds (g)', '12,5');
  await fill('Owned', '8');
};

beforeEach(() => localStorage.clear());
afterEach(cleanup);

test('a new one is kept as it is described, and its form goes', async () => {
  const server = await list();
  await describe_();
  await hands.click(screen.getByRole('checkbox', { name: 'Painted before it is filled' }));
  await press('Keep the mould');
  expect(server.sent).toMatchObject([
    {
      method: 'POST',
      path: '/api/mould/moulds',
      body: {
        personId: 'ilse',
        facts: { name: 'Praline', cavities: 24, cavityG: 12.5, owned: 8, painted: true, retired: false },
      },
    },
  ]);
  expect(screen.queryByLabelText('Cavities')).toBeNull();
});

test.each([
  ['Name', '', 'is missing'],
  ['Cavities', 'three', 'is not a number'],
  ['Cavities', '2.5', 'must be whole'],
  ['Cavities', '0', 'must be at least 1'],
  ['Each holds (g)', '0.2', 'is lighter than any piece'],
  ['Owned', '-1', 'cannot be below 0'],
])('%s: “%s” is refused at its field: %s', async (name, text, problem) => {
  const server = await list();
  await describe_();
  await fill(name, text);
  await press('Keep the mould');
  expect(server.sent).toEqual([]);
  expect(toldAt(name)).toContain(problem);
});

test('half described it is there after a reload, until it is closed', async () => {
  await list();
  await press('Add a mould');
  await fill('Name', 'Prali');
  cleanup();
  await list();
  expect(field('Name').value).toBe('Prali');
  await press('Close');
  cleanup();
  await list();
  expect(screen.queryByLabelText('Name')).toBeNull();
});

test('a changed one begins with what is known; one that is not used any more says so', async () => {
  const server = await list();
  await press('Change');
  const form = within(screen.getByRole('group', { name: 'Tablet' }));
  expect(form.getByLabelText<HTMLInputElement>('Each holds (g)').value).toBe('70');
  await fill('Owned', '18');
  await press('It is not used any more');
  expect(server.sent).toMatchObject([
    { method: 'PUT', path: '/api/mould/moulds/m1', body: { facts: { name: 'Tablet', owned: 18, retired: true } } },
  ]);
});

test('how many set at once, and for how long; what is no number is refused there', async () => {
  const server = await list({ cabinet: { moulds: 24, minutes: 25 } });
  expect(screen.getByText(/24 moulds set at once, for 25 min\./)).toBeTruthy();
  await press('Say it');
  await fill('Moulds at once', 'many');
  await press('Keep it');
  expect(server.sent).toEqual([]);
  expect(toldAt('Moulds at once')).toContain('is not a number');
  await fill('Moulds at once', '30');
  await press('Keep it');
  expect(server.sent[0]).toMatchObject({
    path: '/api/mould/cabinet',
    body: { personId: 'ilse', moulds: 30, minutes: 25 },
  });
  expect(screen.queryByLabelText('Moulds at once')).toBeNull();
});

test('what set at once is said again from what was said last', async () => {
  const saying = (moulds: number): MouldsView => ({ moulds: [], cabinet: { moulds, minutes: 25 } });
  const says = { '/api/mould/moulds': saying(24) };
  new Server(says, ({ body }) => (says['/api/mould/moulds'] = saying(Number(body['moulds']))));
  show(<MouldList />);
  await screen.findByText(/24 moulds set at once/);
  await press('Say it');
  await fill('Moulds at once', '30');
  await press('Keep it');
  await screen.findByText(/30 moulds set at once/);
  await press('Say it');
  expect(field('Moulds at once').value).toBe('30');
});

test('only by somebody', async () => {
  const server = await list({}, { personId: null });
  await describe_();
  await press('Keep the mould');
  expect(refusal()).toBe(NOBODY);
  expect(server.sent).toEqual([]);
});
