/** @jest-environment jsdom */
import { cleanup, renderHook } from '@testing-library/react';
import type { ReactNode } from 'react';
import type { StepView, WorkshopView } from '@wunsch/core/api/types';
import { DEFAULT_SETTINGS } from '@wunsch/core/workshop/schemas';
import '../src/kinds';
import { gramWords, lossWords, noteOf, stepName, stepWords } from '../src/parts/log-words';
import { HereContext, span, useShow, type Show } from '../src/parts/workshop';

/* How the log tells of what was done, in the workshop's own units. */

afterEach(cleanup);

function show(settings: Partial<WorkshopView['settings']> = {}): Show {
  const view = { settings: { ...DEFAULT_SETTINGS, ...settings } } as WorkshopView;
  const here = { view, personId: 'ann', choosePerson: () => undefined };
  return renderHook(() => useShow(), {
    wrapper: ({ children }: { children: ReactNode }) => (
      <HereContext.Provider value={here}>{children}</HereContext.Provider>
    ),
  }).result.current;
}

type Line = StepView['lines'][number];
const line = (more: Partial<Line>): Line =>
  ({ holdingId: null, code: null, kind: null, loss: null, reason: null, massMg: 0, pieces: 0, ...more }) as Line;
const good = (kind: Line['kind'], massG: number, pieces = 0): Line =>
  line({ holdingId: 'h', kind, massMg: 1000 * massG, pieces });
const lost = (loss: Line['loss'], massG: number, reason: string | null = null): Line =>
  line({ loss, reason, massMg: 1000 * massG });
const step = (kind: StepView['kind'], more: Partial<StepView>): StepView =>
  ({
    kind,
    withdrawn: false,
    inMg: 0,
    goodMg: 0,
    lines: [],
    machine: null,
    command: {},
    cost: { revenueMilli: 0 },
    ...more,
  }) as StepView;
/** With ordinary spaces, to be read here. */
const plain = (text: string): string => text.replace(/[\u00a0\u202f]/g, ' ');
const told = (row: StepView, as = show()): string => plain(stepWords(row, as));

test('a sorting tells what went in and on, its piles together, and what else was lost', () => {
  const row = step('sort', {
    inMg: 25_500_000,
    goodMg: 24_360_000,
    lines: [
      good('beans', 24_360),
      lost('reject', 700, 'flat'),
      lost('reject', 400, 'clumped'),
      lost('unaccounted', 40),
    ],
  });
  expect(told(row)).toBe('25.50 kg in, 24.36 kg on, 1 100 g rejects, 40 g unaccounted');
});

test('what is told is in the units of the workshop', () => {
  const row = step('roast', { inMg: 4_535_924, goodMg: 4_300_000, lines: [good('roasted', 4300)] });
  expect(told(row)).toBe('4 536 g in, 4 300 g on');
  // Side by side they are in one unit, though the second alone would be told in ounces.
  expect(told(row, show({ massSystem: 'imperial' }))).toBe('10.00 lb in, 9.48 lb on');
  const tempered = step('temper', { inMg: 2_000_000, command: { meltC: 46, coolC: 27.5, workC: 31.5 } });
  expect(told(tempered)).toBe('2 000 g in, 46 °C → 27.5 °C → 31.5 °C');
  expect(told(tempered, show({ temperatureUnit: 'F' }))).toBe('2 000 g in, 114.8 °F → 81.5 °F → 88.7 °F');
});

test('losses have their grams and their reason; none is told of nothing', () => {
  const row = step('winnow', {
    inMg: 10_000_000,
    goodMg: 8_000_000,
    lines: [
      good('nibs', 8000),
      good('husk', 1800),
      lost('dust', 150),
      lost('unaccounted', 0),
      lost('write-off', 50, 'wet'),
    ],
  });
  expect(lossWords(row, show()).map(plain)).toEqual(['150 g dust and spill', '50 g written off (wet)']);
  expect(told(row)).toBe('10.00 kg in, 8.00 kg on, 1 800 g husk, 150 g dust and spill, 50 g written off (wet)');
});

test('bars and seconds are counted', () => {
  const row = (bars: number) =>
    step('mould', { inMg: 1_000_000, goodMg: 990_000, lines: [good('bars', 70 * bars, bars), good('seconds', 35, 2)] });
  expect(told(row(13))).toBe('1 000 g in, 990 g on, 13 bars, 2 seconds');
  expect(told(row(1))).toContain(', 1 bar, ');
});

