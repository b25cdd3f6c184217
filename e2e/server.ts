import { spawn, type ChildProcess } from 'node:child_process';
import { join } from 'node:path';
import { SERVER, SERVER_ENV } from '../scripts/server.mjs';

const root = join(import.meta.dirname, '..');

/** A server of its own, on a port that is free. */
export interface RunningServer {
  base: string;
  /** Asks it to stop, and waits until what it has is kept. */
  stop: () => Promise<void>;
  /** Ends it at once: for a workshop that is thrown away. */
  kill: () => void;
}

/**
 * Starts a server that was built before, and waits until it answers.
 *
 * @param data directory of its workshop
 * @throws what it said, if it ends instead
 */
export async function startServer(
  data: string,
  flags: readonly string[] = [],
  env: Record<string, string> = {},
): Promise<RunningServer> {
  const child: ChildProcess = spawn(process.execPath, [...SERVER, ...flags], {
    cwd: root,
    env: { ...process.env, ...SERVER_ENV, PORT: '0', WUNSCH_LOG: 'off', WUNSCH_DATA: data, ...env },
    stdio: ['ignore', 'pipe', 'pipe'],
  });
  const ended = new Promise<void>((done) => child.once('exit', () => done()));
  const base = await new Promise<string>((ready, fail) => {
    let said = '';
    const listen = (chunk: Buffer): void => {
      said += chunk.toString();
      const address = /ready at (http:\/\/\S+)/.exec(said)?.[1];
      if (address !== undefined) ready(address);
    };
    child.stdout?.on('data', listen);
    child.stderr?.on('data', listen);
    void ended.then(() => fail(new Error(said)));
  });
  return {
    base,
    stop: () => {
      child.kill('SIGTERM');
      return ended;
    },
    kill: () => child.kill('SIGKILL'),
  };
}
