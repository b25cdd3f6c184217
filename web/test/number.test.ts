import { readNumber, readNumbers, unreadable } from '../src/parts/number';

test.each([
  ['7,2', 7.2],
  [' 1 250 ', 1250],
  ['.5', 0.5],
  ['-18', -18],
  ['3.', 3],
  ['', null],
  ['seven', null],
  ['1.2.3', null],
])('%s is read as %s', (text, value) => {
  expect(readNumber(text)).toBe(value);
});

test('figures side by side: empty ones are nothing, unreadable ones are named', () => {
  expect(readNumbers({ core: '46,5', top: '', ph: 'sour' })).toEqual({
    values: { core: 46.5, top: null, ph: null },
    wrong: { ph: 'is not a number' },
  });
  expect(unreadable('')).toBeUndefined();
  expect(unreadable('x')).toBe('is not a number');
});
