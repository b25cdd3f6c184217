/** @jest-environment jsdom */
import { cleanup, screen } from '@testing-library/react';
import { useState } from 'react';
import { DayBox, MomentBox, When } from '../src/parts/dates';
import { field, fill, hands, press, show } from './page';

/* Days and moments, typed as people write them, by the workshop's clock; what was understood is said while it is typed. */

/** A Thursday morning in Lisbon, where it is as in London. */
const NOW = Date.UTC(2026, 10, 26, 9, 5);

let kept = '';
let entered = 0;
function Form({ timed = false, first = '' }: { timed?: boolean; first?: string }) {
  const [value, setValue] = useState(first);
  const Part = timed ? MomentBox : DayBox;
  return (
    <Part
      label="Arrived"
      value={value}
      onChange={(text) => {
        kept = text;
        setValue(text);
      }}
      onEnter={() => (entered += 1)}
    />
  );
}
const hint = (): string => document.querySelector('[aria-live="polite"]')?.textContent ?? '';

beforeEach(() => {
  jest.useFakeTimers({
    now: NOW,
    doNotFake: ['setTimeout', 'setInterval', 'queueMicrotask', 'nextTick', 'setImmediate'],
  });
  [kept, entered] = ['', 0];
});
afterEach(() => {
  cleanup();
  jest.useRealTimers();
});

test('a day is kept as the calendar has it, and said as it was understood', async () => {
  show(<Form />);
  await fill('Arrived', '3/11');
  expect(kept).toBe('2026-11-03');
  expect(hint()).toBe('= Tue 3 Nov 2026');
  await hands.tab();
  expect(field('Arrived').value).toBe('Tue 3 Nov 2026');
  expect(hint()).toBe('');
});

test.each([
  ['today', '2026-11-26'],
  ['yesterday', '2026-11-25'],
  ['26 Nov', '2026-11-26'],
  ['1.2.2026', '2026-02-01'],
  ['2026-03-29', '2026-03-29'],
])('“%s” is %s', async (typed, day) => {
  show(<Form />);
  await fill('Arrived', typed);
  expect(kept).toBe(day);
});

test('what is no day is kept as it was typed, and told when the field is left', async () => {
  show(<Form />);
  await fill('Arrived', '31 Feb');
  expect(kept).toBe('31 Feb');
  await hands.tab();
  expect(field('Arrived').value).toBe('31 Feb');
  expect(field('Arrived').getAttribute('aria-invalid')).toBe('true');
  expect(hint()).toBe('Say a day: 26 Nov, 26/11/2026.');
});

test('a moment has a day and a time, or a time of today', async () => {
  show(<Form timed />);
  await fill('Arrived', 'yesterday 6:30');
  expect(kept).toBe('2026-11-25T06:30');
  expect(hint()).toBe('= Wed 25 Nov 2026, 06:30');
  await fill('Arrived', '7:15');
  expect(kept).toBe('2026-11-26T07:15');
  await fill('Arrived', 'noonish');
  await hands.tab();
  expect(hint()).toBe('Say a day and a time: 26 Nov 19:05, yesterday 6:30.');
});

test('Enter is the form’s', async () => {
  show(<Form />);
  await fill('Arrived', '26 Nov');
  await hands.keyboard('{Enter}');
  expect(entered).toBe(1);
  expect(kept).toBe('2026-11-26');
});

test('a day is taken from the calendar, which begins where the field is', async () => {
  show(<Form first="2026-10-02" />);
  await press('Calendar');
  const grid = await screen.findByRole('grid');
  expect(grid.getAttribute('aria-label')).toContain('October 2026');
  await hands.click(screen.getByRole('button', { name: /14.* October 2026|October 14/ }));
  expect(kept).toBe('2026-10-14');
  expect(screen.queryByRole('grid')).toBeNull();
});

test('a day from the calendar keeps the time that was there', async () => {
  show(<Form timed first="2026-10-02T07:45" />);
  await press('Calendar');
  await screen.findByRole('grid');
  await hands.click(screen.getByRole('button', { name: /14.* October 2026|October 14/ }));
  expect(kept).toBe('2026-10-14T07:45');
});

test('now and nothing are one press each', async () => {
  show(<Form timed />);
  await press('Calendar');
  await press('Now');
  expect(kept).toBe('2026-11-26T09:05');
  await press('Empty');
  expect(kept).toBe('');
  cleanup();
  show(<Form />);
  await press('Calendar');
  await press('Today');
  expect(kept).toBe('2026-11-26');
});

test('today is the workshop’s, wherever the browser is', async () => {
  show(<Form />, { settings: { timeZone: 'Pacific/Auckland' } });
  jest.setSystemTime(Date.UTC(2026, 10, 26, 13, 5));
  await fill('Arrived', 'today');
  expect(kept).toBe('2026-11-27');
});

test('when something was, is left empty for now', () => {
  show(<When value="" onChange={() => undefined} />);
  expect(field('When (empty: now)').value).toBe('');
});
