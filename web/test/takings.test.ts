import type { Price } from '@wunsch/core/api/reads';
import type { HoldingView } from '@wunsch/core/api/types';
import { askTakings, proposeTakings, saleOf } from '../src/store/takings';

/* The money of a sale: what is asked, what is proposed, what is sent. */

const bars = { id: 'h1', code: 'B001-1', pieces: 40, freeMg: 2_800_000 } as HoldingView;
const husk = { id: 'h2', code: 'H003', pieces: 0, freeMg: 1_500_000 } as HoldingView;
const prices = [
  { holdingId: 'h1', perPiece: 5.86, perKg: null },
  { holdingId: 'h2', perPiece: null, perKg: 2 },
] as Price[];

test('of one thing the takings are asked, of several what each fetched', () => {
  expect(askTakings('EUR')([bars]).map(({ name, unit }) => [name, unit])).toEqual([['takings', 'EUR']]);
  const asked = askTakings('EUR')([bars, husk]);
  expect(asked.map(({ name, label }) => [name, label])).toEqual([
    ['takings.h1', 'Takings for B001-1'],
    ['takings.h2', 'Takings for H003'],
  ]);
});

test('one thing is sent as it is typed; what is sold needs no use', () => {
  const sources = [{ holdingId: 'h1', pieces: 3 }];
  expect(saleOf({ takings: 17.6, use: 'sold', channel: '  ', to: 'Shop', note: '' }, sources)).toEqual({
    takings: 17.6,
    sources,
    to: 'Shop',
    note: '',
  });
  expect(saleOf({ takings: 0, use: 'gift', channel: 'market' }, sources)).toMatchObject({
    use: 'gift',
    channel: 'market',
  });
});

test('several things: their sum is the takings, to the thousandth', () => {
  const sources = [
    { holdingId: 'h1', pieces: 3 },
    { holdingId: 'h2', massG: 300 },
  ];
  const sale = saleOf({ 'takings.h1': 0.1, 'takings.h2': 0.2, to: '' }, sources);
  expect(sale).toEqual({
    to: '',
    takings: 0.3,
    sources: [
      { holdingId: 'h1', pieces: 3, takings: 0.1 },
      { holdingId: 'h2', massG: 300, takings: 0.2 },
    ],
  });
});

test('what things usually fetch, for as much of them as is typed', () => {
  const typed = { 'take.h1': { text: '10' } };
  const grams = (id: string): number | null => (id === 'h2' ? 250 : null);
  expect(proposeTakings(prices, [bars], typed, grams, 2)).toEqual({ takings: '58.60' });
  expect(proposeTakings(prices, [bars, husk], typed, grams, 2)).toEqual({
    'takings.h1': '58.60',
    'takings.h2': '0.50',
  });
  // Nothing typed: all of it.
  expect(proposeTakings(prices, [bars], {}, () => null, 2)).toEqual({ takings: '234.40' });
  expect(proposeTakings(prices, [husk], {}, () => null, 0)).toEqual({ takings: '3' });
});

test('where nothing was sold before nothing is proposed', () => {
  expect(proposeTakings([], [bars], {}, () => null, 2)).toEqual({});
  const byTheKilo = [{ holdingId: 'h1', perPiece: null, perKg: 9 }] as Price[];
  expect(proposeTakings(byTheKilo, [bars], {}, () => null, 2)).toEqual({});
});
