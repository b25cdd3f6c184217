import fc from 'fast-check';
import { climateWarning, promise, type StockRow } from '../src/orders/stock';
import { readSales } from '../src/orders/sales-table';
import { countByWeight } from '../src/pack/count';
import { keepsUntil } from '../src/pack/best-before';
import { asGtin14, checkDigit, isGtin } from '../src/products/gtin';
import { leftOfPrice, marginOfAll, margins } from '../src/products/margin';
import { componentsFor, fillFrom, partsOf, pieceParts, Products } from '../src/products/product';
import { productFacts, type ProductFacts } from '../src/products/records';
import { nextOfFill } from '../src/work/moulding';

/* What is sold: versions, parts, components, numbers, promises, margins; shells with their clocks. */

const facts = (more: object = {}): ProductFacts =>
  productFacts.parse({ name: 'Bar', declaredG: 70, form: 'plain', ...more });

describe('parts of many pieces', () => {
  test('an ingredient that is in and on them counts once', () => {
    const parts = [
      { materialId: 'nuts', grams: 8.04, how: 'in' },
      { materialId: 'salt', grams: 0.25, how: 'on' },
      { materialId: 'nuts', grams: 2, how: 'on' },
    ] as never;
    expect(partsOf({ parts }, 20)).toEqual([
      { materialId: 'nuts', grams: 200.8 },
      { materialId: 'salt', grams: 5 },
    ]);
  });
});

describe('margins', () => {
  test('all together, and what is left of a price', () => {
    expect(marginOfAll([])).toEqual({ revenueMilli: 0, marginMilli: 0, share: null });
    const rows = [
      { revenueMilli: 600, marginMilli: 200 },
      { revenueMilli: 200, marginMilli: -40 },
    ] as never;
    expect(marginOfAll(rows)).toEqual({ revenueMilli: 800, marginMilli: 160, share: 0.2 });
    expect(leftOfPrice(800, 200)).toEqual({ milli: 600, share: 0.75 });
    expect(leftOfPrice(0, 200)).toEqual({ milli: -200, share: null });
  });
});

describe('numbers of trade items', () => {
  // The check digits of the worked examples in the GS1 General Specifications, section 7.9.
  test('the last digit fits the others', () => {
    expect(checkDigit('629104150021')).toBe(3);
    expect(checkDigit('9638507')).toBe(4);
    expect(isGtin('6291041500213')).toBe(true);
    expect(isGtin('6291041500214')).toBe(false);
    expect(isGtin('629104150021')).toBe(false);
    expect(isGtin('62910415002x')).toBe(false);
    expect(asGtin14('96385074')).toBe('00000096385074');
  });
  test('one wrong digit never passes', () => {
    fc.assert(
      fc.property(fc.stringMatching(/^\d{12}$/), fc.nat(12), fc.integer({ min: 1, max: 9 }), (digits, at, by) => {
        const whole = digits + String(checkDigit(digits));
        const wrong = [...whole].map((digit, i) => (i === at ? String((Number(digit) + by) % 10) : digit)).join('');
        return isGtin(whole) && !isGtin(wrong);
      }),
    );
  });
});

describe('a piece and a bowl', () => {
  test('nine kilograms with 7 g of nibs on each of 70 g: 139 bars, 973 g of nibs, 43 g over', () => {
    const product = facts({ form: 'topped', parts: [{ materialId: 'nib', role: 'topping', grams: 7 }] });
    expect(pieceParts(product)).toEqual({ chocolateG: 63, partsG: 7, partsPct: 10 });
    const left = fillFrom(9000, 200, product);
    // (9,000 − 200) / 63 = 139.68.
    expect(left.bars).toBe(139);
    expect(left.parts[0]?.grams).toBe(973);
    expect(left.overG).toBeCloseTo(8800 - 139 * 63, 9);
  });
  test('a box for ten bars: 25 bars take three; foil by the piece', () => {
    const product = facts({
      packaging: [
        { materialId: 'foil', perPiece: 1 },
        { materialId: 'box', perPiece: 0.1 },
      ],
    });
    expect(componentsFor(product, 25)).toEqual([
      { materialId: 'foil', pieces: 25 },
      { materialId: 'box', pieces: 3 },
    ]);
    expect(componentsFor(product, 30)[1]?.pieces).toBe(3);
  });
  test('parts as heavy as the whole piece, a channel named twice, a filled one without filling are refused', () => {
    const wrong = (more: object): string | undefined =>
      productFacts.safeParse({ name: 'Bar', declaredG: 70, form: 'plain', ...more }).error?.issues[0]?.message;
    expect(wrong({ parts: [{ materialId: 'a', role: 'inclusion', grams: 70 }] })).toMatch(/weigh as much/);
    expect(wrong({ form: 'filled' })).toBe('names no filling');
    expect(
      wrong({
        prices: [
          { channel: 'Shops', price: 5 },
          { channel: 'shops', price: 6 },
        ],
      }),
    ).toBe('name a channel twice');
  });
  test('versions count up; retired ones stay readable', () => {
    const products = new Products();
    const by = { at: 0, personId: 'ann', why: '' };
    products.add('a', facts(), by);
    products.add('a', facts({ retired: true }), by);
    expect(products.version('a', 1)?.facts.retired).toBe(false);
    expect(products.newest('a')?.version).toBe(2);
    expect(products.current()).toEqual([]);
    expect(products.all()).toHaveLength(1);
  });
});

