import { existsSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { startServer } from './server';
import { made, MADE } from './workshops';

/** Makes the demo and an empty workshop once, where nobody did before; every worker goes on with copies of them. */
export default async function prepare(): Promise<() => void> {
  process.env[MADE] ??= mkdtempSync(join(tmpdir(), 'wunsch-e2e-made-'));
  const directory = process.env[MADE];
  const servers = await Promise.all(
    (['demo', 'empty'] as const)
      .filter((origin) => !existsSync(made(origin)))
      .map((origin) => startServer(made(origin), origin === 'demo' ? ['--demo'] : [])),
  );
  await Promise.all(servers.map(({ stop }) => stop()));
  return () => rmSync(directory, { recursive: true, force: true });
}
