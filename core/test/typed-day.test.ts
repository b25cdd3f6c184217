import fc from 'fast-check';
import { readDay, readMoment, sayTyped } from '../src/units/typed-day';

const TODAY = '2026-11-26';
const NOW = '2026-11-26T08:00';

test.each([
  ['2026-11-03', '2026-11-03'],
  ['3.11.2026', '2026-11-03'],
  ['3.11.', '2026-11-03'],
  ['3/4', '2026-04-03'],
  ['3/4/27', '2027-04-03'],
  ['26 Nov', '2026-11-26'],
  ['26th November 2025', '2025-11-26'],
  ['nov 26', '2026-11-26'],
  ['Thu 26 Nov 2026', '2026-11-26'],
  ['Thursday, 26 November', '2026-11-26'],
  ['yesterday', '2026-11-25'],
  [' Tomorrow ', '2026-11-27'],
  ['29/2/2028', '2028-02-29'],
])('the day %p is %p', (text, day) => {
  expect(readDay(text, TODAY)).toBe(day);
});

test.each(['', '31/2/2026', '29/2', '13/13', 'soon', '2026', '26', '1/1/0026', '26 Nov 2026 19:05'])(
  '%p is no day',
  (text) => {
    expect(readDay(text, TODAY)).toBeNull();
  },
);

test.each([
  ['2026-11-26T19:05', '2026-11-26T19:05'],
  ['7:05', '2026-11-26T07:05'],
  ['7 pm', '2026-11-26T19:00'],
  ['12am', '2026-11-26T00:00'],
  ['12:30 PM', '2026-11-26T12:30'],
  ['yesterday 7:05 pm', '2026-11-25T19:05'],
  ['24 Nov, 6:00', '2026-11-24T06:00'],
  ['Tue 24 Nov 2026, 06:00', '2026-11-24T06:00'],
  ['24.11. 6:00', '2026-11-24T06:00'],
])('the moment %p is %p', (text, moment) => {
  expect(readMoment(text, NOW)).toBe(moment);
});

test.each(['', '26 Nov', '25:00', '7:60', '13 pm', '0 am', 'soon 7:00', '31/2 7:00'])('%p is no moment', (text) => {
  expect(readMoment(text, NOW)).toBeNull();
});

test('the last and the first day of a year are a day apart', () => {
  expect(readDay('yesterday', '2026-01-01')).toBe('2025-12-31');
  expect(readDay('tomorrow', '2026-12-31')).toBe('2027-01-01');
});

test('what is said back of any day or moment is read as the same', () => {
  fc.assert(
    fc.property(fc.date({ min: new Date('1901-01-01'), max: new Date('2199-12-30'), noInvalidDate: true }), (date) => {
      const moment = date.toISOString().slice(0, 16);
      expect(readMoment(sayTyped(moment), NOW)).toBe(moment);
      expect(readDay(sayTyped(moment.slice(0, 10)), TODAY)).toBe(moment.slice(0, 10));
    }),
  );
});

test('what could not be read stays as it was typed', () => {
  expect(sayTyped('soonish')).toBe('soonish');
  expect(sayTyped('')).toBe('');
});
