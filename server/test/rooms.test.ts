import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { STATIONS } from '@wunsch/core/work/stations';
import { AREAS } from '../src/areas';

const ROOT = join(__dirname, '../..');

/** Rooms that all stations share: none of them knows a station by name. */
const SHARED = [
  ...['run', 'record', 'stats', 'units', 'gates', 'fields', 'composition', 'losses'].map((room) => `core/src/${room}`),
  ...['http', 'store', 'heavy', 'print', 'floor', 'judgement', 'losses'].map((room) => `server/src/${room}`),
  ...['app', 'entry', 'record', 'charts', 'losses'].map((room) => `web/src/${room}`),
  'core/src/ledger/yields.ts',
  'core/src/ledger/expect.ts',
  'core/src/trace/marks.ts',
  'core/src/trace/notable.ts',
  'core/src/trace/shared.ts',
  'server/src/trace/recalls.ts',
  'server/src/trace/things.ts',
  'server/src/journal/workshop.ts',
  'web/src/stream/BatchStream.tsx',
  'web/src/stream/FloorStream.tsx',
  'web/src/bench/Bench.tsx',
  'web/src/parts/log.tsx',
  'web/src/parts/log-words.ts',
];

/** A station in quotation marks, or something taken out of its room. */
const NAMES = new RegExp(`['"\`](?:${STATIONS.join('|')})['"\`]|from '\\.\\./(?:${STATIONS.join('|')})/`);

function* filesIn(path: string): Generator<string> {
  if (/\.tsx?$/.test(path)) {
    yield path;
    return;
  }
  for (const entry of readdirSync(path, { withFileTypes: true })) yield* filesIn(join(path, entry.name));
}

test.each(SHARED)('%s knows no station by name', (room) => {
  const found = [...filesIn(join(ROOT, room))].flatMap((file) =>
    readFileSync(file, 'utf8')
      .split('\n')
      .flatMap((line, index) =>
        NAMES.test(line) ? [`${file.slice(ROOT.length + 1)}:${index + 1} ${line.trim()}`] : [],
      ),
  );
  expect(found).toEqual([]);
});

test('each station has its line in the registry of screens', () => {
  const screens = readFileSync(join(ROOT, 'web/src/screens.ts'), 'utf8');
  for (const station of STATIONS) expect(screens).toContain(`from './${station}/screen'`);
});

test('rooms of the registry are stations, or say what they are', () => {
  const rooms = Object.keys(AREAS);
  expect(rooms.filter((room) => !(STATIONS as readonly string[]).includes(room))).toEqual(['recipe']);
});
