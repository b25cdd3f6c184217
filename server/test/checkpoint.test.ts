import {
  cpSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readFileSync,
  rmSync,
  statSync,
  truncateSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Command } from '@wunsch/core/commands';
import { exportWorkshop } from '../src/journal/export';
import { Workshop } from '../src/journal/workshop';
import { openDatabase, type OpenDatabase } from '../src/store/database';
import { SealedStep } from '../src/checkpoint/sealed-steps';
import { lotCommand, MIGRATIONS, sortCommand, TEMPLATE } from './harness';

const directory = mkdtempSync(join(tmpdir(), 'wunsch-checkpoint-'));
const data = join(directory, 'data');
const file = join(data, 'checkpoint');
const log = join(data, 'checkpoint.log');
afterAll(() => rmSync(directory, { recursive: true, force: true }));

const HEAD = { personId: 'ann', machineId: null, minutes: 5, energyKwh: 0.5 };
const NOW = Date.UTC(2026, 10, 26);
let opened: OpenDatabase;
let workshop: Workshop;

const open = async (build = 'one'): Promise<void> => {
  const isNew = !existsSync(data);
  mkdirSync(data, { recursive: true });
  opened = await openDatabase(data, MIGRATIONS, isNew ? { prepared: new Blob([readFileSync(TEMPLATE)]) } : {});
  workshop = await Workshop.open(opened, () => NOW, build);
};
/** As after a kill: nothing more is written. */
const kill = (): Promise<void> => opened.close();
const stop = async (): Promise<void> => {
  await workshop.rest();
  await opened.close();
};

/** How many steps were read from what was kept. */
const sealed = (): number => [...workshop.book.steps.values()].filter((step) => step instanceof SealedStep).length;

/** What the workshop is, and what the same is when every row is read. */
async function both(): Promise<[string, string]> {
  const now = await exportWorkshop(workshop);
  await kill();
  opened = await openDatabase(data, MIGRATIONS);
  workshop = await Workshop.open(opened, () => NOW);
  return [now, await exportWorkshop(workshop)];
}

const done = async (command: Command): Promise<string> => {
  const step = workshop.record(command, HEAD);
  await workshop.commit();
  return step.slots['good'] ?? step.id;
};

/** A workshop with some steps, stopped. */
const made = join(directory, 'made');

beforeAll(async () => {
  await open();
  workshop.putPerson({ id: 'ann', name: 'Ann', active: true });
  await workshop.commit();
  const lot = await done(lotCommand());
  for (let i = 0; i < 5; i += 1) await done(sortCommand(lot, 500 + i, 480));
  await stop();
  cpSync(data, made, { recursive: true });
});
/** Puts a directory where the workshop is. */
function take(from: string): void {
  rmSync(data, { recursive: true, force: true });
  cpSync(from, data, { recursive: true });
}
const begin = (): Promise<void> => {
  take(made);
  return open();
};
afterEach(() => opened.close().catch(() => undefined));

const lotId = (): string => [...workshop.lots.keys()][0] ?? '';

test('a stop writes what the next start reads', async () => {
  await begin();
  workshop.settle();
  expect(sealed()).toBe(6);
  const [kept, read] = await both();
  expect(kept).toBe(read);
});

