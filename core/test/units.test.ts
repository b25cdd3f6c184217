import fc from 'fast-check';
import { landedMilli } from '../src/beans/receive';
import { barsFrom } from '../src/mould/mould';
import { apportion } from '../src/units/apportion';
import { formatMass, formatPiece, gramsFrom, gramsTo, MASS_UNITS, toMg } from '../src/units/mass';
import { formatMoney, majorFromMilli } from '../src/units/money';
import { heavyUnit, perKg, priceOf } from '../src/units/price';
import { celsiusFrom, celsiusTo, formatTemperature } from '../src/units/temperature';
import { refusal } from './fixtures';

test('units round-trip', () => {
  fc.assert(
    fc.property(fc.double({ min: -1e6, max: 1e6, noNaN: true }), fc.constantFrom(...MASS_UNITS), (grams, unit) => {
      expect(gramsFrom(gramsTo(grams, unit), unit)).toBeCloseTo(grams, 6);
    }),
  );
  fc.assert(
    fc.property(fc.double({ min: -60, max: 400, noNaN: true }), (c) => {
      expect(celsiusFrom(celsiusTo(c, 'F'), 'F')).toBeCloseTo(c, 9);
    }),
  );
});

test('known conversions', () => {
  expect(gramsFrom(1, 'lb')).toBe(453.59237);
  expect(gramsFrom(16, 'oz')).toBeCloseTo(453.59237, 10);
  expect(celsiusFrom(212, 'F')).toBe(100);
  expect(celsiusTo(-40, 'F')).toBe(-40);
  expect([formatTemperature(-18), formatTemperature(-18, 'F')]).toEqual(['−18\u00a0°C', '−0.4\u00a0°F']);
});

test('a price is said of a kilogram or a pound', () => {
  expect(priceOf(10, 'kg')).toBe(10);
  expect(priceOf(10, 'lb')).toBeCloseTo(4.5359, 4);
  expect(perKg(priceOf(7.31, 'lb'), 'lb')).toBeCloseTo(7.31, 10);
  expect([heavyUnit('metric'), heavyUnit('imperial'), heavyUnit()]).toEqual(['kg', 'lb', 'kg']);
});

test('a mass that is no mass is refused', () => {
  for (const bad of [NaN, Infinity, 1e12]) expect(refusal(() => toMg(bad))).toBe('units/mass');
});

test('masses and money read as people write them', () => {
  expect(formatMass(840_000)).toBe('840\u00a0g');
  expect(formatMass(5_790_000)).toBe('5\u00a0790\u00a0g');
  expect(formatMass(1_204_000_000)).toBe('1\u00a0204.0\u00a0kg');
  expect(formatMass(45_359, 'imperial')).toBe('1.60\u00a0oz');
  expect([12.5, 70, 8.257].map((grams) => formatPiece(grams, 'metric'))).toEqual([
    '12.5\u00a0g',
    '70\u00a0g',
    '8.26\u00a0g',
  ]);
  expect(formatPiece(70, 'imperial')).toBe('2.47\u00a0oz (70\u00a0g)');
  expect(formatMoney(1_240_000, 'EUR')).toBe('€12.40');
  expect(formatMoney(8_400, 'EUR')).toBe('€0.084');
});

test('apportion: parts are whole, add up exactly, and differ from the exact share by less than one', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: -1e9, max: 1e9 }),
      fc.array(fc.nat(1e9), { minLength: 1, maxLength: 12 }),
      (amount, weights) => {
        fc.pre(weights.some((w) => w > 0));
        const parts = apportion(amount, weights);
        const total = weights.reduce((a, b) => a + b, 0);
        expect(parts.reduce((a, b) => a + b, 0)).toBe(amount);
        parts.forEach((part, i) => expect(Math.abs(part - (amount * (weights[i] ?? 0)) / total)).toBeLessThan(1.001));
      },
    ),
  );
  expect(apportion(100, [1, 1, 1])).toEqual([34, 33, 33]);
  expect(() => apportion(1, [0, 0])).toThrow(RangeError);
});

test('bars from a pour: whole bars, the fills they take, and what is over', () => {
  expect(barsFrom(9_800, 80, 70, 24)).toEqual({ bars: 138, fills: 6, overG: 60 });
  expect(barsFrom(310, 0, 62, 10).bars).toBe(5);
  expect(barsFrom(0.3, 0, 0.1, 1).bars).toBe(3); // 0.3 / 0.1 is a hair under three in binary
  expect(barsFrom(50, 60, 70, 24)).toEqual({ bars: 0, fills: 0, overG: 0 });
});

test('landed cost: weight paid, price, rate, freight, duty', () => {
  // 312 kg at 2.40 USD, 0.92 EUR the dollar: 688.896; with 145.00 freight and 31.50 duty.
  expect(
    majorFromMilli(landedMilli({ paidG: 312_000, pricePerKg: 2.4, rate: 0.92, freight: 145, duty: 31.5 })),
  ).toBeCloseTo(865.396, 6);
});
