import type { CommandOf } from '@wunsch/core/commands';
import { componentsOf, perPiece, takeComponents } from '../src/pack/components';

const stock = (
  id: string,
  materialId: string | null,
  pieces: number,
  kind: 'packaging' | 'ingredient' = 'packaging',
) => ({
  id,
  kind,
  materialId,
  name: materialId ?? '',
  pieces,
});
const PANTRY = [
  stock('f1', 'foil', 60),
  stock('f2', 'foil', 500),
  stock('s1', 'sticker', 90),
  stock('sugar', 'sugar', 0, 'ingredient'),
];

test('packaging is shown by component, whatever purchases it came in', () => {
  expect(componentsOf(PANTRY)).toEqual([
    { materialId: 'foil', name: 'foil', pieces: 560 },
    { materialId: 'sticker', name: 'sticker', pieces: 90 },
  ]);
});

test('a hundred bars in foil take a hundred foils and no sticker, the oldest purchase first', () => {
  const foil = PANTRY.filter(({ materialId }) => materialId === 'foil');
  expect(takeComponents(foil, 100)).toEqual([
    { holdingId: 'f1', pieces: 60 },
    { holdingId: 'f2', pieces: 40 },
  ]);
  expect(takeComponents(foil, 0)).toEqual([]);
});

test('more than there is is asked for all the same, so that the refusal names what is missing', () => {
  const lines = takeComponents([stock('f1', 'foil', 60)], 100);
  expect(lines).toEqual([{ holdingId: 'f1', pieces: 100 }]);
});

test('the last packing says how many of each go with a piece', () => {
  const past = {
    pieces: 50,
    packaging: [
      { holdingId: 'f1', pieces: 30 },
      { holdingId: 'f2', pieces: 20 },
      { holdingId: 's1', pieces: 100 },
    ],
  } as unknown as CommandOf<'pack'>;
  expect([...perPiece(past, PANTRY)]).toEqual([
    ['foil', 1],
    ['sticker', 2],
  ]);
  expect(perPiece(undefined, PANTRY).size).toBe(0);
});
