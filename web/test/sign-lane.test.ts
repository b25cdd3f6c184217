import { layWords } from '../src/roast/lane';

const usual = (what: string, second: number) => ({ what, second, n: 0 });

test('words stand where they usually come until they are noticed, and never over one another', () => {
  const words = layWords(
    [usual('vinegar', 300), usual('bread', 320), usual('smoke', 1750)],
    [{ what: 'bread', second: 900, word: '' }],
    ['own word'],
    1800,
    () => 200,
  );
  expect(words.find(({ what }) => what === 'vinegar')).toMatchObject({ second: 300, noticed: false });
  expect(words.find(({ what }) => what === 'bread')).toMatchObject({ second: 900, noticed: true });
  // Near the end a word stands before it, and what has no usual time comes last.
  expect(words.find(({ what }) => what === 'smoke')?.second).toBe(1600);
  for (const a of words)
    for (const b of words)
      if (a !== b && a.row === b.row) expect(Math.abs(a.second - b.second)).toBeGreaterThanOrEqual(200);
});
