import { existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Workshop } from '../src/journal/workshop';
import { openDatabase, type OpenDatabase } from '../src/store/database';
import { lotCommand, MIGRATIONS, sortCommand, TEMPLATE } from './harness';
import { madeOf, said, type Made } from './made';

const data = mkdtempSync(join(tmpdir(), 'wunsch-lasting-'));
const file = join(data, 'checkpoint.made');
const HEAD = { personId: 'ann', machineId: null, minutes: 5, energyKwh: 0.5 };
const HOUR = 3_600_000;
const BEGAN = Date.UTC(2026, 8, 1, 8);
/** More than are gone through again after a late entry. */
const SORTED = 1000;

let now = BEGAN;
let opened: OpenDatabase;
let workshop: Workshop;

const open = async (): Promise<void> => {
  opened = await openDatabase(
    data,
    MIGRATIONS,
    existsSync(join(data, 'pg')) ? {} : { prepared: new Blob([readFileSync(TEMPLATE)]) },
  );
  workshop = await Workshop.open(opened, () => now, 'one');
};
const stop = async (): Promise<void> => {
  await workshop.rest();
  await opened.close();
};

const made = (): Made => madeOf(workshop);
/** As a start does it: from what was kept, where it was. */
function resumed(): Made {
  const own = made();
  workshop.resume(own.lasting);
  for (const { follower } of own.lasting.values()) follower.catchUp(0);
  return own;
}
const places = ({ lasting }: Made): (number | undefined)[] =>
  Array.from(lasting.values(), ({ follower }) => follower.settledUpTo?.place);
const keep = (own: Made): void => {
  for (const { follower } of own.lasting.values()) follower.catchUp();
  workshop.keepMade(own.lasting);
};

const lotId = (): string => [...workshop.lots.keys()][0] ?? '';
const sorts = () => [...workshop.book.timeline].filter(({ kind }) => kind === 'sort');

beforeAll(async () => {
  await open();
  workshop.putPerson({ id: 'ann', name: 'Ann', active: true });
  await workshop.commit();
  workshop.record(lotCommand(), HEAD);
  for (let i = 0; i < SORTED; i += 1) {
    now += HOUR;
    workshop.record(sortCommand(lotId(), 3 + (i % 3), 2), HEAD);
  }
  await workshop.commit();
  workshop.settle();
  const own = made();
  keep(own);
  expect(places(own)).toEqual([401, 401, 401, 401, 401, 401]);
  await stop();
});
beforeEach(open);
afterEach(stop);
afterAll(() => rmSync(data, { recursive: true, force: true }));

test('the next start goes on from what was kept, and says what going through the whole book says', async () => {
  const own = resumed();
  expect(places(own)).toEqual([401, 401, 401, 401, 401, 401]);
  expect(said(own)).toBe(said(made()));
  now += HOUR;
  workshop.record(sortCommand(lotId(), 30, 25), HEAD);
  await workshop.commit();
  expect(said(own)).toBe(said(made()));
  expect(places(own)).toEqual([401, 401, 401, 401, 401, 401]);
});

test('an entry that is late, or corrects what is lately done, leaves what is settled; the rest is as the whole book says', async () => {
  const own = resumed();
  said(own);
  workshop.record(sortCommand(lotId(), 44, 40), { ...HEAD, at: new Date(now - 5.5 * HOUR).toISOString() });
  await workshop.commit();
  expect(said(own)).toBe(said(made()));
  const { id } = sorts().at(-9) ?? { id: '' };
  workshop.record(sortCommand(lotId(), 24, 20), HEAD, { supersedes: id, reason: 'misread' });
  await workshop.commit();
  expect(said(own)).toBe(said(made()));
  expect(places(own)).toEqual([401, 401, 401, 401, 401, 401]);
});

test('the next start goes on from what was kept before such entries, too', () => {
  const own = resumed();
  expect(places(own)).toEqual([401, 401, 401, 401, 401, 401]);
  expect(said(own)).toBe(said(made()));
});

test('what settled steps are made into counts no more where one of them is corrected, after a kill as after a stop', async () => {
  const own = resumed();
  said(own);
  const { id } = sorts()[7] ?? { id: '' };
  workshop.record(sortCommand(lotId(), 25, 20), HEAD, { supersedes: id, reason: 'misread' });
  await workshop.commit();
  expect(said(own)).toBe(said(made()));
  // As after a kill: what was kept is still there, and the log says what was changed.
  await opened.close();
  expect(existsSync(file)).toBe(true);
  await open();
  expect(existsSync(file)).toBe(false);
  const next = resumed();
  expect(places(next)).toEqual(Array.from({ length: 6 }, () => undefined));
  expect(said(next)).toBe(said(made()));
  // Written anew, it is kept anew.
  workshop.settle();
  const last = made();
  keep(last);
  expect(existsSync(file)).toBe(true);
  expect(said(last)).toBe(said(made()));
});

test('a byte that is wrong, or nothing to read, makes it no file', async () => {
  await stop();
  const bytes = readFileSync(file);
  bytes[bytes.length >> 1] = (bytes[bytes.length >> 1] ?? 0) ^ 1;
  for (const spoiled of [bytes, Buffer.alloc(0)]) {
    writeFileSync(file, spoiled);
    await open();
    const own = resumed();
    expect(places(own)).toEqual(Array.from({ length: 6 }, () => undefined));
    expect(said(own)).toBe(said(made()));
    await stop();
  }
  await open();
});

test('a corrected step that was settled is dropped from what is kept before the checkpoint is written anew', async () => {
  workshop.settle();
  const own = made();
  keep(own);
  const { id } = sorts()[3] ?? { id: '' };
  workshop.record(sortCommand(lotId(), 26, 20), HEAD, { supersedes: id, reason: 'misread' });
  await workshop.commit();
  expect(existsSync(file)).toBe(true);
  workshop.settle();
  expect(existsSync(file)).toBe(false);
});

test('what is kept is not gone on with where a settled step is corrected before anybody asks', async () => {
  workshop.settle();
  keep(made());
  await stop();
  await open();
  const own = made();
  workshop.resume(own.lasting);
  const { id } = sorts()[5] ?? { id: '' };
  workshop.record(sortCommand(lotId(), 27, 20), HEAD, { supersedes: id, reason: 'misread' });
  await workshop.commit();
  expect(said(own)).toBe(said(made()));
});
