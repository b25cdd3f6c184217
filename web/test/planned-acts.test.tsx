/** @jest-environment jsdom */
import { cleanup, screen, within } from '@testing-library/react';
import type { ActView } from '@wunsch/core/api/grind';
import type { GrindView } from '@wunsch/core/api/types';
import { laneOf } from '../src/grind/ActsLane';
import { PlannedActs } from '../src/grind/PlannedActs';
import { NOBODY } from '../src/parts/save';
import { field, fill, hands, pick, press, refusal, Server, show, type Setting } from './page';

/* What is planned for a batch on the stones: done, dropped, moved, and one more. */

const HOUR = 3_600_000;
const act = (id: string, what: string, more: Partial<ActView> = {}): ActView =>
  ({
    id,
    what,
    kind: 'other',
    at: null,
    doneAt: null,
    dueAt: Date.now() + 2 * HOUR,
    waitsWords: null,
    night: null,
    ...more,
  }) as ActView;

const grind = (more: object = {}): GrindView =>
  ({
    batch: { id: 'b7', code: 'B077', recipe: null },
    machine: { id: 'm1', name: 'Small stones' },
    ...more,
  }) as GrindView;

const page = async (acts: ActView[], more: object = {}, setting: Setting = {}): Promise<Server> => {
  const server = new Server({
    '/api/grind/batches/B077/run': { code: 'B077', state: 'grinding', groundH: 5, movedH: 5, acts, probe: null },
  });
  show(<PlannedActs grind={grind(more)} told={null} />, setting);
  if (acts.length > 0) await screen.findAllByText(acts[0]?.what ?? '');
  return server;
};

beforeEach(() => localStorage.clear());
afterEach(cleanup);

describe('what is planned', () => {
  test('is done by one press, dropped by another, and taken back if it was not done', async () => {
    const server = await page([act('a1', 'Sugar in'), act('a2', 'Lid off', { doneAt: Date.now() - HOUR })]);
    await press('Done: Sugar in');
    await press('Drop: Sugar in');
    await press('Not done after all: Lid off');
    expect(server.sent.map(({ path, body }) => [path, body])).toEqual([
      ['/api/grind/batches/b7/acts/a1', { personId: 'ilse', done: true }],
      ['/api/grind/batches/b7/acts/a1', { personId: 'ilse', dropped: true }],
      ['/api/grind/batches/b7/acts/a2', { personId: 'ilse', done: false }],
    ]);
  });

  test('says how long until it is due, and what is over', async () => {
    await page([
      act('a1', 'Sugar in'),
      act('a2', 'Read the gauge', { dueAt: Date.now() - 3 * HOUR - 60_000 }),
      act('a3', 'Lecithin in', { dueAt: null, waitsWords: 'once it is at 26 µm' }),
    ]);
    expect(screen.getByText('in 2 h').className).toContain('leaf');
    expect(screen.getByText(/3 h.* over/u).className).toContain('crimson');
    expect(screen.getByText(/once it is at 26 µm/u)).toBeTruthy();
  });

  test('at night it can be done before they leave or when they come', async () => {
    const [before, after] = [Date.now() + HOUR, Date.now() + 15 * HOUR];
    const server = await page([act('a1', 'Lid off', { dueAt: Date.now() + 9 * HOUR, night: { before, after } })]);
    const choice = within(screen.getByRole('group', { name: 'Lid off: nobody is here then' }));
    expect(choice.getByRole('button', { name: /^When we come/u })).toBeTruthy();
    await hands.click(choice.getByRole('button', { name: /^Before we leave/u }));
    expect(server.sent[0]?.body).toEqual({ personId: 'ilse', at: new Date(before).toISOString() });
  });

  test('nobody at the bench does nothing', async () => {
    const server = await page([act('a1', 'Sugar in')], {}, { personId: null });
    await press('Done: Sugar in');
    expect(refusal()).toBe(NOBODY);
    expect(server.sent).toEqual([]);
  });

  test('the usual acts of a stone machine, the feed of a recipe that has none planned', async () => {
    const server = await page([], { batch: { id: 'b7', code: 'B077', recipe: { id: 'r', version: 1 } } });
    await press('Plan the usual acts');
    await press('Plan the feed by its recipe');
    expect(server.sent.map(({ path }) => path)).toEqual([
      '/api/grind/batches/B077/usual',
      '/api/grind/batches/B077/feed',
    ]);
    cleanup();
    await page([act('a1', 'Sugar in', { kind: 'sugar' })], {
      batch: { id: 'b7', code: 'B077', recipe: { id: 'r', version: 1 } },
      machine: { coarse: true },
    });
    expect(screen.queryByRole('button', { name: /^Plan the/u })).toBeNull();
  });
});