test('after a kill the start reads what was kept, and what was committed since', async () => {
  await begin();
  workshop.settle();
  const good = await done(sortCommand(lotId(), 700, 600));
  const first = [...workshop.book.steps.values()].find(({ kind }) => kind === 'sort');
  workshop.record(sortCommand(lotId(), 510, 470), HEAD, { supersedes: first?.id ?? '', reason: 'misread' });
  await workshop.commit();
  workshop.putMachine({ id: 'm', name: 'Tray', station: 'sort' } as never);
  workshop.putSettings({ ...workshop.settings, name: 'Other' });
  workshop.addBeanRecord(lotId(), { kind: 'look', moved: [], signs: false, note: '' }, { personId: 'ann' });
  await workshop.commit();
  const receipt = [...workshop.book.steps.values()].find(({ kind }) => kind === 'receive');
  workshop.record({ ...lotCommand(), name: 'Renamed', country: 'Peru' } as Command, HEAD, {
    supersedes: receipt?.id ?? '',
    reason: 'other papers',
  });
  await workshop.commit();
  const work = workshop.startWork({
    station: 'sort',
    sources: [{ holdingId: lotId(), massG: 50 }],
    machineId: null,
    personId: 'ann',
    dueAt: null,
    note: '',
  } as never);
  await workshop.commit();
  workshop.putBack(work.id);
  workshop.addFile(
    { lotId: lotId(), subject: null, name: 'a', caption: '', type: 'image/png', width: 1, height: 1, personId: 'ann' },
    Buffer.from('x'),
  );
  await workshop.commit();
  const now = await exportWorkshop(workshop);
  const worth = workshop.valuation.worth(good);
  await kill();
  await open();
  expect(sealed()).toBe(6);
  expect(await exportWorkshop(workshop)).toBe(now);
  expect(workshop.valuation.worth(good)).toEqual(worth);
  expect(workshop.lots.get(lotId())?.country).toBe('Peru');
  // And it goes on: written anew over both.
  await done(sortCommand(lotId(), 33, 30));
  workshop.settle();
  expect(sealed()).toBe(10);
  const [kept, read] = await both();
  expect(kept).toBe(read);
});

test('what is sealed is corrected with what came after it, and taken back, like anything else', async () => {
  await begin();
  const beans = await done(sortCommand(lotId(), 3000, 2900));
  const roast = { kind: 'roast', sources: [{ holdingId: beans, massG: 2900 }], program: [], endBeanC: null, note: '' };
  const roasted = await done({ ...roast, outG: 2700 } as Command);
  workshop.settle();
  expect(sealed()).toBe(8);
  const sorted = [...workshop.book.steps.values()].find(({ slots }) => slots['good'] === beans);
  const fewer = { supersedes: sorted?.id ?? '', reason: 'the tray was on the scale' };
  const shown = workshop.previewCorrection(sortCommand(lotId(), 3000, 2850), HEAD, fewer.supersedes, new Map());
  expect(shown.problem).toBeNull();
  const [later] = shown.reached;
  expect(later?.old.kind).toBe('roast');
  const along = new Map(shown.reached.map(({ old, command }) => [old.id, command]));
  workshop.record(sortCommand(lotId(), 3000, 2850), HEAD, fewer, undefined, along);
  await workshop.commit();
  expect(workshop.book.balance(beans).massMg).toBe(0);
  expect(workshop.book.steps.get(workshop.book.successorOf(later?.old.id ?? '') ?? '')).toMatchObject({
    at: later?.old.at,
    order: later?.old.order,
    station: 'roast',
  });
  const last = [...workshop.book.steps.values()].at(-1);
  workshop.withdraw(last?.id ?? '', 'ann', 'never happened');
  await workshop.commit();
  expect(workshop.book.balance(roasted).massMg).toBe(0);
  const receipt = [...workshop.book.steps.values()].find(({ kind }) => kind === 'sort');
  workshop.withdraw(receipt?.id ?? '', 'ann', 'never happened');
  await workshop.commit();
  const [kept, read] = await both();
  expect(kept).toBe(read);
});

test('a commit that the database never took is not taken from the log', async () => {
  await begin();
  workshop.settle();
  const before = join(directory, 'before');
  rmSync(before, { recursive: true, force: true });
  await kill();
  cpSync(data, before, { recursive: true });
  await open();
  await done(sortCommand(lotId(), 700, 600));
  await kill();
  // The database as it was, and the log one line ahead of it.
  cpSync(log, join(before, 'checkpoint.log'));
  rmSync(data, { recursive: true, force: true });
  cpSync(before, data, { recursive: true });
  rmSync(join(data, 'last-step'), { force: true });
  await open();
  expect(sealed()).toBe(6);
  expect(workshop.book.steps.size).toBe(6);
  // The number is given again, to something else.
  await done(sortCommand(lotId(), 70, 60));
  const now = await exportWorkshop(workshop);
  await kill();
  await open();
  expect(sealed()).toBe(6);
  expect(await exportWorkshop(workshop)).toBe(now);
});

