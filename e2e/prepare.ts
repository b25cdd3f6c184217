import { mkdirSync, rmSync } from 'node:fs';
import { startServer } from './server';
import { made, MADE } from './workshops';

/** Makes the demo and an empty workshop once; every worker goes on with copies of them. */
export default async function prepare(): Promise<() => void> {
  rmSync(MADE, { recursive: true, force: true });
  mkdirSync(MADE, { recursive: true });
  const servers = await Promise.all([startServer(made('demo'), ['--demo']), startServer(made('empty'))]);
  await Promise.all(servers.map(({ stop }) => stop()));
  return () => rmSync(MADE, { recursive: true, force: true });
}
