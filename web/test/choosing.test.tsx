/** @jest-environment jsdom */
import { cleanup, screen } from '@testing-library/react';
import { useState } from 'react';
import { SelectBox, type Option } from '../src/parts/choice';
import { hands, show, toldAt } from './page';

/* One of a list: by a finger, by arrows, by letters, by typing; and as it was where somebody thinks better of it. */

const FEW: Option[] = [
  ['', 'none'],
  ['slab', 'Slab'],
  ['seed', 'Seed'],
  ['silk', 'Silk'],
];
const MANY: Option[] = [
  ...['Almond', 'Cocoa butter', 'Cocoa powder', 'Cane sugar', 'Coconut milk powder', 'Hazelnut', 'Lecithin'],
  ...['Salt', 'Skimmed milk powder', 'Vanilla'],
].map((name) => [name.toLowerCase(), name]);

const taken: string[] = [];
function Form({ options, first = '', problem }: { options: Option[]; first?: string; problem?: string | undefined }) {
  const [value, setValue] = useState(first);
  return (
    <SelectBox
      label="Way"
      hint="as it is done here"
      problem={problem}
      placeholder="choose one"
      value={value}
      options={options}
      onChange={(next) => {
        taken.push(next);
        setValue(next);
      }}
    />
  );
}

const box = (): HTMLElement => screen.getByRole('combobox', { name: /^Way/ });
const options = (): string[] => screen.queryAllByRole('option').map(({ textContent }) => textContent);
const marked = (): string | undefined => screen.queryByRole('option', { selected: true })?.textContent;

beforeEach(() => taken.splice(0));
afterEach(cleanup);

test('a finger opens it and takes one; it closes, and says what was taken', async () => {
  show(<Form options={FEW} first="seed" />);
  expect(box().textContent).toBe('Seed');
  expect(box().getAttribute('aria-expanded')).toBe('false');
  await hands.click(box());
  expect(options()).toEqual(['none', 'Slab', 'Seed', 'Silk']);
  await hands.click(screen.getByRole('option', { name: 'Silk' }));
  expect(taken).toEqual(['silk']);
  expect(box().textContent).toBe('Silk');
  expect(options()).toEqual([]);
});

test('what it was is marked when it opens; arrows go on from there and round', async () => {
  show(<Form options={FEW} first="seed" />);
  box().focus();
  await hands.keyboard('{ArrowDown}');
  expect(marked()).toBe('Seed');
  await hands.keyboard('{ArrowDown}');
  expect(marked()).toBe('Silk');
  await hands.keyboard('{ArrowDown}');
  expect(marked()).toBe('none');
  await hands.keyboard('{ArrowUp}{Enter}');
  expect(taken).toEqual(['silk']);
});

test('an empty value is one to choose like any other', async () => {
  show(<Form options={FEW} first="slab" />);
  await hands.click(box());
  await hands.click(screen.getByRole('option', { name: 'none' }));
  expect(taken).toEqual(['']);
  expect(box().textContent).toBe('none');
});

test('a letter goes to the next that begins with it, again to the one after', async () => {
  show(<Form options={FEW} />);
  box().focus();
  await hands.keyboard('s');
  expect(marked()).toBe('Slab');
  await hands.keyboard('s');
  expect(marked()).toBe('Seed');
  await hands.keyboard('sS');
  expect(marked()).toBe('Slab');
  await hands.keyboard('z');
  expect(marked()).toBe('Slab');
  await hands.keyboard('{Enter}');
  expect(taken).toEqual(['slab']);
});

test('Escape leaves it as it was; taking what it was already is no change', async () => {
  show(<Form options={FEW} first="seed" />);
  box().focus();
  await hands.keyboard('{ArrowDown}{ArrowDown}{Escape}');
  expect(options()).toEqual([]);
  expect(box().textContent).toBe('Seed');
  await hands.keyboard('{ArrowDown}{Enter}');
  expect(taken).toEqual([]);
});

test('Tab takes what is marked', async () => {
  show(<Form options={FEW} first="slab" />);
  box().focus();
  await hands.keyboard('{ArrowDown}{ArrowDown}{Tab}');
  expect(taken).toEqual(['seed']);
  expect(options()).toEqual([]);
});

test('a long list is found by typing: what begins so first, then what has a word that does', async () => {
  show(<Form options={MANY} />);
  expect(box().textContent).toBe('choose one');
  box().focus();
  await hands.keyboard('co');
  expect(screen.getByPlaceholderText<HTMLInputElement>('type to find').value).toBe('co');
  expect(options()).toEqual(['Cocoa butter', 'Cocoa powder', 'Coconut milk powder']);
  await hands.keyboard(' powd');
  expect(options()).toEqual(['Cocoa powder', 'Coconut milk powder']);
  await hands.keyboard('x');
  expect(options()).toEqual([]);
  expect(screen.getByText('None is called that.')).toBeTruthy();
  await hands.clear(screen.getByPlaceholderText('type to find'));
  await hands.keyboard('powd');
  expect(options()).toEqual(['Cocoa powder', 'Coconut milk powder', 'Skimmed milk powder']);
  await hands.keyboard('{ArrowDown}{Enter}');
  expect(taken).toEqual(['coconut milk powder']);
});

test('a search of before is gone when it is opened again', async () => {
  show(<Form options={MANY} />);
  box().focus();
  await hands.keyboard('van{Escape}');
  await hands.click(box());
  expect(options()).toHaveLength(MANY.length);
});

test('letters with Control are the program’s, not the list’s', async () => {
  show(<Form options={FEW} />);
  box().focus();
  await hands.keyboard('{Control>}s{/Control}');
  expect(options()).toEqual([]);
});

test('what is wrong with it stands at it, and is read out with it', () => {
  show(<Form options={FEW} problem="Choose a way." />);
  expect(box().getAttribute('aria-invalid')).toBe('true');
  expect(toldAt(/^Way/u)).toContain('Choose a way.');
});
