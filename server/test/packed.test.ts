import fc from 'fast-check';
import { Packed } from '../src/checkpoint/packed';
import { Words } from '../src/checkpoint/words';

const texts = fc.uniqueArray(fc.string({ unit: 'grapheme', maxLength: 40 }), { maxLength: 60 });

test('packed texts are found by their numbers and by what they say, also as they come from a file', () => {
  fc.assert(
    fc.property(texts, fc.string({ unit: 'grapheme' }), (all, other) => {
      const packed = Packed.of(all);
      for (const some of [packed, Packed.open('names', packed.sections('names'))]) {
        expect([...some]).toEqual(all);
        expect(some).toHaveLength(all.length);
        expect(all.map((text) => some.find(text))).toEqual(all.map((_, number) => number));
        expect(all.map((_, number) => some.text(number))).toEqual(all);
        if (!all.includes(other)) expect(some.find(other)).toBeUndefined();
      }
      expect(packed.text(all.length)).toBeUndefined();
    }),
    { seed: 62 },
  );
});

test('texts that are put behind others keep what those had', () => {
  const [few, more] = [Packed.of(['sort', 'grüß']), ['roast', 'ő', '']];
  const all = few.with(more);
  expect([...all]).toEqual(['sort', 'grüß', 'roast', 'ő', '']);
  expect(['sort', 'grüß', 'roast', 'ő', '', 'ö'].map((text) => all.find(text))).toEqual([0, 1, 2, 3, 4, undefined]);
  expect([...few]).toEqual(['sort', 'grüß']);
});

test('a text that is longer than most is found as well', () => {
  const long = 'grüne Bohnen '.repeat(400);
  const packed = Packed.of(['short', long, `${long}!`]);
  expect([packed.find(long), packed.find(`${long}!`), packed.find(`${long}?`)]).toEqual([1, 2, undefined]);
});

test('texts that are not in a file are missed by name', () => {
  expect(() => Packed.open('names', {})).toThrow('there is no section names');
});

test('words keep their numbers when they are packed, and go on from there', () => {
  const words = new Words();
  const [sort, none, roast] = [words.number('sort'), words.number(null), words.number('roast')];
  expect([words.number('sort'), none, words.text(0)]).toEqual([sort, 0, null]);
  const more = new Words(words.pack());
  expect([more.find('roast'), more.text(roast), more.find('winnow')]).toEqual([roast, 'roast', undefined]);
  const winnow = more.number('winnow');
  expect([more.text(winnow), more.number('winnow'), more.length]).toEqual(['winnow', winnow, words.length + 1]);
  // Nothing at all is another thing than a text without letters.
  expect(more.text(more.number(''))).toBe('');
  expect([...new Words(more.pack())]).toEqual([...more]);
});
