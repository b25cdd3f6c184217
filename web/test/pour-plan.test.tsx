/** @jest-environment jsdom */
import { cleanup, screen, within } from '@testing-library/react';
import type { PourView } from '@wunsch/core/api/temper';
import { USUAL_WINDOWS } from '@wunsch/core/temper/windows';
import type { LivePour, PourAct } from '@wunsch/core/work/tempering';
import { PlanLane } from '../src/temper/PlanLane';
import { ProbeControls } from '../src/temper/ProbeControls';
import type { Poured } from '../src/temper/usePour';
import { field, fill, hands, press, Server, show, type Setting } from './page';

/* A pour's plan: worked out for this bowl and this room, act by act, all of it typed over; in the maker's degrees. */

const act = (id: string, what: string, more: Partial<PourAct> = {}): PourAct => ({
  id,
  what,
  way: null,
  tempC: null,
  minutes: null,
  grams: null,
  doneS: null,
  ...more,
});
const ACTS = [
  act('a', 'Melt it out', { way: 'up', tempC: 47, doneS: 300 }),
  act('b', 'Spread on the slab and work it', { way: 'down', tempC: 27, grams: 1962 }),
  act('c', 'Scrape it back and stir', { way: 'up', tempC: 31.5, minutes: 4 }),
];
const pour = (more: Partial<LivePour> = {}): PourView =>
  ({
    workId: 'w1',
    probe: 'hand',
    windows: USUAL_WINDOWS.dark,
    readings: [],
    nowS: 600,
    massG: 3000,
    pour: { school: 'slab', acts: ACTS, marks: [], ...more },
  }) as unknown as PourView;

let asked: [string, unknown][] = [];
const poured = (kept = true): Poured =>
  ({
    busy: false,
    error: null,
    plan: (body: unknown) => {
      asked.push(['plan', body]);
      return Promise.resolve(kept);
    },
    setDone: (id: string, done: boolean) => {
      asked.push([id, done]);
      return Promise.resolve(kept);
    },
  }) as unknown as Poured;

const chosen: string[] = [];
const page = (of = pour(), setting: Setting = {}, act_ = poured()): void => {
  new Server();
  show(<PlanLane pour={of} act={act_} chosen={(school) => chosen.push(school)} />, setting);
};
const F: Setting = { settings: { temperatureUnit: 'F' } };
const plan = (): string[] =>
  within(screen.getByRole('list', { name: 'Plan' }))
    .getAllByRole('listitem')
    .map(({ textContent }) => textContent.replaceAll(/\s/gu, ' '));
const last = (): unknown => asked.at(-1)?.[1];
const edited = (): PourAct[] => (last() as { acts: PourAct[] }).acts;

beforeEach(() => {
  localStorage.clear();
  asked = [];
  chosen.splice(0);
});
afterEach(cleanup);

test('each act says what, how much, to where, how long; what is done can be taken back, what is now be done', async () => {
  page();
  expect(plan()).toEqual([
    'Melt it out: up to 47 °CNot after all',
    'Spread on the slab and work it: 1 962 g, down to 27 °CDone',
    'Scrape it back and stir: up to 31.5 °C, 4 min',
  ]);
  await press('Done');
  expect(asked).toEqual([['b', true]]);
  await press('Not after all');
  expect(asked.at(-1)).toEqual(['a', false]);
});

test('in Fahrenheit where the maker reads that', () => {
  page(pour(), F);
  expect(plan().map((row) => /to [\d.]+ °F/u.exec(row)?.[0])).toEqual(['to 116.6 °F', 'to 80.6 °F', 'to 88.7 °F']);
});

test('a school is chosen: worked out for the bowl and the room that are typed', async () => {
  page(pour({ school: null, acts: [] }));
  expect(field('Room (°C)').value).toBe('20');
  await fill('Bowl of steel (kg)', '1,2');
  await fill('Room (°C)', '24');
  await press('Slab');
  expect(last()).toEqual({ school: 'slab', bowlKg: 1.2, roomC: 24 });
  expect(chosen).toEqual(['slab']);
});

test('a room in Fahrenheit is sent as what it is', async () => {
  page(pour({ school: null, acts: [] }), F);
  expect(field('Room (°F)').value).toBe('68');
  await fill('Room (°F)', '77');
  await press('Seed');
  expect(last()).toMatchObject({ school: 'seed' });
  expect((last() as { roomC: number }).roomC).toBeCloseTo(25, 9);
});

test('a room or a bowl that is no number is told at its field, and nothing is worked out', async () => {
  page(pour({ school: null, acts: [] }));
  await fill('Room (°C)', 'warm');
  await press('Slab');
  expect(field('Room (°C)').getAttribute('aria-invalid')).toBe('true');
  await fill('Room (°C)', '');
  await press('Slab');
  expect(field('Room (°C)').getAttribute('aria-invalid')).toBe('true');
  await fill('Room (°C)', '20');
  await fill('Bowl of steel (kg)', 'heavy');
  await press('Slab');
  expect(field('Bowl of steel (kg)').getAttribute('aria-invalid')).toBe('true');
  expect(asked).toEqual([]);
});

