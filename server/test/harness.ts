import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { FastifyInstance, InjectOptions } from 'fastify';
import type { Problem, StepView } from '@wunsch/core/api/types';
import type { Command } from '@wunsch/core/commands';
import { ROUTE_TEMPLATES } from '@wunsch/core/workshop/routes';
import { buildApp } from '../src/app';
import { notAsDescribed } from './described';
import { openDatabase } from '../src/store/database';
import { Workshop } from '../src/journal/workshop';

export const MIGRATIONS = join(__dirname, '../migrations');

/** An empty database, as it is built: the seconds of a first start are spent there. */
export const TEMPLATE = join(__dirname, '../dist/database/empty.tar');
/** The same as a directory. */
export const EMPTY = join(__dirname, '../dist/database/empty');
/** The same without a table. */
export const BARE = join(__dirname, '../dist/database/bare.tar');

export interface Answer {
  status: number;
  body: unknown;
  headers: Record<string, unknown>;
}

export interface TestServer {
  app: FastifyInstance;
  workshop: Workshop;
  call: (
    method: 'GET' | 'POST' | 'PUT' | 'DELETE',
    url: string,
    body?: unknown,
    headers?: Record<string, string>,
  ) => Promise<Answer>;
  /** Enters a step and expects it to be taken. */
  step: (command: Command, head?: Record<string, unknown>) => Promise<StepView>;
  /** Begins again with nothing entered. */
  reset: () => Promise<void>;
  close: () => Promise<void>;
}

/** A real server on a real database, in memory, with two people and a small pantry. */
export async function testServer(clock: () => number = Date.now): Promise<TestServer> {
  const opened = await openDatabase(null, MIGRATIONS, { prepared: new Blob([readFileSync(TEMPLATE)]) });
  const workshop = await Workshop.open(opened, clock);
  await furnish(workshop);
  const app = await buildApp({ workshop });
  const call: TestServer['call'] = async (method, url, body, headers = {}) => {
    const options: InjectOptions = { method, url, headers };
    if (body !== undefined) {
      options.payload = typeof body === 'string' ? body : JSON.stringify(body);
      options.headers = { 'content-type': 'application/json', ...headers };
    }
    const answer = await app.inject(options);
    const isJson = String(answer.headers['content-type']).includes('json');
    const said: unknown = isJson ? answer.json() : answer.body;
    const wrong = isJson && answer.statusCode < 300 ? notAsDescribed(method, url, said) : null;
    if (wrong !== null) throw new Error(`not as it is described: ${wrong}`);
    return { status: answer.statusCode, body: said, headers: answer.headers };
  };
  return {
    app,
    workshop,
    call,
    step: async (command, head = {}) => {
      const { status, body } = await call('POST', '/api/ledger/steps', { command, personId: 'ann', ...head });
      if (status !== 201) throw new Error(`${status} ${JSON.stringify(body)}`);
      return (body as { step: StepView }).step;
    },
    reset: async () => {
      await workshop.empty();
      await furnish(workshop);
    },
    close: async () => {
      await app.close();
      await opened.close();
    },
  };
}

async function furnish(workshop: Workshop): Promise<void> {
  for (const route of ROUTE_TEMPLATES) workshop.putRoute({ ...route, stations: [...route.stations] });
  // No waiting on the shelf: tests of that say so.
  workshop.putSettings({ ...workshop.settings, restDays: 0 });
  workshop.putPerson({ id: 'ann', name: 'Ann', active: true });
  workshop.putPerson({ id: 'bo', name: 'Bo', active: true });
  workshop.putMaterial({ id: 'sugar', name: 'Sugar', kind: 'ingredient', cocoa: 'none', sugar: true, allergens: [] });
  workshop.putMaterial({
    id: 'wrapper',
    name: 'Wrapper',
    kind: 'packaging',
    cocoa: 'none',
    sugar: false,
    allergens: [],
  });
  await workshop.commit();
}

export const asProblem = ({ body }: Answer): Problem => body as Problem;

export const lotCommand = (netG = 10_000): Command => ({
  kind: 'receive',
  name: 'Test lot',
  producer: 'Ridge Growers',
  country: 'Uganda',
  region: 'west',
  variety: '',
  harvest: '',
  form: 'beans',
  roasted: true,
  routeId: 'whole-bean',
  sacks: 1,
  netG,
  pricePerKg: 5,
  currency: 'EUR',
  rate: 1,
  freight: 0,
  moisturePct: 7,
  note: '',
});

export const sortCommand = (holdingId: string, massG: number, goodG: number): Command => ({
  kind: 'sort',
  sources: [{ holdingId, massG }],
  rejects: [],
  goodG,
  note: '',
});

/** The id of what a step made. */
export function madeBy(step: StepView, kind?: string): string {
  const line = step.lines.find(
    (row) => row.holdingId !== null && row.massMg + row.pieces > 0 && (kind === undefined || row.kind === kind),
  );
  if (!line?.holdingId) throw new Error('it made nothing');
  return line.holdingId;
}
