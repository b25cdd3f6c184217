/** @jest-environment jsdom */
import { act, cleanup, render, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { MemoryRouter } from 'react-router';
import { SWRConfig } from 'swr';
import type { WorkshopView } from '@wunsch/core/api/types';
import { DEFAULT_SETTINGS } from '@wunsch/core/workshop/schemas';
import { ApiError, getJson, send } from '../src/parts/api';
import { Verdict } from '../src/parts/Verdict';
import { HereContext } from '../src/parts/workshop';

/* A verdict, and who knows better; what is sent to the server and what it answers. */

interface Sent {
  method: string;
  path: string;
  body: unknown;
  key: string | undefined;
}
interface Word {
  id: string;
  judged: string;
  subject: string;
  word: string;
  said: string;
  person: string;
  at: number;
}

const answer = (status: number, body: unknown, headers: Record<string, string> = {}) => ({
  ok: status < 300,
  status,
  headers: { get: (name: string) => ({ 'content-type': 'application/json', ...headers })[name.toLowerCase()] ?? null },
  json: () => Promise.resolve(body),
});

/** A server that keeps words; refuses the first so many writes. */
function server(refusals = 0) {
  const sent: Sent[] = [];
  const words: Word[] = [];
  let left = refusals;
  const fetched = (path: string, { method = 'GET', body, headers = {} }: RequestInit = {}) => {
    if (method === 'GET') return Promise.resolve(answer(200, { words }));
    const given = body === undefined ? undefined : (JSON.parse(body as string) as Record<string, string>);
    sent.push({ method, path, body: given, key: (headers as Record<string, string>)['idempotency-key'] });
    if (left > 0) {
      left -= 1;
      return Promise.resolve(
        answer(422, {
          type: '',
          title: '',
          status: 422,
          code: 'http/invalid',
          detail: 'The word is too long.',
          errors: [],
        }),
      );
    }
    if (path.endsWith('/taken-back')) words.splice(0, 1);
    else
      words.push({ id: `w${words.length}`, person: 'Ilse', at: Date.now(), ...(given as object) } as unknown as Word);
    return Promise.resolve(answer(201, {}));
  };
  globalThis.fetch = fetched as never;
  return { sent, words };
}

beforeEach(() => localStorage.clear());
afterEach(cleanup);

const judgement = {
  tone: 'watch' as const,
  value: 0.71,
  sentence: 'Nib yield 71 %: lower than ever.',
  evidence: 'Of 24 winnowings of this family.',
  todo: 'Pick over one scoop of husk.',
  signal: null,
  chart: null,
  stepId: 's9',
  code: 'N017',
};

async function show(person: string | null = 'ilse', shown: Parameters<typeof Verdict>[0]['judgement'] = judgement) {
  const view = { settings: DEFAULT_SETTINGS } as WorkshopView;
  const page = (
    <SWRConfig value={{ provider: () => new Map(), fetcher: getJson as never, dedupingInterval: 0 }}>
      <MemoryRouter>
        <HereContext.Provider value={{ view, personId: person, choosePerson: () => undefined }}>
          <Verdict judgement={shown} title="Yield" />
        </HereContext.Provider>
      </MemoryRouter>
    </SWRConfig>
  );
  // What is fetched at once is there.
  await act(async () => {
    render(page);
    await Promise.resolve();
  });
}

test.each([
  ['watch', 'look here'],
  ['good', 'as usual'],
  ['unknown', 'not known yet'],
] as const)('the tone %s is a word, not only a colour', async (tone, word) => {
  server();
  await show('ilse', { ...judgement, tone });
  expect(screen.getByText(word)).toBeTruthy();
});

test('it says what, what to do, of what it knows, and where to look', async () => {
  server();
  await show();
  for (const text of [judgement.sentence, judgement.todo]) expect(screen.getByText(text)).toBeTruthy();
  expect(screen.getByText(/Of 24 winnowings/)).toBeTruthy();
  expect(screen.getByRole('link', { name: 'N017' }).getAttribute('href')).toBe('/step/s9');
});

test('who knows better says so: it is kept with what was said then, and can be taken back', async () => {
  const { sent } = server();
  const user = userEvent.setup();
  await show();
  await user.click(screen.getByRole('button', { name: 'You know better?' }));
  const keep = screen.getByRole<HTMLButtonElement>('button', { name: 'Keep it' });
  expect(keep.disabled).toBe(true);
  await user.type(screen.getByLabelText('What you know better'), 'The bag was torn.');
  await user.click(keep);
  expect(sent[0]).toMatchObject({
    method: 'POST',
    path: '/api/judgement/words',
    body: { personId: 'ilse', judged: 'yield', subject: 's9', said: judgement.sentence, word: 'The bag was torn.' },
  });
  expect(sent[0]?.key).toBeTruthy();
  await waitFor(() => expect(screen.getByText(/“The bag was torn.”/)).toBeTruthy());
  expect(screen.queryByLabelText('What you know better')).toBeNull();
  await user.click(screen.getByRole('button', { name: 'take it back' }));
  expect(sent[1]).toMatchObject({ path: '/api/judgement/words/w0/taken-back', body: { personId: 'ilse' } });
  await waitFor(() => expect(screen.queryByText(/torn/)).toBeNull());
});

test('a word of an earlier verdict says of which', async () => {
  const { words } = server();
  const said = { judged: 'yield', subject: 's9', person: 'Bo', at: Date.now() };
  words.push({ id: 'a', word: 'Wet nibs', said: 'Nib yield 74 %.', ...said });
  words.push({ id: 'b', word: 'Of another', said: '', ...said, subject: 's8' });
  await show();
  await waitFor(() => expect(screen.getByText(/“Wet nibs”/).textContent).toContain('of: Nib yield 74 %.'));
  expect(screen.queryByText(/Of another/)).toBeNull();
});

test('what is refused says why, keeps the word, and goes again by the same key', async () => {
  const { sent } = server(1);
  const user = userEvent.setup();
  await show();
  await user.click(screen.getByRole('button', { name: 'You know better?' }));
  await user.type(screen.getByLabelText('What you know better'), 'The bag was torn.');
  await user.click(screen.getByRole('button', { name: 'Keep it' }));
  await waitFor(() => expect(screen.getByText(/The word is too long./)).toBeTruthy());
  expect(screen.getByLabelText<HTMLInputElement>('What you know better').value).toBe('The bag was torn.');
  await user.click(screen.getByRole('button', { name: 'Keep it' }));
  await waitFor(() => expect(sent).toHaveLength(2));
  expect(sent[1]?.key).toBe(sent[0]?.key);
});

test('half a word survives a reload; left alone it is gone', async () => {
  server();
  const user = userEvent.setup();
  await show();
  await user.click(screen.getByRole('button', { name: 'You know better?' }));
  await user.type(screen.getByLabelText('What you know better'), 'The b');
  cleanup();
  await show();
  expect(screen.getByLabelText<HTMLInputElement>('What you know better').value).toBe('The b');
  await user.click(screen.getByRole('button', { name: 'Leave it' }));
  cleanup();
  await show();
  expect(screen.getByRole('button', { name: 'You know better?' })).toBeTruthy();
});

test('nobody at the bench: that is asked for, and nothing is sent', async () => {
  const { sent } = server();
  const user = userEvent.setup();
  await show(null);
  await user.click(screen.getByRole('button', { name: 'You know better?' }));
  await user.type(screen.getByLabelText('What you know better'), 'The bag was torn.');
  await user.click(screen.getByRole('button', { name: 'Keep it' }));
  expect(screen.getByText(/Choose who is at the bench/)).toBeTruthy();
  expect(sent).toEqual([]);
});

describe('what goes to the server', () => {
  test('a server that is not there is said as such; what was typed is kept', async () => {
    globalThis.fetch = () => Promise.reject(new TypeError('network'));
    const error = await getJson('/api/ledger/floor').catch((reason: unknown) => reason);
    expect(error).toBeInstanceOf(ApiError);
    expect((error as ApiError).problem).toMatchObject({ code: 'http/offline', status: 0 });
    expect((error as ApiError).message).toContain('kept here');
  });

  test('an answer that is no JSON is no answer of the server', async () => {
    globalThis.fetch = (() => Promise.resolve(answer(502, null, { 'content-type': 'text/html' }))) as never;
    const error = await getJson('/api/ledger/floor').catch((reason: unknown) => reason);
    expect((error as ApiError).problem).toMatchObject({ code: 'http/offline', status: 502 });
  });

  test('a repeated write is known as one', async () => {
    globalThis.fetch = (() => Promise.resolve(answer(201, { id: 'p1' }, { 'idempotent-replay': 'true' }))) as never;
    expect(await send('POST', '/api/workshop/people', { name: 'Ann' }, 'k')).toEqual({
      data: { id: 'p1' },
      replayed: true,
    });
  });
});
