/** @jest-environment jsdom */
import { cleanup, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { SWRConfig } from 'swr';
import type { WorkshopView } from '@wunsch/core/api/types';
import type { Material } from '@wunsch/core/ledger/types';
import { DEFAULT_SETTINGS } from '@wunsch/core/workshop/schemas';
import { HereContext } from '../src/parts/workshop';
import { IngredientForm } from '../src/recipe/IngredientForm';

const material = (id: string, name: string, more: Partial<Material> = {}): Material => ({
  id,
  name,
  kind: 'ingredient',
  cocoa: 'none',
  sugar: false,
  allergens: [],
  cocoaPct: null,
  sugarPct: null,
  ...more,
});
const PASTE = material('paste', 'Praline paste', {
  allergens: ['hazelnut'],
  pricePerKg: 14,
  madeOf: [
    { materialId: 'nut', pct: 60 },
    { materialId: 'sugar', pct: 40 },
  ],
});
const sent: { url: string; body: Record<string, unknown> }[] = [];

function open(of: Material): { closed: () => boolean } {
  let closed = false;
  const view = {
    settings: DEFAULT_SETTINGS,
    materials: [PASTE, material('nut', 'Hazelnuts'), material('sugar', 'Sugar', { sugar: true })],
  } as unknown as WorkshopView;
  render(
    <SWRConfig value={{ provider: () => new Map() }}>
      <HereContext.Provider value={{ view, personId: 'ilse' } as never}>
        <IngredientForm material={of} row={null} close={() => (closed = true)} />
      </HereContext.Provider>
    </SWRConfig>,
  );
  return { closed: () => closed };
}

beforeEach(() => {
  localStorage.clear();
  sent.length = 0;
  globalThis.fetch = ((url: string, init: RequestInit) => {
    sent.push({ url, body: JSON.parse(init.body as string) as Record<string, unknown> });
    return Promise.resolve({
      ok: true,
      status: 200,
      headers: new Map(),
      json: () => Promise.resolve({}),
      text: () => Promise.resolve('{}'),
    });
  }) as never;
});
afterEach(cleanup);
const user = userEvent.setup();

test('saved as it stands, an ingredient is sent as it was', async () => {
  const { closed } = open(PASTE);
  await user.click(screen.getByRole('button', { name: 'Save' }));
  expect(sent).toHaveLength(1);
  expect(sent[0]?.url).toContain('/api/workshop/materials/paste');
  expect(sent[0]?.body).toMatchObject({
    name: 'Praline paste',
    kind: 'ingredient',
    allergens: ['hazelnut'],
    pricePerKg: 14,
    contents: [],
    madeOf: PASTE.madeOf,
  });
  expect(closed()).toBe(true);
});

test('shares that are no whole are refused under them, with what they come to', async () => {
  open(PASTE);
  const [first] = screen.getAllByRole('textbox', { name: /Share/ });
  if (!first) throw new Error('no share');
  await user.clear(first);
  await user.type(first, '50');
  await user.click(screen.getByRole('button', { name: 'Save' }));
  expect(sent).toEqual([]);
  expect(screen.getByText(/does not add up to 100 %: it is 90.0 %/)).toBeTruthy();
  await user.clear(first);
  await user.type(first, '60');
  await user.click(screen.getByRole('button', { name: 'Save' }));
  expect(sent).toHaveLength(1);
});

test('a price is not taken away from a day on, and nothing typed is lost', async () => {
  open({ ...PASTE, madeOf: [] });
  await user.clear(screen.getByRole('textbox', { name: /Price/ }));
  await user.type(screen.getByRole('textbox', { name: 'Origin' }), 'Coast');
  const day = screen.getByLabelText(/What is changed holds from/);
  await user.type(day, '2027-01-01');
  await user.tab();
  await user.click(screen.getByRole('button', { name: 'Save' }));
  expect(sent).toEqual([]);
  expect(screen.getByText(/leave the day empty, or enter the new price/)).toBeTruthy();
  cleanup();
  open({ ...PASTE, madeOf: [] });
  expect(screen.getByRole<HTMLInputElement>('textbox', { name: 'Origin' }).value).toBe('Coast');
});

test('a day that cannot be read is told at its field', async () => {
  open({ ...PASTE, madeOf: [] });
  await user.type(screen.getByLabelText(/What is changed holds from/), 'next harvest');
  await user.tab();
  await user.click(screen.getByRole('button', { name: 'Save' }));
  expect(sent).toEqual([]);
  expect(screen.getByText(/is a date like|is no day|cannot be read/)).toBeTruthy();
});

test('own figures are asked for once they are wanted, and what is left is said', async () => {
  open(PASTE);
  expect(screen.queryByLabelText('Fat')).toBeNull();
  await user.click(screen.getByLabelText('I have its own figures, from its label or an analysis'));
  const fat = screen.getByLabelText('Fat');
  await user.clear(fat);
  await user.type(fat, '36');
  expect(screen.getByText('The rest, 64.0 g, is other dry matter.')).toBeTruthy();
  await user.clear(fat);
  await user.type(fat, '3x');
  await user.click(screen.getByRole('button', { name: 'Save' }));
  expect(screen.getByText('is not a number')).toBeTruthy();
  expect(sent).toEqual([]);
});
