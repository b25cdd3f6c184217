// Builds what is stale: the server bundle, what it says of its answers, its empty database, and the interface. `--force`
// builds all.
import { existsSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { basename, join, resolve } from 'node:path';
import { fileURLToPath, pathToFileURL } from 'node:url';
import { gzipSync } from 'node:zlib';

const root = resolve(fileURLToPath(import.meta.url), '../..');

/** Packages that read files of their own, or start threads with them. */
const HAVE_FILES = ['@electric-sql/pglite', '@fontsource/*', 'highs', 'pdfkit', 'workerpool'];
/** For packages in the bundle that are no modules. */
const REQUIRE =
  "import { createRequire as requireFor } from 'node:module'; const require = requireFor(import.meta.url);";

function newest(path) {
  const stat = statSync(path, { throwIfNoEntry: false });
  if (!stat) return 0;
  if (!stat.isDirectory()) return stat.mtimeMs;
  return Math.max(
    0,
    ...readdirSync(path).map((name) => (name === 'node_modules' || name === 'dist' ? 0 : newest(join(path, name)))),
  );
}

const isStale = (made, ...sources) => {
  const time = statSync(join(root, made), { throwIfNoEntry: false })?.mtimeMs ?? 0;
  return time === 0 || sources.some((source) => newest(join(root, source)) > time);
};

export async function build({ force = false } = {}) {
  if (force || isStale('server/dist/answers.json', 'core/src', 'scripts/answers.mjs')) {
    const { writeAnswers } = await import('./answers.mjs');
    await writeAnswers(root, join(root, 'server/dist/answers.json'));
  }
  if (
    force ||
    isStale('server/dist/database/empty/PG_VERSION', 'server/migrations', 'scripts/database.mjs', 'package-lock.json')
  ) {
    const { writeDatabases } = await import('./database.mjs');
    await writeDatabases(join(root, 'server/migrations'), join(root, 'server/dist/database'));
  }
  if (
    force ||
    isStale(
      'server/dist/main.js',
      'server/src',
      'core/src',
      'scripts/build.mjs',
      'scripts/spreads.cjs',
      'package-lock.json',
    )
  ) {
    await bundleServer();
  }
  if (
    force ||
    isStale(
      'web/dist/index.html',
      'web/src',
      'web/public',
      'web/index.html',
      'web/vite.config.ts',
      'core/src',
      'package-lock.json',
    )
  ) {
    const vite = await import('vite');
    await vite.build({ root: join(root, 'web'), configFile: join(root, 'web/vite.config.ts'), logLevel: 'warn' });
    compress(join(root, 'web/dist'));
  }
}

/** The server in two files: first its own source, then with the packages that it uses. */
async function bundleServer() {
  const { build: bundle } = await import('esbuild');
  const dist = join(root, 'server/dist');
  const names = ['main', 'thread'];
  const shared = {
    bundle: true,
    platform: 'node',
    target: 'node20',
    format: 'esm',
    sourcemap: true,
    logLevel: 'warning',
  };
  await bundle({
    ...shared,
    entryPoints: names.map((name) => join(root, `server/src/${name}.ts`)),
    outdir: join(dist, 'own'),
    packages: 'external',
    alias: { '@wunsch/core': join(root, 'core/src') },
  });
  for (const name of names) await assignSpreads(join(dist, `own/${name}.js`));
  // To look for every file of every package would be a quarter of a start.
  await bundle({
    ...shared,
    entryPoints: names.map((name) => join(dist, `own/${name}.js`)),
    outdir: dist,
    external: HAVE_FILES,
    banner: { js: REQUIRE },
    legalComments: 'linked',
  });
  for (const name of names) spell(join(dist, `${name}.js`));
}

/** Spells letters beyond ASCII: a text with one of them takes two bytes for each letter, as long as the program runs. */
function spell(file) {
  const spelled = readFileSync(file, 'utf8').replace(
    /[\u0080-\uffff]/g,
    (letter) => `\\u${letter.charCodeAt(0).toString(16).padStart(4, '0')}`,
  );
  writeFileSync(file, spelled);
}

/** What is done to spreads; see `spreads.cjs`. */
async function assignSpreads(file) {
  const { transform } = await import('@swc/core');
  const { default: spreads } = await import('./spreads.cjs');
  const { code, map } = await transform(readFileSync(file, 'utf8'), {
    env: spreads.env,
    jsc: { assumptions: spreads.assumptions, parser: { syntax: 'ecmascript' } },
    isModule: true,
    inputSourceMap: readFileSync(`${file}.map`, 'utf8'),
    sourceMaps: true,
  });
  writeFileSync(`${file}.map`, map);
  writeFileSync(file, `${code}\n//# sourceMappingURL=${basename(file)}.map\n`);
}

function compress(directory) {
  for (const name of readdirSync(directory)) {
    const path = join(directory, name);
    if (statSync(path).isDirectory()) compress(path);
    else if (/\.(js|css|html|svg)$/.test(name) && !existsSync(`${path}.gz`))
      writeFileSync(`${path}.gz`, gzipSync(readFileSync(path), { level: 9 }));
  }
}

if (import.meta.url === pathToFileURL(process.argv[1] ?? '').href)
  await build({ force: process.argv.includes('--force') });
