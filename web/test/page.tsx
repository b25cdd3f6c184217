import { configure, render, screen, type RenderResult } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { ReactNode } from 'react';
import { MemoryRouter, useLocation } from 'react-router';
import { SWRConfig } from 'swr';
import type { WorkshopView } from '@wunsch/core/api/types';
import { DEFAULT_SETTINGS } from '@wunsch/core/workshop/schemas';
import { HereContext } from '../src/parts/workshop';

// A slow machine takes its time over what is loaded when it is asked for.
configure({ asyncUtilTimeout: 20_000 });

/* A part of the interface on its page: in a workshop, before a server that is only told what to say. */

export interface Sent {
  method: string;
  path: string;
  body: Record<string, unknown>;
  key: string | undefined;
}

/** A server: what it says to those who ask, and what it was sent. */
export class Server {
  readonly sent: Sent[] = [];
  /** What was asked for, by address. */
  readonly asked: string[] = [];
  private readonly next: (() => Promise<unknown>)[] = [];

  /** @param says by address; @param written what a write is answered */
  constructor(
    private readonly says: Readonly<Record<string, unknown>> = {},
    private readonly written: (sent: Sent) => unknown = () => ({}),
  ) {
    globalThis.fetch = ((path: string, { method = 'GET', body, headers = {} }: RequestInit = {}) => {
      if (method === 'GET') {
        this.asked.push(path);
        const known = this.says[path];
        return Promise.resolve(
          known === undefined
            ? answer(404, problem(404, 'http/not-found', `There is nothing at ${path}.`))
            : answer(200, known),
        );
      }
      const given = body === undefined ? {} : (JSON.parse(body as string) as Record<string, unknown>);
      const sent = { method, path, body: given, key: (headers as Record<string, string>)['idempotency-key'] };
      this.sent.push(sent);
      const other = this.next.shift();
      return other ? other() : Promise.resolve(answer(201, this.written(sent)));
    }) as typeof fetch;
  }

  /** The next write is refused. */
  refuse(detail: string, errors: { path: string; message: string }[] = [], status = 422): void {
    this.next.push(() => Promise.resolve(answer(status, { ...problem(status, 'http/invalid', detail), errors })));
  }

  /** The next write gets no answer. */
  vanish(): void {
    this.next.push(() => Promise.reject(new TypeError('fetch failed')));
  }
}

const problem = (status: number, code: string, detail: string) => ({
  type: `urn:wunsch:problem:${code}`,
  title: 'Refused',
  status,
  code,
  detail,
  errors: [],
});

const answer = (status: number, body: unknown) => ({
  ok: status < 300,
  status,
  headers: { get: (name: string) => (name.toLowerCase() === 'content-type' ? 'application/json' : null) },
  json: () => Promise.resolve(body),
});

/** Where a press led. */
export let address = '';
function Address() {
  const { pathname, search } = useLocation();
  address = pathname + search;
  return null;
}

export interface Setting {
  personId?: string | null;
  view?: Partial<WorkshopView>;
  settings?: Partial<WorkshopView['settings']>;
  at?: string;
}

/** Shows a part in a workshop in Lisbon, with Ilse at the bench. */
export function show(
  part: ReactNode,
  { personId = 'ilse', view = {}, settings = {}, at = '/' }: Setting = {},
): RenderResult {
  const workshop = {
    settings: { ...DEFAULT_SETTINGS, timeZone: 'Europe/Lisbon', currency: 'EUR', ...settings },
    people: [{ id: 'ilse', name: 'Ilse', active: true }],
    machines: [],
    materials: [],
    routes: [],
    ...view,
  } as unknown as WorkshopView;
  return render(
    <MemoryRouter initialEntries={[at]}>
      <SWRConfig value={{ provider: () => new Map(), dedupingInterval: 0 }}>
        <HereContext.Provider value={{ view: workshop, personId, choosePerson: () => undefined }}>
          {part}
          <Address />
        </HereContext.Provider>
      </SWRConfig>
    </MemoryRouter>,
  );
}

/** What a refusal says first. */
export const refusal = (): string => screen.getByRole('alert').querySelector('p')?.textContent ?? '';

export const hands = userEvent.setup({ delay: null });
export const press = (name: string | RegExp): Promise<void> => hands.click(screen.getByRole('button', { name }));
export const field = (name: string | RegExp): HTMLInputElement => screen.getByLabelText(name);
/** What is read out with a field beside its name: what is wrong with it, its hint. */
export const toldAt = (name: string | RegExp): string[] =>
  (field(name).getAttribute('aria-describedby') ?? '')
    .split(' ')
    .map((id) => document.getElementById(id)?.textContent ?? '');
/** Types over what is in a field. */
export async function fill(name: string | RegExp, text: string): Promise<void> {
  await hands.clear(field(name));
  if (text !== '') await hands.type(field(name), text);
}
/** Takes one of a list. */
export async function pick(label: string | RegExp, option: string | RegExp): Promise<void> {
  await hands.click(screen.getByRole('combobox', { name: label }));
  await hands.click(screen.getByRole('option', { name: option }));
}
