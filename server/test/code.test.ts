import { codeOf, drawCode } from '../src/print/code';
import type { Paper } from '../src/print/paper';

/* QR codes on labels and sheets: squares where the code is dark, and nowhere else. */

interface Drawn {
  rects: [x: number, y: number, width: number, height: number][];
  colour: string;
}
function drawn(text: string, at: Parameters<typeof drawCode>[2]): Drawn {
  const found: Drawn = { rects: [], colour: '' };
  const doc = {
    rect: (...rect: Drawn['rects'][number]) => found.rects.push(rect),
    fill: (colour: string) => (found.colour = colour),
  };
  drawCode({ doc } as unknown as Paper, codeOf(text), at);
  return found;
}

const ADDRESS = 'http://wunsch.local:4610/tub/T204';

test.each([
  [100, 0],
  [57.3, 4],
])('on a side of %d points with %d quiet modules every dark module is covered, and no light one', (side, quiet) => {
  const modules = codeOf(ADDRESS);
  const each = side / (modules.size + 2 * quiet);
  const { rects } = drawn(ADDRESS, { x: 30, y: 40, side, quiet });
  const covered = (row: number, column: number): boolean => {
    const [x, y] = [30 + (column + quiet + 0.5) * each, 40 + (row + quiet + 0.5) * each];
    return rects.some(([left, top, width, height]) => x > left && x < left + width && y > top && y < top + height);
  };
  for (let row = 0; row < modules.size; row += 1)
    for (let column = 0; column < modules.size; column += 1)
      expect([row, column, covered(row, column)]).toEqual([row, column, modules.get(row, column) !== 0]);
});

test('nothing stands outside of its place, and what is side by side is one stroke', () => {
  const { rects, colour } = drawn(ADDRESS, { x: 10, y: 20, side: 80 });
  for (const [x, y, width, height] of rects) {
    expect(Math.min(x - 10, y - 20)).toBeGreaterThanOrEqual(0);
    expect(Math.max(x + width - 90, y + height - 100)).toBeLessThanOrEqual(0.0501);
  }
  const modules = codeOf(ADDRESS);
  let dark = 0;
  for (let row = 0; row < modules.size; row += 1)
    for (let column = 0; column < modules.size; column += 1) dark += modules.get(row, column) === 0 ? 0 : 1;
  expect(rects.length).toBeLessThan(0.7 * dark);
  expect(colour).toBe('#000000');
});

test('a longer address has a finer code', () => {
  expect(codeOf(`${ADDRESS}?${'x'.repeat(120)}`).size).toBeGreaterThan(codeOf(ADDRESS).size);
});
