import { guessMapping, guessUnit, readLotRow, readTableDate, readTableNumber } from '../../src/beans/import';

describe('a table of lots', () => {
  it('finds its columns by their headings, each once', () => {
    const mapping = guessMapping([
      'Lot name',
      'Supplier',
      'Origin',
      'Bags',
      'Net weight (kg)',
      'Price / kg',
      'Cur',
      'Arrived',
      'Remarks',
    ]);
    expect(mapping).toMatchObject({
      name: 0,
      producer: 1,
      country: 2,
      sacks: 3,
      netG: 4,
      pricePerKg: 5,
      currency: 6,
      received: 7,
      note: 8,
    });
    expect(new Set(Object.values(mapping)).size).toBe(Object.keys(mapping).length);
  });

  it('reads the unit of a weight off its heading', () => {
    expect(['Net (kg)', 'netG', 'Weight lb', 'tonnes', 'Net'].map((heading) => guessUnit(heading))).toEqual([
      'kg',
      'g',
      'lb',
      't',
      'kg',
    ]);
    expect(['Price', 'USD/lb', 'Price per kg', 'netKg', 'EUR/t'].map((heading) => guessUnit(heading, 'lb'))).toEqual([
      'lb',
      'lb',
      'kg',
      'kg',
      't',
    ]);
  });

  it.each([
    ['1,234.5', 1234.5],
    ['1.234,5', 1234.5],
    ['1 234,5', 1234.5],
    ['62,5', 62.5],
    ['€ 6.40', 6.4],
    ['1,234,567', 1234567],
    ['-3', -3],
    ['six', null],
    ['', null],
    ['1-2', null],
  ])('reads %s as %s', (text, value) => {
    expect(readTableNumber(text)).toBe(value);
  });

  it('reads dates day first, and refuses days that are not', () => {
    expect(readTableDate('14.3.2026')).toBe('2026-03-14T12:00:00.000Z');
    expect(readTableDate('2026-02-29')).toBeNull();
    expect(readTableDate('soon')).toBeNull();
  });

  const options = {
    mapping: { name: 0, producer: 1, country: 2, sacks: 3, netG: 4, pricePerKg: 5 },
    unit: 'lb',
    pricePer: 'kg',
    routeId: 'r',
    currency: 'EUR',
  } as const;

  it('turns a row into a receipt', () => {
    const row = readLotRow(['Ridge', 'Ridge Growers', 'Uganda', '2', '275.58', '5.10'], 2, options);
    expect(row.problems).toEqual([]);
    expect(row.command).toMatchObject({ name: 'Ridge', sacks: 2, pricePerKg: 5.1, currency: 'EUR' });
    expect(row.command?.netG).toBeCloseTo(125_001, 0);
  });

  it('turns a price of a pound or a tonne into that of a kilogram', () => {
    const price = (text: string, pricePer: 'lb' | 't' | 'kg') =>
      readLotRow(['Ridge', 'Ridge Growers', 'Uganda', '2', '275.58', text], 2, { ...options, pricePer }).command
        ?.pricePerKg;
    // A pound is 0.45359237 kg.
    expect(price('3.20', 'lb')).toBeCloseTo(7.0548, 4);
    expect(price('4,800', 't')).toBeCloseTo(0.0048, 9);
    expect(price('1.005', 'kg')).toBe(1.005);
  });

  it('names every field that is wrong', () => {
    const row = readLotRow(['', 'R', 'Uganda', 'two', '0', '5'], 7, options);
    expect(row.command).toBeNull();
    expect(row.problems).toEqual([
      { field: 'name', message: 'is missing' },
      { field: 'sacks', message: '“two” is not a number' },
    ]);
    expect(readLotRow(['a', 'R', 'U', '1.5', '0', '5'], 8, options).problems.map(({ field }) => field)).toEqual([
      'sacks',
      'netG',
    ]);
  });
});
