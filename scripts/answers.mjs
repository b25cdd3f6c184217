// What the server answers, as JSON Schema: from the types that the server and the interface share.
import { mkdirSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';

/** The longest name of a shape; what is put together of many gets a number instead. */
const LONGEST = 40;

/** What each type is called in the document: letters and figures only. */
function namesOf(types) {
  const names = new Map();
  const taken = new Set();
  for (const type of types) {
    const own = type
      .split(/[^A-Za-z0-9]+/)
      .map((word) => word.charAt(0).toUpperCase() + word.slice(1))
      .join('');
    let name = own === '' || own.length > LONGEST || type.startsWith('__') ? 'Shape1' : own;
    for (let n = 2; taken.has(name); n += 1) name = `${name.replace(/\d+$/, '')}${n}`;
    taken.add(name);
    names.set(type, name);
  }
  return names;
}

/** Writes `answers.json`: the schema of each answer by its method and address, and the shapes that they share. */
export async function writeAnswers(root, to) {
  const { default: TJS } = await import('typescript-json-schema');
  const core = join(root, 'core');
  const program = TJS.getProgramFromFiles(
    [join(core, 'src/api/answers.ts')],
    {
      target: 'ES2022',
      module: 'ESNext',
      moduleResolution: 'Bundler',
      strict: true,
      exactOptionalPropertyTypes: true,
      skipLibCheck: true,
      types: [],
    },
    core,
  );
  const generator = TJS.buildGenerator(program, { required: true, ref: true, topRef: false, ignoreErrors: true });
  // All in one go: shapes of one name are told apart only within it.
  const { definitions: all } = generator.getSchemaForSymbol('Answers');
  const names = namesOf(Object.keys(all));
  const renamed = (node) => {
    if (Array.isArray(node)) return node.map(renamed);
    if (node === null || typeof node !== 'object') return node;
    return Object.fromEntries(
      Object.entries(node).map(([key, value]) =>
        key === '$ref' && typeof value === 'string'
          ? [key, `#/components/schemas/${names.get(decodeURIComponent(value.replace('#/definitions/', '')))}`]
          : [key, renamed(value)],
      ),
    );
  };
  const schemas = Object.fromEntries(Object.entries(all).map(([name, node]) => [names.get(name), renamed(node)]));
  const of = (list) => Object.entries(all[list].properties);
  const answers = Object.fromEntries(
    [...of('Reads').map(([url, node]) => [`GET ${url}`, node]), ...of('Writes'), ...of('Asks')].map(([at, node]) => [
      at,
      renamed(node),
    ]),
  );
  for (const list of ['Reads', 'Writes', 'Asks']) delete schemas[list];
  mkdirSync(dirname(to), { recursive: true });
  writeFileSync(to, JSON.stringify({ answers, schemas }));
}