test('only schools whose sum the room is part of ask for it, and are worked out again by Enter', async () => {
  page(pour({ school: 'bath' }));
  expect(screen.queryByLabelText('Room (°C)')).toBeNull();
  cleanup();
  page(pour({ bowlKg: 0.8, roomC: 22 }));
  await fill('Bowl of steel (kg)', '1');
  await hands.keyboard('{Enter}');
  expect(last()).toEqual({ school: 'slab', bowlKg: 1, roomC: 22 });
});

describe('is typed over', () => {
  test('words and figures, one left out, one more', async () => {
    page();
    await press('Change the plan');
    await fill('Act 2', 'Work it on the slab');
    await hands.clear(screen.getAllByLabelText('To (°C)')[1] as HTMLElement);
    await hands.type(screen.getAllByLabelText('To (°C)')[1] as HTMLElement, '26.8');
    await hands.click(screen.getAllByRole('button', { name: 'Leave out' })[0] as HTMLElement);
    await press('Another act');
    await fill('Act 3', ' Rest it ');
    await hands.type(screen.getAllByLabelText('For (min)')[2] as HTMLElement, '5');
    await press('Keep this plan');
    expect(edited()).toEqual([
      { ...ACTS[1], what: 'Work it on the slab', tempC: 26.8 },
      ACTS[2],
      { ...act('', 'Rest it', { minutes: 5 }), id: expect.any(String) as string },
    ]);
    expect(plan()).toHaveLength(3);
  });

  test('in Fahrenheit, and sent in Celsius', async () => {
    page(pour(), F);
    await press('Change the plan');
    const boxes = screen.getAllByLabelText<HTMLInputElement>('To (°F)');
    expect(boxes.map(({ value }) => value)).toEqual(['116.6', '80.6', '88.7']);
    await hands.clear(boxes[1] as HTMLElement);
    await hands.type(boxes[1] as HTMLElement, '81.5');
    await press('Keep this plan');
    expect(edited()[1]?.tempC).toBeCloseTo(27.5, 9);
    expect(edited()[0]?.tempC).toBeCloseTo(47, 9);
  });

  test('without words, or with a figure that is none, it is not kept', async () => {
    page();
    await press('Change the plan');
    await hands.type(screen.getAllByLabelText('For (min)')[0] as HTMLElement, 'long');
    await press('Keep this plan');
    expect(screen.getByRole('alert').textContent).toBe('Act 1 has no words, or a figure that is no number.');
    expect(screen.getAllByLabelText('For (min)')[0]?.getAttribute('aria-invalid')).toBe('true');
    expect(asked).toEqual([]);
    await press('As it was');
    expect(plan()).toHaveLength(3);
  });

  test('where it was not kept, what was typed stays, over a reload too', async () => {
    page(pour(), {}, poured(false));
    await press('Change the plan');
    await fill('Act 1', 'Melt it slowly');
    await press('Keep this plan');
    expect(field('Act 1').value).toBe('Melt it slowly');
    cleanup();
    page();
    expect(field('Act 1').value).toBe('Melt it slowly');
    await press('As it was');
    cleanup();
    page();
    expect(plan()[0]).toContain('Melt it out');
  });
});

describe('a temperature read by hand', () => {
  const readings: number[] = [];
  const follow = jest.fn();
  const read = (setting: Setting = {}, kept = true): void => {
    readings.splice(0);
    follow.mockClear();
    show(
      <ProbeControls
        probe="hand"
        of="W1"
        busy={false}
        read={(c) => {
          readings.push(c);
          return Promise.resolve(kept);
        }}
        follow={follow}
        quick={{ words: 'Sixty times the clock', speed: 60 }}
      />,
      setting,
    );
  };

  test('is kept in Celsius, whatever it was typed in', async () => {
    read();
    await fill('It is at (°C)', '31,6');
    await hands.keyboard('{Enter}');
    expect(readings).toEqual([31.6]);
    expect(field('It is at (°C)').value).toBe('');
    cleanup();
    read(F);
    await fill('It is at (°F)', '89.6');
    await press('Log it');
    expect(readings[0]).toBeCloseTo(32, 9);
  });

  test('stays in its field where it is none, or was not kept', async () => {
    read();
    await fill('It is at (°C)', '3l');
    await press('Log it');
    expect(readings).toEqual([]);
    expect(field('It is at (°C)').getAttribute('aria-invalid')).toBe('true');
    cleanup();
    read({}, false);
    await fill('It is at (°C)', '31');
    await press('Log it');
    expect(field('It is at (°C)').value).toBe('31');
  });

  test('half typed, it is there again after a reload, at its own bowl', async () => {
    read();
    await fill('It is at (°C)', '31.');
    cleanup();
    read();
    expect(field('It is at (°C)').value).toBe('31.');
    await hands.type(field('It is at (°C)'), '4{Enter}');
    expect(readings).toEqual([31.4]);
    cleanup();
    read();
    expect(field('It is at (°C)').value).toBe('');
  });

  test('or by a probe, simulated ones at their own pace', async () => {
    read();
    await press('A probe sends it');
    await press('Simulated probe');
    await press('Sixty times the clock');
    expect(follow.mock.calls).toEqual([
      ['sent', undefined],
      ['simulated', undefined],
      ['simulated', 60],
    ]);
  });
});
