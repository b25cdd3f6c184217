/** @jest-environment jsdom */
import { cleanup, render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { SWRConfig } from 'swr';
import type { HoldingView, WorkshopView } from '@wunsch/core/api/types';
import { DEFAULT_SETTINGS } from '@wunsch/core/workshop/schemas';
import { MemoryRouter } from 'react-router';
import { HereContext } from '../src/parts/workshop';
import { fields } from '../src/sort/fields';
import { StepForm } from '../src/entry/StepForm';

/* An entry at a bench: typed, refused or asked about, sent once, kept until it is. */

const tub = (id: string, code: string, freeG: number): HoldingView => ({
  id,
  code,
  kind: 'lot',
  name: 'Kasule Ridge',
  place: 'beans',
  routeId: 'whole-bean',
  batchId: null,
  batchCode: null,
  materialId: null,
  massMg: freeG * 1000,
  freeMg: freeG * 1000,
  pieces: 0,
  since: 0,
  valueMilli: 0,
  perKgMilli: 0,
  perPieceMilli: 0,
  family: 'Uganda, west',
  lots: [],
  allergens: [],
  bestBefore: null,
  marks: [],
});
const TUBS = [tub('h1', 'L001', 5000), tub('h2', 'L002', 900)];

interface Sent {
  url: string;
  key: string | undefined;
  body: { command: Record<string, unknown>; personId: string };
}
const sent: Sent[] = [];
let answer: () => { ok: boolean; status: number; body: object } = () => ({ ok: true, status: 201, body: {} });

function Bench({ personId = 'ilse' as string | null }) {
  const view = {
    settings: DEFAULT_SETTINGS,
    people: [{ id: 'ilse', name: 'Ilse', active: true }],
    machines: [],
    materials: [],
    routes: [],
  } as unknown as WorkshopView;
  return (
    <MemoryRouter>
      <SWRConfig value={{ provider: () => new Map() }}>
        <HereContext.Provider value={{ view, personId, choosePerson: () => undefined }}>
          <StepForm
            kind="sort"
            station="sort"
            draftId="sort.test"
            candidates={TUBS}
            specs={fields.sort ?? []}
            submit="Save the sorting"
            finish={({ goodG, note }, sources) => ({ goodG, note: note ?? '', rejects: [], sources })}
          />
        </HereContext.Provider>
      </SWRConfig>
    </MemoryRouter>
  );
}

const step = {
  id: 's1',
  kind: 'sort',
  station: 'sort',
  at: 0,
  lines: [],
  batchCode: null,
  person: 'Ilse',
  losses: [],
};
beforeEach(() => {
  localStorage.clear();
  sent.length = 0;
  answer = () => ({ ok: true, status: 201, body: { step, judgement: null } });
  globalThis.fetch = ((url: string, init: RequestInit) => {
    const headers = init.headers as Record<string, string>;
    sent.push({ url, key: headers['idempotency-key'], body: JSON.parse(init.body as string) as Sent['body'] });
    const { ok, status, body } = answer();
    return Promise.resolve({
      ok,
      status,
      headers: new Map([['content-type', 'application/json']]),
      json: () => Promise.resolve(body),
    });
  }) as never;
});
afterEach(cleanup);

const pick = (code: string) => screen.getByRole('button', { name: new RegExp(code) });
const good = () => screen.getByLabelText<HTMLInputElement>('Good beans');
const save = () => screen.getByRole('button', { name: 'Save the sorting' });

test('what was picked goes in whole, what came out is read in the unit of the screen', async () => {
  const user = userEvent.setup();
  render(<Bench />);
  await user.click(pick('L001'));
  await user.type(good(), '4800');
  await user.click(save());
  expect(sent).toHaveLength(1);
  expect(sent[0]).toMatchObject({
    url: '/api/ledger/steps',
    body: {
      personId: 'ilse',
      command: { kind: 'sort', goodG: 4800, sources: [{ holdingId: 'h1', massG: 5000 }], rejects: [] },
    },
  });
  expect(sent[0]?.key).toMatch(/.{8,}/);
  // Saved, it begins again.
  expect(good().value).toBe('');
});

test('nobody, nothing picked, a figure that is none: each is told, nothing is sent', async () => {
  const user = userEvent.setup();
  const first = render(<Bench personId={null} />);
  await user.click(save());
  expect(screen.getByRole('alert').textContent).toMatch(/\S/);
  first.unmount();
  render(<Bench />);
  await user.type(good(), '4800');
  await user.click(save());
  expect(screen.getByRole('alert').textContent).toContain('Choose what goes in.');
  await user.click(pick('L001'));
  await user.clear(good());
  await user.type(good(), '48oo');
  await user.click(save());
  expect(good().getAttribute('aria-invalid')).toBe('true');
  expect(sent).toEqual([]);
});

test('why it was not taken comes into view, each time it is sent', async () => {
  const user = userEvent.setup();
  const brought = jest.spyOn(Element.prototype, 'scrollIntoView');
  render(<Bench />);
  await user.click(save());
  await user.click(save());
  expect(brought.mock.contexts.map((box) => (box as Element).textContent)).toEqual(
    ['Choose what goes in.', 'Choose what goes in.'].map((words) => expect.stringContaining(words) as string),
  );
  brought.mockRestore();
});

test('a figure that is off by ten is asked about, and sent once it is said to be meant', async () => {
  const user = userEvent.setup();
  render(<Bench />);
  await user.click(pick('L001'));
  await user.type(good(), '480');
  await user.click(save());
  expect(sent).toEqual([]);
  expect(screen.getByText(/What went in/)).toBeTruthy();
  await user.click(screen.getByRole('button', { name: /480.*as typed/ }));
  await user.click(save());
  expect(sent[0]?.body.command['goodG']).toBe(480);
});

test('what was meant is put in its place by one press', async () => {
  const user = userEvent.setup();
  render(<Bench />);
  await user.click(pick('L001'));
  await user.type(good(), '480');
  await user.click(save());
  await user.click(screen.getByRole('button', { name: /was meant/ }));
  await user.click(save());
  expect(sent[0]?.body.command['goodG']).toBe(4800);
});

test('a refusal of the server keeps all that was typed, and the repeat has the same key', async () => {
  const user = userEvent.setup();
  answer = () => ({
    ok: false,
    status: 422,
    body: {
      code: 'ledger/more-out-than-in',
      title: 'Refused',
      status: 422,
      type: '',
      detail: 'More came out than went in.',
      errors: [{ path: 'command.goodG', label: 'Good beans', message: 'is more than went in' }],
    },
  });
  render(<Bench />);
  await user.click(pick('L002'));
  await user.type(good(), '950');
  await user.click(save());
  expect(screen.getByText('is more than went in')).toBeTruthy();
  expect(good().value).toBe('950');
  await user.click(save());
  expect(sent).toHaveLength(2);
  expect(sent[1]?.key).toBe(sent[0]?.key);
});

test('the word past a stop stays until the entry is saved or thrown away: over a reload, and where its answer is lost', async () => {
  const user = userEvent.setup();
  const gate = { id: 'sort/early', sentence: 'Too early.', why: 'Wet.', todo: 'Wait.', path: 'sources' };
  const word = () => screen.getByLabelText<HTMLInputElement>(/^To go on all the same/);
  const taken = answer;
  const stopped: typeof answer = () => ({
    ok: false,
    status: 409,
    body: {
      code: 'gate/closed',
      title: '',
      status: 409,
      type: '',
      detail: 'Stop.',
      errors: [],
      facts: { gates: [gate] },
    },
  });
  answer = stopped;
  const first = render(<Bench />);
  await user.click(pick('L001'));
  await user.type(good(), '4800');
  await user.click(save());
  await user.type(word(), 'Dry by ha');
  first.unmount();
  render(<Bench />);
  await user.click(save());
  expect(word().value).toBe('Dry by ha');
  await user.type(word(), 'nd');
  answer = () => ({
    ok: false,
    status: 503,
    body: { code: 'x', title: '', status: 503, type: '', detail: 'Later.', errors: [] },
  });
  await user.click(screen.getByRole('button', { name: /answers for it$/ }));
  answer = stopped;
  await user.click(save());
  expect(word().value).toBe('Dry by hand');
  answer = taken;
  await user.click(screen.getByRole('button', { name: /answers for it$/ }));
  expect((sent.at(-1)?.body as { overrides?: object[] }).overrides).toEqual([
    { gate: 'sort/early', word: 'Dry by hand' },
  ]);

  // Saved, the next one begins without it; so does one after a draft that was thrown away.
  answer = stopped;
  for (const thrown of [false, true]) {
    await user.click(pick('L001'));
    await user.type(good(), '4800');
    await user.click(save());
    expect(word().value).toBe('');
    await user.type(word(), 'again');
    if (!thrown) await user.click(screen.getByRole('button', { name: 'Throw this draft away' }));
  }
});

test('half an entry is there after a reload, with what was picked', async () => {
  const user = userEvent.setup();
  const first = render(<Bench />);
  await user.click(pick('L001'));
  await user.click(pick('L002'));
  await user.type(good(), '57');
  first.unmount();
  render(<Bench />);
  expect(good().value).toBe('57');
  expect(pick('L001').getAttribute('aria-pressed')).toBe('true');
  await user.clear(good());
  await user.type(good(), '5700');
  await user.click(save());
  expect(sent[0]?.body.command['sources']).toEqual([
    { holdingId: 'h1', massG: 5000 },
    { holdingId: 'h2', massG: 900 },
  ]);
});

test('a part of what was picked is typed beside it', async () => {
  const user = userEvent.setup();
  render(<Bench />);
  await user.click(pick('L001'));
  const part = screen.getByLabelText(/^L001, of/);
  await user.type(part, '2000');
  await user.type(good(), '1900');
  await user.click(save());
  expect(sent[0]?.body.command['sources']).toEqual([{ holdingId: 'h1', massG: 2000 }]);
  expect(within(document.body).queryByText(/is not a number/)).toBeNull();
});