test.each([
  [{ what: 'micron', value: 24 }, '24 µm'],
  [{ what: 'bowl-temperature', value: 48.25 }, '48.3 °C'],
  [{ what: 'stones-stop', cause: 'power', value: null }, 'the stones stop: power cut'],
  [{ what: 'stones-stop', cause: 'stalled', value: null }, 'the stones stop: they stalled, too full'],
  [{ what: 'stones-stop', value: null }, 'the stones stop'],
  [{ what: 'stones-up', value: null }, 'stones up: conched only'],
  [{ what: 'rest-taste', value: 6.5 }, '6.5 of 10 on the shelf'],
  [{ what: 'sourness', value: 4 }, 'sourness 4'],
  [{ what: 'note', value: null, note: 'smells of bread' }, 'smells of bread'],
])('a reading at the stones: %o', (command, words) => {
  expect(told(step('reading', { command }))).toBe(words);
});

test('a mass that goes on says where, also where that machine is not known any more', () => {
  const moved = (machine: string | null): StepView =>
    step('reading', { command: { what: 'move', value: null }, machine });
  expect(told(moved('Conche'))).toBe('goes on in Conche');
  expect(told(moved(null))).toBe('goes on in another machine');
});

test('a sale says what, for how much and to whom; a gift has no price', () => {
  const sold = (command: object, more: Partial<StepView>) => told(step('sell', { command, ...more }));
  const bars = { lines: [line({ holdingId: 'h', pieces: -12 })], inMg: 840_000 };
  expect(sold({ use: 'sold', to: 'Harbour café' }, { ...bars, cost: { revenueMilli: 6_000_000 } as never })).toMatch(
    /^12 pieces for .*60.*, Harbour café$/,
  );
  expect(sold({ use: 'given on', to: '' }, { inMg: 500_000 })).toBe('500 g given on');
  expect(told(step('return', { command: { pieces: 3, fate: 'back', why: '' } }))).toBe('3 sent back, into the store');
  expect(told(step('return', { goodMg: 0, command: { pieces: 1, fate: 'away', why: 'bloomed' } }))).toBe(
    '1 sent back, thrown away: bloomed',
  );
});

test('what was taken back says no more; its note does not come twice', () => {
  expect(told(step('sort', { withdrawn: true, inMg: 5_000_000 }))).toBe('taken back');
  const tasted = step('taste', { command: { score: 7, note: 'plum' } });
  expect(told(tasted)).toBe('7 of 10: plum');
  expect(noteOf(tasted, show())).toBe('');
  expect(noteOf(step('roast', { inMg: 1_000_000, command: { note: 'windy' } }), show())).toBe('windy');
  expect(noteOf(step('roast', { command: {} }), show())).toBe('');
});

test('every kind has a name; one that nobody told of is told by its grams', () => {
  expect(stepName('discharge')).toBe('Poured from the grinder');
  expect(stepName('nothing-known' as never)).toBe('nothing-known');
  expect(told(step('nothing-known' as never, { goodMg: 3_000_000 }))).toBe('3 000 g');
  expect(plain(gramWords(step('charge', { inMg: 2_000_000, goodMg: 2_000_000 }), show(), [], false))).toBe(
    '2 000 g in',
  );
});

test.each([
  [0, '0 min'],
  [59.4 * 60_000, '59 min'],
  [60 * 60_000, '1 h'],
  [200 * 60_000, '3 h 20 min'],
  [11 * 3_600_000 + 60_000, '11 h'],
  [24 * 3_600_000, '1 day'],
  [12 * 86_400_000, '12 days'],
  [-90 * 60_000, '1 h 30 min'],
])('%d ms are about %s', (ms, words) => {
  expect(plain(span(ms))).toBe(words);
});

test('times are the workshop’s, wherever the browser is; a typed one is sent as the instant it means', () => {
  const [lisbon, saigon] = ['Europe/Lisbon', 'Asia/Ho_Chi_Minh'].map((timeZone) => show({ timeZone }));
  const at = Date.UTC(2026, 6, 1, 5, 30);
  expect(lisbon?.time(at)).toBe('06:30');
  expect(saigon?.time(at)).toBe('12:30');
  expect(lisbon?.instant('2026-07-01T06:30')).toBe('2026-07-01T05:30:00.000Z');
  expect(saigon?.instant('2026-07-01T12:30')).toBe('2026-07-01T05:30:00.000Z');
  expect(lisbon?.instant('')).toBeUndefined();
  // What cannot be read goes as it was typed: the server says what is wrong with it.
  expect(lisbon?.sent('yesterday')).toBe('yesterday');
  expect(lisbon?.sent('')).toBeUndefined();
});
