/** @jest-environment jsdom */
import { cleanup, render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState, type ReactNode } from 'react';
import type { WorkshopView } from '@wunsch/core/api/types';
import { DEFAULT_SETTINGS } from '@wunsch/core/workshop/schemas';
import { fieldG, type FieldSpec, type FieldState } from '../src/entry/entry';
import { MassBar, type Part } from '../src/entry/MassBar';
import { WeighPad } from '../src/entry/WeighPad';
import { HereContext } from '../src/parts/workshop';

/* The pad that is pressed with wet hands, and the bar that shows where the grams went. */

afterEach(cleanup);

const view = { settings: DEFAULT_SETTINGS } as WorkshopView;
const Workshop = ({ children }: { children: ReactNode }) => (
  <HereContext.Provider value={{ view, personId: 'ilse', choosePerson: () => undefined }}>
    {children}
  </HereContext.Provider>
);
const plain = (text: string | null | undefined): string => (text ?? '').replace(/[\u00a0\u202f]/g, ' ');

describe('the pad', () => {
  const nibs: FieldSpec = { name: 'nibs', label: 'Nibs', type: 'mass' };

  function Pad({ spec, told }: { spec: FieldSpec; told: FieldState[] }) {
    const [state, setState] = useState<FieldState>({ text: '', unit: 'g' });
    const change = (next: FieldState): void => {
      told.push(next);
      setState(next);
    };
    return <WeighPad target={{ spec, state, change }} unit={null} next={null} />;
  }
  function pad(spec = nibs) {
    const told: FieldState[] = [];
    const user = userEvent.setup();
    render(<Pad spec={spec} told={told} />, { wrapper: Workshop });
    const region = within(screen.getByRole('region', { name: 'Weigh pad' }));
    const press = async (...keys: string[]): Promise<void> => {
      for (const name of keys) await user.click(region.getByRole('button', { name }));
    };
    const now = (): FieldState => told.at(-1) ?? { text: '' };
    return { press, now, region };
  }

  test('keys write the figure, one point of it, and take the last digit back', async () => {
    const { press, now } = pad();
    await press('1', '2', 'point', '5', 'point', '0');
    expect(now().text).toMatch(/^12[.,]50$/);
    await press('Delete the last digit', 'Delete the last digit');
    expect(now().text).toMatch(/^12[.,]$/);
  });

  test('a nought before a figure is none', async () => {
    const { press, now } = pad();
    await press('0', '0', '7');
    expect(now().text).toBe('7');
  });

  test('the tub that stands on the scale comes off what follows', async () => {
    const { press, now, region } = pad();
    await press('3', '0', '0');
    await press('Tare');
    expect(now()).toMatchObject({ text: '', tareG: 300 });
    await press('1', '0', '0', '0');
    expect(fieldG(now())).toBe(700);
    expect(plain(region.getByText(/tare ·/).textContent)).toBe('less 300 g tare · ');
  });

  test('several weighings add up, and how many they are is said', async () => {
    const { press, now, region } = pad();
    await press('4', '0', '0');
    await press('Add');
    await press('2', '5', '0');
    expect(now()).toMatchObject({ parts: [400], text: '250' });
    expect(fieldG(now())).toBe(650);
    expect(plain(region.getByText(/weighings/).textContent)).toContain('2 weighings, 650 g together');
  });

  test('what is chosen, not weighed, leaves the keys alone', () => {
    const { region } = pad({ name: 'note', label: 'Note', type: 'text' });
    for (const name of ['1', '9', 'point', 'Delete the last digit'])
      expect(region.getByRole('button', { name }).hasAttribute('disabled')).toBe(true);
  });

  test('with nothing in hand it says what to press', () => {
    render(<WeighPad target={null} unit={null} next={null} />, { wrapper: Workshop });
    expect(screen.getByText('Press a figure on the left to fill it here.')).toBeTruthy();
    expect(screen.getByRole('button', { name: 'Next' }).hasAttribute('disabled')).toBe(true);
  });
});

describe('the bar of grams', () => {
  const bar = (inG: number, parts: [string, number, Part['tone']][], rest?: Part['tone']) =>
    render(
      <MassBar
        inMg={1000 * inG}
        parts={parts.map(([name, g, tone]) => ({ name, mg: 1000 * g, tone }))}
        restName="Not weighed yet"
        {...(rest ? { restTone: rest } : {})}
      />,
      { wrapper: Workshop },
    ).container;

  test('says every part in words, what is missing too, at scale', () => {
    const box = bar(1000, [
      ['Nibs', 800, 'good'],
      ['Husk', 150, 'by'],
    ]);
    expect(plain(screen.getByRole('img').getAttribute('aria-label'))).toBe(
      'Nibs 800 g, Husk 150 g, Not weighed yet 50 g',
    );
    expect(plain(box.querySelector('figcaption')?.textContent)).toBe(
      'Nibs 800 g 80.0 %Husk 150 g 15.0 %Not weighed yet 50 g 5.0 %',
    );
    const [nibs, husk, missing] = [...box.querySelectorAll('svg > rect')].map((rect) => [
      Number(rect.getAttribute('x')),
      Number(rect.getAttribute('width')),
    ]);
    expect([nibs?.[0], husk?.[0], missing?.[0]]).toEqual([0, 800, 950]);
    expect((nibs?.[1] ?? 0) / (husk?.[1] ?? 1)).toBeCloseTo(800 / 150, 0);
  });

  test('more than went in is said, and nothing is missing then', () => {
    const box = bar(1000, [
      ['Nibs', 900, 'good'],
      ['Husk', 200, 'by'],
    ]);
    expect(plain(box.querySelector('strong')?.textContent)).toBe('100 g more than went in');
    expect(box.textContent).not.toContain('Not weighed yet');
    const ends = [...box.querySelectorAll('svg > rect')].map(
      (rect) => Number(rect.getAttribute('x')) + Number(rect.getAttribute('width')),
    );
    expect(Math.max(...ends)).toBeLessThanOrEqual(1000);
  });

  test('with nothing in or nothing out there is none', () => {
    expect(bar(0, [['Nibs', 800, 'good']]).querySelector('figure')).toBeNull();
    expect(bar(1000, [['Nibs', 0, 'good']]).querySelector('figure')).toBeNull();
  });
});
