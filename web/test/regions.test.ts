import { settingsHere } from '../src/parts/regions';

test.each([
  ['en-IE', { currency: 'EUR', massSystem: 'metric', temperatureUnit: 'C', decimalMark: '.' }],
  ['de-CH', { currency: 'CHF', massSystem: 'metric', temperatureUnit: 'C', decimalMark: '.' }],
  ['de', { currency: 'EUR', massSystem: 'metric', temperatureUnit: 'C', decimalMark: ',' }],
  ['pt-BR', { currency: 'BRL', massSystem: 'metric', temperatureUnit: 'C', decimalMark: ',' }],
  ['en-US', { currency: 'USD', massSystem: 'imperial', temperatureUnit: 'F', decimalMark: '.' }],
  ['vi-VN', { currency: 'VND', massSystem: 'metric', temperatureUnit: 'C', decimalMark: ',' }],
])('a browser in %s proposes what is written there', (language, wanted) => {
  expect(settingsHere(language, 'Europe/Lisbon')).toEqual({ ...wanted, timeZone: 'Europe/Lisbon' });
});

test('without a zone the proposal is UTC', () => {
  expect(settingsHere('en-IE', undefined).timeZone).toBe('UTC');
});
