/** @jest-environment jsdom */
import { act, cleanup, fireEvent, screen, within } from '@testing-library/react';
import { useState } from 'react';
import { another, clockWords, EMPTY_IMPRESSION, sheetOf, type Impression } from '../src/taste/impression';
import { SheetForm, StepChips, STEPS, WarmWater, type StepAt } from '../src/taste/SheetForm';
import { show } from './page';

/* The guided sheet: look, snap and smell, melt, sum up. Its clocks are the house's; here they are moved by hand. */

let now: Impression = EMPTY_IMPRESSION;
function Sheet({ step, start, ...more }: { step: StepAt; start: Impression; before?: Impression; scales?: boolean }) {
  const [value, setValue] = useState(start);
  now = value;
  return <SheetForm step={step} value={value} onChange={setValue} words={WORDS} {...more} />;
}
function Water({ start }: { start: Impression }) {
  const [value, setValue] = useState(start);
  now = value;
  return <WarmWater value={value} onChange={setValue} />;
}

const WORDS = ['red fruit', 'nuts', 'nutmeg', 'smoke'];
const sheet = (step: StepAt, start: Partial<Impression> = {}, more: object = {}): void => {
  show(<Sheet step={step} start={{ ...EMPTY_IMPRESSION, ...start }} {...more} />);
};
const button = (name: string | RegExp): HTMLElement => screen.getByRole('button', { name });
const press = (name: string | RegExp): boolean => fireEvent.click(button(name));
const isOn = (name: string): boolean => button(name).getAttribute('aria-pressed') === 'true';
const later = (seconds: number): void => act(() => jest.advanceTimersByTime(1000 * seconds));
const type = (label: string | RegExp, value: string): boolean =>
  fireEvent.change(screen.getByLabelText(label), { target: { value } });

beforeEach(() => jest.useFakeTimers({ now: Date.UTC(2026, 10, 26, 9) }));
afterEach(() => {
  cleanup();
  jest.useRealTimers();
});

describe('look', () => {
  test('colour and shine are one press each, and taken back by the same', () => {
    sheet(0);
    expect(screen.getByText('lay the bar beside it, by daylight')).toBeTruthy();
    press('Colour step 5');
    press('Shine 8');
    expect([now.colour, now.shine]).toEqual([4, 8]);
    expect(screen.getByText('step 5 of 7')).toBeTruthy();
    expect(isOn('Colour step 5')).toBe(true);
    press('Colour step 5');
    press('Shine 8');
    expect([now.colour, now.shine]).toEqual([null, null]);
  });

  test('where one went back, the figure of before is said until it is the same again', () => {
    sheet(0, { shine: 8 }, { before: { ...EMPTY_IMPRESSION, shine: 6 } });
    expect(screen.getByText(', was 6')).toBeTruthy();
    press('Shine 6');
    expect(screen.queryByText(', was 6')).toBeNull();
  });

  test('nought is a figure, not none', () => {
    sheet(0);
    press('Shine 0');
    expect(now.shine).toBe(0);
    expect(isOn('Shine 0')).toBe(true);
  });
});

describe('snap and smell', () => {
  test('an edge is clean or crumbles, never both', () => {
    sheet(1);
    press('Clean edge');
    expect(now.cleanBreak).toBe(true);
    press('Crumbles');
    expect(now.cleanBreak).toBe(false);
    expect([isOn('Clean edge'), isOn('Crumbles')]).toEqual([false, true]);
    press('Crumbles');
    expect(now.cleanBreak).toBeNull();
  });

  test('broken at a seam it is said that this tells nothing', () => {
    sheet(1);
    expect(screen.queryByText(/At a seam every bar breaks clean/u)).toBeNull();
    press('Broken at a seam');
    expect(screen.getByText(/At a seam every bar breaks clean/u)).toBeTruthy();
  });

  test('words are pressed or typed; pressed again they go', () => {
    sheet(1);
    press('nuts');
    type('It smells of', '  Wet Stone ');
    fireEvent.keyDown(screen.getByLabelText('It smells of'), { key: 'Enter' });
    expect(now.smell).toEqual(['nuts', 'wet stone']);
    expect(screen.getByText('Nuts, wet stone.')).toBeTruthy();
    press('nuts');
    expect(now.smell).toEqual(['wet stone']);
  });

  test('typing finds words of the list; an empty word is none; a dozen is enough', () => {
    sheet(1, { smell: Array.from({ length: 12 }, (_, i) => `w${i}`) });
    type('It smells of', 'nut');
    expect(screen.queryByRole('button', { name: 'smoke' })).toBeNull();
    press('nutmeg');
    expect(now.smell).toHaveLength(12);
    expect(now.smell).not.toContain('nutmeg');
    type('It smells of', '   ');
    fireEvent.keyDown(screen.getByLabelText('It smells of'), { key: 'Enter' });
    expect((button('Add it') as HTMLButtonElement).disabled).toBe(true);
    expect(now.smell).toHaveLength(12);
  });
});

