// npm test: installs what is missing, then types, lint, Jest and the browser journeys.
// Ends with `N passed, N failed` over all of them.
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { watch } from './machine.mjs';
import { installChromium, installPackages, root } from './install.mjs';
import { scratch } from './scratch.mjs';

const took = watch();
installPackages();
installChromium();
const { build } = await import('./build.mjs');
await build();

const onScratch = { TMPDIR: scratch() };

const results = join(root, 'test-results');
let passed = 0;
let failed = 0;
const count = (ok, name) => {
  if (ok) passed += 1;
  else failed += 1;
  process.stdout.write(`${ok ? 'ok' : 'FAILED'}: ${name}\n`);
};

/** Runs a command beside others and returns its exit code; what it says is shown when it ends, unless it is quiet. */
function beside(command, args, { env = {}, quiet = false } = {}) {
  const child = spawn(command, args, { cwd: root, env: { ...process.env, ...env }, stdio: ['ignore', 'pipe', 'pipe'] });
  let said = '';
  child.stdout.on('data', (text) => (said += text));
  child.stderr.on('data', (text) => (said += text));
  return new Promise((done) =>
    child.on('close', (code) => {
      if (!quiet || code !== 0) process.stdout.write(said);
      done(code ?? 1);
    }),
  );
}
const npm = (script, args = [], options = {}) => beside('npm', ['run', '--silent', script, '--', ...args], options);

/** Runs the tests of some projects, and counts them. */
async function jest(name, projects) {
  const file = join(results, `jest-${name}.json`);
  const code = await npm('jest', ['--selectProjects', ...projects, '--json', `--outputFile=${file}`, '--silent'], {
    env: onScratch,
    quiet: true,
  });
  if (!existsSync(file)) return count(false, `Jest ran: ${name}`);
  const { numPassedTests, numFailedTests, numRuntimeErrorTestSuites } = JSON.parse(readFileSync(file, 'utf8'));
  passed += numPassedTests;
  failed += numFailedTests + numRuntimeErrorTestSuites;
  if (code !== 0 && numFailedTests + numRuntimeErrorTestSuites === 0) count(false, `Jest ended well: ${name}`);
}

rmSync(results, { recursive: true, force: true });
mkdirSync(results, { recursive: true });
// Arithmetic first, then what needs a server: in processes that run both, each takes half as long again.
const arithmetic = jest('arithmetic', ['core', 'web']);
const tested = arithmetic.then(() => jest('server', ['server']));
count((await beside('node', ['scripts/licences.mjs'])) === 0, 'licences');
count((await npm('lint')) === 0, 'types and lint');
await tested;

const e2eCode = await npm('e2e', [], { env: onScratch });
const e2e = join(results, 'e2e.json');
if (existsSync(e2e)) {
  const { stats } = JSON.parse(readFileSync(e2e, 'utf8'));
  passed += stats.expected;
  failed += stats.unexpected;
  // Neither passed nor failed: somebody has to look at them.
  if (stats.flaky > 0) process.stdout.write(`${stats.flaky} flaky: passed only when tried again\n`);
} else count(false, 'the browser journeys ran');
if (e2eCode !== 0 && failed === 0) count(false, 'the browser journeys ended well');

process.stdout.write(`${took()}\n\n${passed} passed, ${failed} failed\n`);
process.exit(failed === 0 && passed > 0 ? 0 : 1);
