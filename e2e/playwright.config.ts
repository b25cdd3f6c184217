import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { defineConfig } from '@playwright/test';
import { CHROMIUM } from './chromium';

const root = join(import.meta.dirname, '..');
/** `look` only looks at every view, `work` does the journeys; left out, everything. Each has servers of its own. */
const part = process.env['WUNSCH_E2E'];
/** One empty workshop for the journey, one demo for looking around. */
export const EMPTY = 4711;
/** Another one, furnished by the journeys of single makers. */
export const MAKERS = 4714;
/** A workshop whose clock runs ten minutes a second. */
export const FAST = 4715;
/** An empty one that an export is restored into. */
export const RESTORED = 4716;
export const DEMO = part === 'look' ? 4713 : 4712;

const server = (port: number, flags: string, env: Record<string, string> = {}) => ({
  command: `node server/dist/main.js ${flags}`,
  cwd: root,
  url: `http://127.0.0.1:${port}/api/health`,
  timeout: 120_000,
  reuseExistingServer: false,
  gracefulShutdown: { signal: 'SIGTERM' as const, timeout: 10_000 },
  env: { PORT: String(port), WUNSCH_LOG: 'off', WUNSCH_DATA: mkdtempSync(join(tmpdir(), 'wunsch-e2e-')), ...env },
});

export default defineConfig({
  testDir: import.meta.dirname,
  testMatch: part === 'look' ? 'access.spec.ts' : '*.spec.ts',
  testIgnore: part === 'work' ? ['access.spec.ts'] : [],
  outputDir: join(root, `test-results/${part ?? 'all'}`),
  workers: 1,
  // What passes only then is told as flaky, and counted as neither passed nor failed.
  retries: 1,
  timeout: 300_000,
  expect: { timeout: 20_000 },
  reporter: [['list'], ['json', { outputFile: join(root, `test-results/e2e-${part ?? 'all'}.json`) }]],
  use: {
    viewport: { width: 1280, height: 800 },
    actionTimeout: 40_000,
    launchOptions: CHROMIUM,
  },
  webServer: [
    ...(part === 'look'
      ? []
      : [server(EMPTY, ''), server(MAKERS, ''), server(RESTORED, ''), server(FAST, '', { WUNSCH_CLOCK_SPEED: '600' })]),
    server(DEMO, '--demo'),
  ],
});
