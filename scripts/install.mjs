// Installs what is missing, with nothing but Node: runs before node_modules exists.
import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';

export const root = resolve(fileURLToPath(import.meta.url), '../..');

/** Runs a command in the project and returns its exit code. */
export function run(command, args, options = {}) {
  const { status, error } = spawnSync(command, args, { cwd: root, stdio: 'inherit', ...options });
  if (error) throw error;
  return status ?? 1;
}

export function installPackages() {
  const stamp = join(root, 'node_modules/.wunsch-installed');
  const wanted = createHash('sha256')
    .update(readFileSync(join(root, 'package-lock.json')))
    .digest('hex');
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === wanted) return;
  process.stdout.write('Installing packages …\n');
  if (run('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error']) !== 0)
    throw new Error('npm ci failed: the npm registry must be reachable once.');
  mkdirSync(join(root, 'node_modules'), { recursive: true });
  writeFileSync(stamp, wanted);
}

export function installChromium() {
  if (existsSync('/usr/bin/chromium')) return;
  process.stdout.write('Installing Chromium from Debian’s packages …\n');
  const quiet = { stdio: 'ignore', env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' } };
  run('apt-get', ['update'], quiet);
  if (
    run('apt-get', ['install', '-y', '--no-install-recommends', 'chromium'], quiet) !== 0 ||
    !existsSync('/usr/bin/chromium')
  ) {
    throw new Error('Chromium could not be installed: run `apt-get install chromium` as root, then again.');
  }
}