const texts = join(data, 'checkpoint.steps');
const spoilt: [what: string, spoil: () => void][] = [
  ['a byte of it is another', () => writeFileSync(file, flipped(readFileSync(file)))],
  ['it ends too soon', () => truncateSync(file, statSync(file).size - 700)],
  ['it is something else', () => writeFileSync(file, 'wunsch checkpoint 2\nnothing that is known')],
  ['it is empty', () => writeFileSync(file, '')],
  ['its texts end too soon', () => truncateSync(texts, statSync(texts).size - 3)],
  ['its texts are gone', () => rmSync(texts)],
  ['the log is gone', () => rmSync(log)],
  ['a line of the log is missing', () => writeFileSync(log, lines().slice(1).join('\n'))],
  ['a line of the log is spoilt', () => writeFileSync(log, readFileSync(log, 'utf8').replace('"sort"', '"sart"'))],
  ['the last line of the log was cut off', () => truncateSync(log, statSync(log).size - 9)],
];
const lines = (): string[] => readFileSync(log, 'utf8').split('\n');
function flipped(bytes: Buffer): Buffer {
  bytes[bytes.length >> 1] = (bytes[bytes.length >> 1] ?? 0) ^ 4;
  return bytes;
}

describe('where what is kept is spoilt', () => {
  /** The same with two steps more, which only the log has; and what all of it means. */
  const ahead = join(directory, 'ahead');
  let meant = '';
  beforeAll(async () => {
    await begin();
    workshop.settle();
    await done(sortCommand(lotId(), 700, 600));
    await done(sortCommand(lotId(), 70, 60));
    meant = await exportWorkshop(workshop);
    await kill();
    cpSync(data, ahead, { recursive: true });
  });

  test.each(spoilt)('%s: the database is read, and it is kept anew', async (_, spoil) => {
    take(ahead);
    spoil();
    await open();
    expect(await exportWorkshop(workshop)).toBe(meant);
    expect(sealed()).toBe(8);
  });
});

test('a text that is another is found soon after the start; the database is read, and it is kept anew', async () => {
  await begin();
  workshop.settle();
  const now = await exportWorkshop(workshop);
  await kill();
  writeFileSync(texts, readFileSync(texts, 'utf8').replace('"Test lot"', '"Best lot"'));
  await open();
  expect(await exportWorkshop(workshop)).not.toBe(now);
  await workshop.checkKept();
  expect(await exportWorkshop(workshop)).toBe(now);
  expect(sealed()).toBe(6);
  await kill();
  await open();
  expect(await exportWorkshop(workshop)).toBe(now);
});

test('another program does not read what this one kept', async () => {
  await begin();
  workshop.settle();
  await kill();
  await opened.close().catch(() => undefined);
  const before = readFileSync(file);
  await open('two');
  expect(sealed()).toBe(6);
  expect(readFileSync(file).equals(before)).toBe(false);
});

test('a workshop that takes the place of this one does not meet what was kept of it', async () => {
  await begin();
  workshop.settle();
  const old = readFileSync(file);
  const [route] = workshop.routes.values();
  await workshop.empty();
  workshop.putPerson({ id: 'bo', name: 'Bo', active: true });
  if (route) workshop.putRoute(route);
  await workshop.commit();
  const now = await exportWorkshop(workshop);
  await kill();
  // Somebody brings the old file back.
  writeFileSync(file, old);
  rmSync(log, { force: true });
  await open();
  expect(workshop.book.steps.size).toBe(0);
  expect(await exportWorkshop(workshop)).toBe(now);
});

test('a write that the database refuses leaves no trace in what is kept', async () => {
  await begin();
  workshop.settle();
  workshop.putPerson({ id: 'bo', name: 'Bo', active: true });
  // A step by nobody that the people's table knows.
  workshop.people.set('cy', { id: 'cy', name: 'Cy', active: true });
  workshop.record(sortCommand(lotId(), 700, 600), { ...HEAD, personId: 'cy' });
  await expect(workshop.commit()).rejects.toThrow();
  expect(workshop.book.steps.size).toBe(6);
  await done(sortCommand(lotId(), 70, 60));
  const now = await exportWorkshop(workshop);
  await kill();
  await open();
  expect(await exportWorkshop(workshop)).toBe(now);
});