describe('one more', () => {
  const one = { what: 'Stir the sides' };

  test('at a time by the workshop’s clock', async () => {
    const server = await page([]);
    await fill('What is to be done', one.what);
    await fill('Time', '2026-11-28 06:30');
    await press('Plan it');
    // Lisbon is on UTC in November.
    expect(server.sent[0]).toMatchObject({
      path: '/api/grind/batches/b7/acts',
      body: { personId: 'ilse', what: one.what, kind: 'other', at: '2026-11-28T06:30:00.000Z' },
    });
    expect(field('What is to be done').value).toBe('');
  });

  test('without a name, and without a time that can be read, it is told what is missing', async () => {
    const server = await page([]);
    await press('Plan it');
    expect(refusal()).toBe('Say what is to be done.');
    await fill('What is to be done', one.what);
    await fill('Time', 'noonish');
    await press('Plan it');
    expect(refusal()).toBe('Say when it is to be done.');
    expect(server.sent).toEqual([]);
  });

  test.each([
    ['after running hours', 'Hours (h)', '12,5', { by: 'running', hours: 12.5 }],
    ['once it is as fine as', 'Fineness (µm)', '26', { by: 'reading', micron: 26 }],
  ])('%s', async (way, label, text, waits) => {
    const server = await page([]);
    await fill('What is to be done', one.what);
    await pick('When', way);
    await fill(label, 'soon');
    await press('Plan it');
    expect(screen.getByText('is not a number')).toBeTruthy();
    await fill(label, '-1');
    await press('Plan it');
    expect(server.sent).toEqual([]);
    await fill(label, text);
    await press('Plan it');
    expect(server.sent[0]?.body).toEqual({ personId: 'ilse', what: one.what, kind: 'other', waits });
  });

  test('after another act, which has to be chosen; an act of the list needs no name', async () => {
    const server = await page([act('a1', 'Sugar in')]);
    await pick('Act', /^Lid off/u);
    await pick('When', 'after another act');
    await fill('Minutes after (min)', '90');
    await press('Plan it');
    expect(refusal()).toBe('Say after which act.');
    await pick('After which', 'Sugar in');
    await press('Plan it');
    expect(server.sent[0]?.body).toMatchObject({ kind: 'lid-off', waits: { by: 'act', actId: 'a1', minutes: 90 } });
    expect(server.sent[0]?.body['what']).not.toBe('');
  });

  test('half typed it survives a reload', async () => {
    await page([]);
    await fill('What is to be done', one.what);
    cleanup();
    await page([]);
    expect(field('What is to be done').value).toBe(one.what);
  });
});

describe('the stretch of time that is drawn', () => {
  const now = Date.UTC(2026, 10, 26, 15, 20);
  const hours = (acts: ActView[]): number => (laneOf(acts, now).to - laneOf(acts, now).from) / HOUR;

  test('begins an hour before this one, holds a day at the least and what is due, four days at the most', () => {
    expect(laneOf([], now).from).toBe(Date.UTC(2026, 10, 26, 14));
    expect(hours([])).toBe(24);
    expect(hours([act('a', 'x', { dueAt: now + 30 * HOUR })])).toBe(42);
    expect(hours([act('a', 'x', { dueAt: now + 400 * HOUR })])).toBe(96);
  });

  test('what is done or due nobody knows when takes no room', () => {
    expect(hours([act('a', 'x', { dueAt: now + 60 * HOUR, doneAt: now }), act('b', 'y', { dueAt: null })])).toBe(24);
  });
});