describe('counting by weight', () => {
  test('4,900 g of 70 g bars are 70, exactly', () => {
    expect(countByWeight(4900, 70, 0.5)).toMatchObject({ pieces: 70, offBy: 0 });
    expect(countByWeight(0, 70, 0.5)).toBeNull();
  });
  test('many pieces that differ are said to be uncertain', () => {
    const many = countByWeight(70_000, 70, 3);
    expect(many?.pieces).toBe(1000);
    expect(many?.offBy).toBeGreaterThan(1);
    expect(many?.sentence).toMatch(/smaller heaps/);
  });
  test('the count is never off by more than is said, nineteen times in twenty', () => {
    let [wrong, all] = [0, 0];
    let state = 7;
    const chance = (): number => (state = (state * 16807) % 2147483647) / 2147483647;
    const normal = (): number => Math.sqrt(-2 * Math.log(chance())) * Math.cos(2 * Math.PI * chance());
    for (let run = 0; run < 1000; run += 1) {
      const n = 20 + Math.floor(400 * chance());
      let sum = 0;
      for (let i = 0; i < n; i += 1) sum += 70 + 1.1 * normal();
      const found = countByWeight(Math.round(sum), 70, 1.1);
      all += 1;
      if (!found || Math.abs(found.pieces - n) > found.offBy) wrong += 1;
    }
    expect(wrong / all).toBeLessThan(0.05);
  });
});

describe('what can be promised', () => {
  const row = (code: string, pieces: number, bestBefore: string | null, productId = 'bar'): StockRow => ({
    holdingId: code,
    code,
    productId,
    pieces,
    bestBefore,
  });
  const line = (orderId: string, pieces: number, dueDate: string, productId = 'bar') => ({
    orderId,
    productId,
    pieces,
    dueDate,
  });
  test('the earliest due first, from what expires first; what has no date last; past dates never', () => {
    const stock = [
      row('C', 10, null),
      row('B', 10, '2027-05-01'),
      row('A', 10, '2027-03-01'),
      row('X', 50, '2026-01-01'),
    ];
    const found = promise([line('late', 15, '2026-12-24'), line('soon', 12, '2026-12-01')], stock, [], '2026-11-26');
    expect(found.map(({ orderId }) => orderId)).toEqual(['soon', 'late']);
    expect(found[0]?.picks.map(({ code, pieces }) => [code, pieces])).toEqual([
      ['A', 10],
      ['B', 2],
    ]);
    expect(found[1]?.picks.map(({ code, pieces }) => [code, pieces])).toEqual([
      ['B', 8],
      ['C', 7],
    ]);
  });
  test('then what is on its way; what nothing covers is missing', () => {
    const coming = [{ productId: 'bar', pieces: 5, words: 'T1', link: null, at: 0 }];
    const [found] = promise([line('a', 20, '2026-12-01')], [row('A', 10, null)], coming, '2026-11-26');
    expect(found).toMatchObject({ missing: 5, coming: [{ words: 'T1', pieces: 5 }] });
  });
  test('nothing is promised twice, and each line is covered, coming or missing', () => {
    const stocks = fc.array(fc.record({ pieces: fc.nat(40), product: fc.constantFrom('bar', 'box') }), {
      maxLength: 8,
    });
    const lines = fc.array(
      fc.record({ pieces: fc.integer({ min: 1, max: 60 }), product: fc.constantFrom('bar', 'box') }),
      {
        maxLength: 8,
      },
    );
    fc.assert(
      fc.property(stocks, lines, (shelf, wanted) => {
        const stock = shelf.map(({ pieces, product }, i) => row(`S${i}`, pieces, null, product));
        const found = promise(
          wanted.map(({ pieces, product }, i) => line(`O${i}`, pieces, '2026-12-01', product)),
          stock,
          [],
          '2026-11-26',
        );
        for (const { holdingId, pieces } of stock) {
          const given = found.flatMap(({ picks }) => picks).filter((pick) => pick.holdingId === holdingId);
          expect(given.reduce((sum, pick) => sum + pick.pieces, 0)).toBeLessThanOrEqual(pieces);
        }
        for (const { pieces, picks, missing } of found)
          expect(picks.reduce((sum, pick) => sum + pick.pieces, 0) + missing).toBe(pieces);
      }),
    );
  });
});

