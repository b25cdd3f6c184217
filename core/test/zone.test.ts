import { ratesAt, changeRates } from '../src/money/rates';
import { clockText, dayText, instantOf, mondayOf, wallClock } from '../src/units/zone';
import { formatMoney, milliFromMajor } from '../src/units/money';
import { DEFAULT_SETTINGS } from '../src/workshop/schemas';
import { refusal } from './fixtures';

const at = (text: string, zone: string): string | null => {
  const found = instantOf(text, zone);
  return found === null ? null : new Date(found).toISOString();
};

describe('the workshop’s clock', () => {
  test('a typed time is the workshop’s, summer and winter', () => {
    expect(at('2026-07-01T06:30', 'Europe/Lisbon')).toBe('2026-07-01T05:30:00.000Z');
    expect(at('2026-12-01T06:30', 'Europe/Lisbon')).toBe('2026-12-01T06:30:00.000Z');
    expect(at('2026-07-01T06:30', 'Asia/Ho_Chi_Minh')).toBe('2026-06-30T23:30:00.000Z');
    expect(at('2026-07-01T06:30', 'Pacific/Chatham')).toBe('2026-06-30T17:45:00.000Z');
  });

  test('across both nights when the clocks change', () => {
    // Lisbon: 29 March 2026 01:00 leaps to 02:00; 25 October 2026 02:00 falls back to 01:00.
    expect(at('2026-03-29T00:59', 'Europe/Lisbon')).toBe('2026-03-29T00:59:00.000Z');
    expect(at('2026-03-29T02:00', 'Europe/Lisbon')).toBe('2026-03-29T01:00:00.000Z');
    expect(at('2026-03-29T01:30', 'Europe/Lisbon')).toBe('2026-03-29T01:30:00.000Z');
    expect(at('2026-10-25T00:30', 'Europe/Lisbon')).toBe('2026-10-24T23:30:00.000Z');
    expect(at('2026-10-25T01:30', 'Europe/Lisbon')).toBe('2026-10-25T00:30:00.000Z');
    expect(at('2026-10-25T02:30', 'Europe/Lisbon')).toBe('2026-10-25T02:30:00.000Z');
  });

  test('what is no time is none', () => {
    for (const text of ['', 'soon', '2026-02-30T10:00', '2026-13-01T10:00', '2026-01-01T25:00', '2026-01-01T10:61'])
      expect(instantOf(text, 'Europe/Lisbon')).toBeNull();
  });

  test('shown and typed agree', () => {
    for (const zone of ['Europe/Lisbon', 'Asia/Tokyo', 'America/St_Johns', 'Pacific/Kiritimati'])
      for (let hour = 0; hour < 24 * 9; hour += 7) {
        const moment = Date.UTC(2026, 5, 1, hour, 15);
        expect(instantOf(clockText(moment, zone), zone)).toBe(moment);
      }
  });

  test('an axis of UTC shows its hours, the one that comes twice as well', () => {
    const early = instantOf('2026-07-01T06:30', 'Asia/Ho_Chi_Minh') ?? NaN;
    expect(wallClock(early, 'Asia/Ho_Chi_Minh')).toBe(Date.UTC(2026, 6, 1, 6, 30));
    const first = Date.UTC(2026, 9, 25, 0, 30);
    expect([first, first + 3_600_000].map((moment) => wallClock(moment, 'Europe/Lisbon'))).toEqual([
      Date.UTC(2026, 9, 25, 1, 30),
      Date.UTC(2026, 9, 25, 1, 30),
    ]);
  });

  test('weeks begin on the workshop’s Monday', () => {
    const sundayEvening = Date.UTC(2026, 10, 22, 23, 30);
    expect(dayText(sundayEvening, 'Asia/Tokyo')).toBe('2026-11-23');
    expect(new Date(mondayOf(sundayEvening, 'Asia/Tokyo')).toISOString()).toBe('2026-11-22T15:00:00.000Z');
    expect(new Date(mondayOf(sundayEvening, 'Europe/Lisbon')).toISOString()).toBe('2026-11-16T00:00:00.000Z');
  });
});

describe('what work and energy cost', () => {
  const start = { ...DEFAULT_SETTINGS, wagePerHour: 12, energyPerKwh: 0.2 };
  const noon = (day: string): number => Date.parse(`${day}T12:00:00Z`);

  test('holds from its day on; before it what held then', () => {
    const one = changeRates(start, { ...start, wagePerHour: 14 }, '2026-03-01');
    const two = changeRates(one, { ...one, wagePerHour: 15, energyPerKwh: 0.3 }, '2026-09-01');
    expect(ratesAt(two, noon('2025-06-01'))).toMatchObject({ wagePerHour: 12, energyPerKwh: 0.2 });
    expect(ratesAt(two, noon('2026-02-28'))).toMatchObject({ wagePerHour: 12 });
    expect(ratesAt(two, noon('2026-03-01'))).toMatchObject({ wagePerHour: 14, energyPerKwh: 0.2 });
    expect(ratesAt(two, noon('2026-09-01'))).toMatchObject({ wagePerHour: 15, energyPerKwh: 0.3 });
  });

  test('a change that reaches back takes the place of later ones', () => {
    const one = changeRates(start, { ...start, wagePerHour: 14 }, '2026-03-01');
    const two = changeRates(one, { ...one, wagePerHour: 15 }, '2026-02-01');
    expect(ratesAt(two, noon('2026-01-31')).wagePerHour).toBe(12);
    expect(ratesAt(two, noon('2026-02-10')).wagePerHour).toBe(15);
    expect(ratesAt(two, noon('2026-03-10')).wagePerHour).toBe(15);
  });

  test('other settings leave it alone', () => {
    expect(changeRates(start, { ...start, restDays: 3 }, '2026-03-01').earlierRates).toEqual([]);
  });
});

test('money is written with the digits of its currency', () => {
  expect(formatMoney(milliFromMajor(150_000_000), 'VND')).toBe('₫150\u00a0000\u00a0000');
  expect(formatMoney(milliFromMajor(1_240), 'JPY')).toBe('JP¥1\u00a0240');
  expect(formatMoney(milliFromMajor(12.345), 'KWD')).toBe('KWD\u00a012.345');
  expect(formatMoney(milliFromMajor(0.084), 'EUR')).toBe('€0.084');
  expect(refusal(() => milliFromMajor(1e11))).toBe('units/money');
});
