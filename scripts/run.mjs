// npm run demo | start | dev | bench | attack | calibrate | screenshots: works in a bare clone.
import { spawn } from 'node:child_process';
import { installChromium, installPackages, root, run } from './install.mjs';
import { SERVER, SERVER_ENV } from './server.mjs';

const [what = 'start', ...rest] = process.argv.slice(2);

function keep(command, args, env = {}) {
  const child = spawn(command, args, { cwd: root, stdio: 'inherit', env: { ...process.env, ...env } });
  for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => child.kill(signal));
  return new Promise((done) => child.on('exit', (code, signal) => done(code ?? (signal ? 1 : 0))));
}

installPackages();
const { build } = await import('./build.mjs');
let code;
if (what === 'demo' || what === 'start') {
  await build();
  code = await keep(process.execPath, [...SERVER, ...(what === 'demo' ? ['--demo'] : []), ...rest], {
    ...SERVER_ENV,
    WUNSCH_LOG: process.env.WUNSCH_LOG ?? (what === 'demo' ? 'off' : 'on'),
  });
} else if (what === 'dev') {
  await build();
  const back = keep(process.execPath, [...SERVER, '--demo', ...rest], SERVER_ENV);
  const front = keep('npx', ['vite', 'web']);
  code = await Promise.race([back, front]);
} else if (what === 'bench') {
  installChromium();
  await build();
  code = run('npx', ['tsx', 'bench/run.ts', ...rest]);
} else if (what === 'attack') {
  await build();
  code = run('npx', ['tsx', 'attack/run.ts', ...rest]);
} else if (what === 'calibrate') {
  code = run('npx', ['tsx', 'core/calibrate/main.ts', ...rest]);
} else if (what === 'screenshots') {
  installChromium();
  await build();
  code = run('npx', ['tsx', 'e2e/screenshots.ts', ...rest]);
} else {
  process.stderr.write(`There is no “${what}”.\n`);
  code = 2;
}
process.exit(code);