test('margins per product and channel; what came back counts against them', () => {
  const sold = (channel: string, pieces: number, revenueMilli: number, costMilli: number) => ({
    productId: 'bar',
    product: 'Bar',
    channel,
    pieces,
    revenueMilli,
    costMilli,
  });
  const rows = margins([
    sold('shops', 10, 500, 200),
    sold('market', 4, 280, 80),
    sold('shops', -2, -100, -40),
    sold('gone', 1, 0, 20),
  ]);
  expect(rows.map(({ channel, pieces, marginMilli, share }) => [channel, pieces, marginMilli, share])).toEqual([
    ['shops', 8, 240, 0.6],
    ['market', 4, 200, 200 / 280],
    ['gone', 1, -20, null],
  ]);
});

test('a table of sales: headings are found, what cannot be read is said', () => {
  const { missing, rows } = readSales(
    [
      ['When', 'Channel', 'Code', 'Qty', 'Total', 'Buyer'],
      ['2026-10-01', 'web', 'R-1', '3', '15,60', 'Ada'],
      ['', '', '', '1.5', '-3'],
    ],
    'Europe/Lisbon',
  );
  expect(missing).toEqual([]);
  expect(rows[0]).toMatchObject({
    line: 2,
    channel: 'web',
    what: 'R-1',
    pieces: 3,
    takings: 15.6,
    to: 'Ada',
    problems: [],
  });
  expect(rows[1]?.problems).toHaveLength(5);
  expect(readSales([['date'], ['x']], 'UTC').missing).toEqual([
    'Channel',
    'Product or code',
    'Pieces',
    'Takings, all together',
  ]);
});

test('the air of a store: too warm, too cold and too damp are said, what is usual is not', () => {
  const show = (c: number): string => `${c} °C`;
  expect(climateWarning(17, 50, show)).toBeNull();
  expect(climateWarning(17, null, show)).toBeNull();
  expect(climateWarning(23, 50, show)).toMatch(/^23 °C: over 20 °C fat bloom/);
  expect(climateWarning(5, 50, show)).toMatch(/sweats/);
  expect(climateWarning(17, 70, show)).toMatch(/^70 % humidity/);
});

test('a rule of months: whole ones by the calendar, parts of thirty days', () => {
  const made = Date.UTC(2026, 0, 31);
  expect(keepsUntil(made, { months: 1 }).toISOString().slice(0, 10)).toBe('2026-02-28');
  expect(keepsUntil(made, { months: 0.5 }).toISOString().slice(0, 10)).toBe('2026-02-15');
});

describe('a group of moulds', () => {
  const at = 1_000_000;
  const fill = (shell?: { tippedAt: number | null; filledAt: number | null; closedAt: number | null }) => ({
    id: 'f',
    at,
    moulds: 4,
    outAt: null,
    ...(shell ? { shell } : {}),
  });
  test('poured whole it only sets', () => {
    expect(nextOfFill(fill(), 25, null)).toEqual({ act: 'out', at: at + 25 * 60_000 });
  });
  test('shells: tipped out after their seconds, set, filled, closed, set again', () => {
    const none = { tippedAt: null, filledAt: null, closedAt: null };
    expect(nextOfFill(fill(none), 10, 60)).toEqual({ act: 'tip', at: at + 60_000 });
    const tipped = { ...none, tippedAt: at + 61_000 };
    expect(nextOfFill(fill(tipped), 10, 60)).toEqual({ act: 'fill', at: at + 661_000 });
    const filled = { ...tipped, filledAt: at + 700_000 };
    expect(nextOfFill(fill(filled), 10, 60)).toEqual({ act: 'close', at: at + 700_000 });
    const closed = { ...filled, closedAt: at + 800_000 };
    expect(nextOfFill(fill(closed), 10, 60)).toEqual({ act: 'out', at: at + 1_400_000 });
    expect(nextOfFill({ ...fill(closed), outAt: at }, 10, 60).act).toBe('none');
  });
});