describe('the melt', () => {
  const notes = (): string[] =>
    within(screen.getByRole('list', { name: 'Notes on the line' }))
      .queryAllByRole('button')
      .map((row) => row.getAttribute('aria-label') ?? '');

  test('a word falls onto the line where it was tasted, in the part of the melt that is on', () => {
    sheet(2);
    press('It is on the tongue');
    later(12);
    press('red fruit');
    press('Middle');
    later(20);
    press('nuts');
    press('Finish');
    later(33);
    press('It is gone');
    press('smoke');
    expect(notes()).toEqual([
      'red fruit, opening, at 0:12. Take it off',
      'nuts, middle, at 0:32. Take it off',
      'smoke, finish, at 1:05. Take it off',
    ]);
    expect(sheetOf(now)).toMatchObject({ seconds: 65, notes: [{ second: 12 }, { second: 32 }, { second: 65 }] });
    expect(screen.getByLabelText('Time of the melt').textContent).toBe('1:05');
  });

  test('a note is taken off by a press on it, and only that one', () => {
    sheet(2, {
      notes: [
        { second: 3, phase: 'opening', word: 'nuts' },
        { second: 9, phase: 'opening', word: 'nuts' },
      ],
    });
    press('nuts, opening, at 0:09. Take it off');
    expect(now.notes).toEqual([{ second: 3, phase: 'opening', word: 'nuts' }]);
  });

  test('before the clock runs a word stands at its beginning', () => {
    sheet(2);
    press('smoke');
    expect(now.notes).toEqual([{ second: 0, phase: 'opening', word: 'smoke' }]);
  });

  test('another piece begins anew', () => {
    sheet(2, { meltAt: 1, meltSeconds: 40, phase: 'finish', notes: [{ second: 3, phase: 'opening', word: 'nuts' }] });
    press('Melt another piece');
    expect(now).toMatchObject({ meltAt: null, meltSeconds: null, phase: 'opening', notes: [] });
    expect(screen.getByLabelText('Time of the melt').textContent).toBe('0:00');
  });

  test('the line is a minute long at first, and grows with who takes their time', () => {
    sheet(2);
    expect(screen.getByText('1:00')).toBeTruthy();
    cleanup();
    sheet(2, { meltAt: 1, meltSeconds: 88 });
    expect(screen.getByText('2:00')).toBeTruthy();
  });
});

describe('sum up', () => {
  test('scales are kept by name; one pressed again is left out', () => {
    sheet(3);
    press('Overall 7');
    press('Sour 3');
    press('Bitter 4');
    expect(now.overall).toBe(7);
    expect(now.scales).toEqual({ sour: 3, bitter: 4 });
    press('Sour 3');
    expect(now.scales).toEqual({ bitter: 4 });
    type('When would you eat this?', 'with coffee');
    type('Anything else', 'thin');
    expect(now).toMatchObject({ eatWhen: 'with coffee', note: 'thin' });
  });

  test('a sheet without scales asks only for the whole', () => {
    sheet(3, {}, { scales: false });
    expect(screen.queryByRole('button', { name: 'Sour 3' })).toBeNull();
    expect(button('Overall 7')).toBeTruthy();
  });
});

describe('warm water', () => {
  test('has its clock; after a minute the mouth is ready; how long it took is kept', () => {
    show(<Water start={EMPTY_IMPRESSION} />);
    press('Warm water');
    later(20);
    expect(button(/of a minute: go on/u)).toBeTruthy();
    later(45);
    press(/the mouth is ready: go on/u);
    expect(now).toMatchObject({ pauseAt: null, pauses: [65] });
    expect(button('Warm water (1)')).toBeTruthy();
  });
});

test('its steps are shown with where one is', () => {
  let at: StepAt = 1;
  show(<StepChips at={at} go={(step) => (at = step)} />);
  expect(STEPS.map((name) => isOn(name))).toEqual([false, true, false, false]);
  press('Sum up');
  expect(at).toBe(3);
});

test('of what stands on a sheet its clocks are not kept; another look goes on with its figures', () => {
  const impression: Impression = {
    ...EMPTY_IMPRESSION,
    colour: 3,
    shine: 7,
    snap: 6,
    overall: 8,
    scales: { sweet: 5 },
    smell: ['nuts'],
    note: 'good',
    meltAt: 1,
    meltSeconds: 44,
    phase: 'finish',
  };
  const kept = sheetOf(impression);
  expect(kept).toMatchObject({ colour: 3, snap: 6, seconds: 44, smell: ['nuts'] });
  expect(Object.keys(kept)).not.toEqual(expect.arrayContaining(['meltAt']));
  expect(sheetOf(EMPTY_IMPRESSION).seconds).toBe(0);
  expect(another(impression)).toEqual({
    ...EMPTY_IMPRESSION,
    colour: 3,
    shine: 7,
    overall: 8,
    scales: { sweet: 5 },
  });
});

test.each([
  [0, '0:00'],
  [9.9, '0:09'],
  [65, '1:05'],
  [600, '10:00'],
])('%s seconds are %s', (seconds, words) => expect(clockWords(seconds)).toBe(words));
