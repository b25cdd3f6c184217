import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { startServer } from './server';
import { made, MADE } from './workshops';

/** Makes the demo and an empty workshop once; every worker goes on with copies of them. */
export default async function prepare(): Promise<() => void> {
  const directory = mkdtempSync(join(tmpdir(), 'wunsch-e2e-made-'));
  process.env[MADE] = directory;
  const servers = await Promise.all([startServer(made('demo'), ['--demo']), startServer(made('empty'))]);
  await Promise.all(servers.map(({ stop }) => stop()));
  return () => rmSync(directory, { recursive: true, force: true });
}
