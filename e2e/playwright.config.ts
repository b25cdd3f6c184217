import { join } from 'node:path';
import { defineConfig } from '@playwright/test';
import { CHROMIUM } from './chromium';

const root = join(import.meta.dirname, '..');

export default defineConfig({
  testDir: import.meta.dirname,
  globalSetup: './prepare.ts',
  outputDir: join(root, 'test-results/e2e'),
  // Twice as many as a small machine has cores: journeys wait for clocks and for what is drawn.
  workers: 4,
  // What passes only then is told as flaky, and counted as neither passed nor failed.
  retries: 1,
  timeout: 300_000,
  expect: { timeout: 20_000 },
  // All in one project: for each a worker would begin anew, with a browser and its workshops.
  testMatch: '*.spec.ts',
  reporter: [['list'], ['json', { outputFile: join(root, 'test-results/e2e.json') }]],
  use: {
    viewport: { width: 1280, height: 800 },
    actionTimeout: 40_000,
    launchOptions: CHROMIUM,
  },
});
