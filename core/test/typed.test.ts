import fc from 'fast-check';
import { formatMass, massUnitFor, parseMass } from '../src/units/mass';
import { DECIMAL_MARKS, formatNumber, parseNumber, writeNumber } from '../src/units/number';
import { parseTemperature } from '../src/units/temperature';

describe('figures as people type them', () => {
  test.each([
    ['1,149', 1149, 1.149],
    ['1.149', 1.149, 1149],
    ['1 149', 1149, 1149],
    ['1\u202f149,5', 1149.5, 1149.5],
    ['1’149.5', 1149.5, 1149.5],
    ['9,3', 9.3, 9.3],
    ['9.3', 9.3, 9.3],
    ['0,125', 0.125, 0.125],
    ['0.125', 0.125, 0.125],
    ['12,500', 12500, 12.5],
    ['1.234.567', null, 1234567],
    ['1,234,567.5', 1234567.5, null],
    ['1.234.567,5', null, 1234567.5],
    ['1234,567', 1234.567, 1234.567],
    ['-18', -18, -18],
    ['.5', 0.5, 0.5],
    ['3.', 3, 3],
    ['', null, null],
    ['1 2', null, null],
    ['12 34', null, null],
    ['1,2,3', null, null],
    ['1e5', null, null],
    ['2o', null, null],
  ])('%s is %s where a point begins the decimals, %s where a comma does', (text, point, comma) => {
    expect(parseNumber(text, '.')).toBe(point);
    expect(parseNumber(text, ',')).toBe(comma);
  });

  test('what is written is read back, by either mark', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: -1e9, max: 1e9 }),
        fc.integer({ min: 0, max: 2 }),
        fc.constantFrom(...DECIMAL_MARKS),
        (n, digits, mark) => {
          const value = n / 10 ** digits;
          expect(parseNumber(writeNumber(value, mark), mark)).toBe(value);
          expect(parseNumber(formatNumber(value, digits), '.')).toBeCloseTo(value, 9);
        },
      ),
    );
  });

  test('a weight brings its unit, or is in the one of its field', () => {
    expect(parseMass('1,2 kg', 'g', '.')).toBe(1200);
    expect(parseMass('1.149', 'g', ',')).toBe(1149);
    expect(parseMass('1 149 g', 'kg', '.')).toBe(1149);
    expect(parseMass('500g', 'kg', '.')).toBe(500);
    expect(parseMass('2 lb', 'g', '.')).toBeCloseTo(907.18474, 9);
    expect(parseMass('9,3', 'kg', '.')).toBe(9300);
    expect(parseMass('ten kg', 'g', '.')).toBeNull();
    expect(parseMass('5 stone', 'g', '.')).toBeNull();
    expect(parseMass('kg', 'g', '.')).toBeNull();
  });

  test('a temperature brings its scale, or is in the workshop’s', () => {
    expect(parseTemperature('31,5', 'C', '.')).toBe(31.5);
    expect(parseTemperature('302 °F', 'C', '.')).toBeCloseTo(150, 9);
    expect(parseTemperature('150C', 'F', '.')).toBe(150);
    expect(parseTemperature('hot', 'C', '.')).toBeNull();
  });
});

test('no mass is written so that decimals can be thousands', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 0, max: 100_000_000_000 }),
      fc.constantFrom('metric' as const, 'imperial' as const),
      (mg, system) => {
        expect(formatMass(mg, system)).not.toMatch(/[1-9]\d*[.,]\d{3}(?!\d)/);
      },
    ),
  );
  expect(formatMass(2_000_000)).toBe('2\u00a0000\u00a0g');
  // One unit a screen, chosen by the largest on it.
  expect(massUnitFor(12_400_000, 'metric')).toBe('kg');
  expect(formatMass(840_000, 'metric', 'kg')).toBe('0.840\u00a0kg');
});
