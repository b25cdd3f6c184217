import { cpSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { startServer, type RunningServer } from './server';

/** Names the folder in which workshops are made before the journeys begin. */
export const MADE = 'WUNSCH_E2E_MADE';
export const made = (origin: 'demo' | 'empty'): string => join(process.env[MADE] ?? '', origin);

interface Kind {
  origin: 'demo' | 'empty';
  flags?: readonly string[];
  env?: Record<string, string>;
}

/** The workshops that journeys go through; each worker has its own. */
const KINDS = {
  /** The demo. */
  demo: { origin: 'demo', flags: ['--demo'] },
  /** One that nobody has entered anything into. */
  empty: { origin: 'empty' },
  /** One that is furnished by the journeys of single makers. */
  makers: { origin: 'empty' },
  /** One that an export is restored into. */
  restored: { origin: 'empty' },
  /** One whose clock runs ten minutes a second. */
  fast: { origin: 'empty', env: { WUNSCH_CLOCK_SPEED: '600' } },
} as const satisfies Record<string, Kind>;

export type WorkshopName = keyof typeof KINDS;

/** Servers of one worker, each started when it is first asked for. */
export class Workshops {
  private readonly running = new Map<WorkshopName, Promise<RunningServer>>();
  private readonly directories: string[] = [];
  private readonly servers: RunningServer[] = [];

  constructor() {
    process.once('exit', () => this.close());
  }

  /** @returns address of a workshop's server */
  async at(name: WorkshopName): Promise<string> {
    const known = this.running.get(name) ?? this.start(KINDS[name]);
    this.running.set(name, known);
    return (await known).base;
  }

  close(): void {
    for (const server of this.servers.splice(0)) server.kill();
    for (const directory of this.directories.splice(0)) rmSync(directory, { recursive: true, force: true });
  }

  private async start({ origin, flags = [], env = {} }: Kind): Promise<RunningServer> {
    const directory = mkdtempSync(join(tmpdir(), 'wunsch-e2e-'));
    this.directories.push(directory);
    cpSync(made(origin), directory, { recursive: true });
    const server = await startServer(directory, flags, env);
    this.servers.push(server);
    return server;
  }
}
