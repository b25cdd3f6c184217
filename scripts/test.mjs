// npm test: installs what is missing, then types, lint, Jest and the browser journeys.
// Ends with `N passed, N failed` over all of them.
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { installChromium, installPackages, root, run } from './install.mjs';

installPackages();
installChromium();
const { build } = await import('./build.mjs');
await build();

const results = join(root, 'test-results');
let passed = 0;
let failed = 0;
const count = (ok, name) => {
  if (ok) passed += 1;
  else failed += 1;
  process.stdout.write(`${ok ? 'ok' : 'FAILED'}: ${name}\n`);
};

count(run('node', ['scripts/licences.mjs']) === 0, 'licences');
count(run('npm', ['run', '--silent', 'typecheck']) === 0, 'types');
count(run('npm', ['run', '--silent', 'lint']) === 0, 'lint');

rmSync(results, { recursive: true, force: true });
mkdirSync(results, { recursive: true });
const jest = join(results, 'jest.json');
const jestCode = run('npm', ['run', '--silent', 'jest', '--', '--forceExit', '--json', `--outputFile=${jest}`], {
  stdio: ['ignore', 'ignore', 'inherit'],
});
if (existsSync(jest)) {
  const { numPassedTests, numFailedTests, numRuntimeErrorTestSuites } = JSON.parse(readFileSync(jest, 'utf8'));
  passed += numPassedTests;
  failed += numFailedTests + numRuntimeErrorTestSuites;
} else count(false, 'Jest ran');
if (jestCode !== 0 && failed === 0) count(false, 'Jest ended well');

const e2e = join(results, 'e2e.json');
const e2eCode = run('npm', ['run', '--silent', 'e2e']);
if (existsSync(e2e)) {
  const { stats } = JSON.parse(readFileSync(e2e, 'utf8'));
  passed += stats.expected + stats.flaky;
  failed += stats.unexpected;
} else count(false, 'the browser journeys ran');
if (e2eCode !== 0 && failed === 0) count(false, 'the browser journeys ended well');

process.stdout.write(`\n${passed} passed, ${failed} failed\n`);
process.exit(failed === 0 && passed > 0 ? 0 : 1);
