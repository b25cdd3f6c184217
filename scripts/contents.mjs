// What others use of each room of the core, as its contents page (`index.ts`). `--check` says which pages are not up to date.
import { existsSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { dirname, join, relative, resolve } from 'node:path';
import { fileURLToPath, pathToFileURL } from 'node:url';
import { format, resolveConfig } from 'prettier';

const root = resolve(fileURLToPath(import.meta.url), '../..');
const core = join(root, 'core/src');

const filesIn = (directory) =>
  readdirSync(directory).flatMap((name) => {
    const path = join(directory, name);
    if (statSync(path).isDirectory()) return name === 'node_modules' || name === 'dist' ? [] : filesIn(path);
    return /\.tsx?$/.test(name) && name !== 'index.ts' ? [path] : [];
  });

const IMPORT = /import\s+(?:type\s+)?\{([^}]*)\}\s+from\s+'([^']+)'/g;

/** Names that are imported from a room by something outside of it, by file: `{ roast: { fit: Set(…) } }`. */
function used() {
  const rooms = new Map();
  for (const part of ['core/src', 'server/src', 'web/src', 'bench', 'attack', 'core/calibrate'])
    for (const file of filesIn(join(root, part))) {
      for (const [, names, from] of readFileSync(file, 'utf8').matchAll(IMPORT)) {
        const path = from.startsWith('@wunsch/core/')
          ? join(core, from.slice('@wunsch/core/'.length))
          : from.startsWith('.')
            ? resolve(dirname(file), from)
            : null;
        if (path === null || !path.startsWith(`${core}/`)) continue;
        const [room, name, ...deeper] = relative(core, path).split('/');
        if (name === undefined || deeper.length > 0 || file.startsWith(join(core, room, '/'))) continue;
        const files = rooms.get(room) ?? new Map();
        rooms.set(room, files);
        const own = files.get(name) ?? new Set();
        files.set(name, own);
        for (const word of names.split(',')) {
          const bare = word
            .trim()
            .replace(/^type\s+/, '')
            .split(/\s+as\s+/)[0];
          if (bare !== '') own.add(bare);
        }
      }
    }
  return rooms;
}

/** The contents page of a room. */
function pageOf(room, files) {
  const taken = new Set();
  const lines = [...files.keys()].sort().flatMap((name) => {
    const source = readFileSync(join(core, room, `${name}.ts`), 'utf8');
    const isType = (word) => new RegExp(`export (?:declare )?(?:interface|type) ${word}\\b`).test(source);
    const isOwn = (word) =>
      new RegExp(`export (?:declare |async |abstract )*(?:const|function\\*?|class|interface|type) ${word}\\b`).test(
        source,
      );
    // What another file hands on stands where it is made; of two with one name the first.
    const words = [...files.get(name)].filter((word) => isOwn(word) && !taken.has(word)).sort();
    for (const word of words) taken.add(word);
    const both = words.filter((word) => isType(word) && new RegExp(`export const ${word}\\b`).test(source));
    const list = words.map((word) => (isType(word) && !both.includes(word) ? `type ${word}` : word));
    return list.length === 0 ? [] : [`export { ${list.join(', ')} } from './${name}';`];
  });
  return `/* Contents: what others use of this room, file by file. Kept by scripts/contents.mjs. */\n\n${lines.join('\n')}\n`;
}

/** Pages by path, as they should be. */
export async function contentsPages() {
  const config = await resolveConfig(join(root, 'package.json'));
  const pages = new Map();
  for (const [room, files] of [...used()].sort(([a], [b]) => (a < b ? -1 : 1)))
    pages.set(join(core, room, 'index.ts'), await format(pageOf(room, files), { ...config, parser: 'typescript' }));
  return pages;
}

if (import.meta.url === pathToFileURL(process.argv[1] ?? '').href) {
  const isCheck = process.argv.includes('--check');
  let stale = 0;
  for (const [path, text] of await contentsPages()) {
    if (existsSync(path) && readFileSync(path, 'utf8') === text) continue;
    stale += 1;
    if (isCheck) process.stdout.write(`${relative(root, path)} is not up to date: node scripts/contents.mjs\n`);
    else writeFileSync(path, text);
  }
  if (isCheck && stale > 0) process.exit(1);
}
