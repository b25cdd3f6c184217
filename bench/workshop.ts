import { spawn, type ChildProcess } from 'node:child_process';
import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { SERVER, SERVER_ENV } from '../scripts/server.mjs';

/** Seconds after which it is not waited any longer. */
const KEPT_S = 120;

const root = join(import.meta.dirname, '..');

/** A workshop with its server, which is started and stopped as often as somebody wants to know how long that takes. */
export class Workshop {
  private child: ChildProcess | null = null;
  private base = '';

  constructor(
    readonly name: string,
    private readonly flags: readonly string[],
    private readonly directory: string,
  ) {}

  /**
   * @returns milliseconds from the start of the process to its first answer
   * @throws when the process ends instead
   */
  async start(): Promise<number> {
    const began = performance.now();
    const child = spawn(process.execPath, [...SERVER, ...this.flags], {
      cwd: root,
      env: { ...process.env, ...SERVER_ENV, PORT: '0', WUNSCH_LOG: 'off', WUNSCH_DATA: this.directory },
    });
    this.base = await new Promise<string>((resolve, reject) => {
      let output = '';
      child.stdout.on('data', (chunk: Buffer) => {
        output += chunk.toString();
        const base = /ready at (http:\/\/\S+)/.exec(output)?.[1];
        if (base !== undefined) resolve(base);
      });
      child.on('exit', (code) => reject(new Error(`server ended with ${code}`)));
    });
    await this.get('/api/health');
    this.child = child;
    return performance.now() - began;
  }

  /** Waits until it has kept what the next start goes on from, which it does while nobody asks for anything. */
  async kept(): Promise<void> {
    for (let waited = 0; waited < KEPT_S && !existsSync(join(this.directory, 'checkpoint.made')); waited += 1)
      await new Promise((resolve) => setTimeout(resolve, 1000));
  }

  async stop(): Promise<void> {
    const { child } = this;
    this.child = null;
    if (child === null) return;
    await new Promise<void>((resolve) => {
      child.on('exit', () => resolve());
      child.kill('SIGTERM');
    });
  }

  get address(): string {
    return this.base;
  }

  /** Memory of the server that is in use, MB. */
  get memoryMb(): number {
    const status = readFileSync(`/proc/${this.child?.pid}/status`, 'utf8');
    return Number(/VmRSS:\s+(\d+)/.exec(status)?.[1] ?? 0) / 1024;
  }

  async get(path: string): Promise<void> {
    await (await fetch(this.base + path)).arrayBuffer();
  }

  async json<T>(path: string): Promise<T> {
    return (await (await fetch(this.base + path)).json()) as T;
  }

  /** @throws what the server says where it refuses */
  async post(path: string, body: unknown): Promise<void> {
    const answer = await fetch(this.base + path, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(body),
    });
    const said = await answer.text();
    if (!answer.ok) throw new Error(said);
  }
}
