import fc from 'fast-check';
import { parse } from 'csv-parse/sync';
import { csv } from '../src/http/csv';

test('lines end as RFC 4180 says; commas, quotation marks and breaks are quoted', () => {
  expect(
    csv([
      ['a"b', 'x,y', 1.5, null],
      ['line\nbreak', 'cr\rx', '', 'plain'],
    ]),
  ).toBe('"a""b","x,y",1.5,\r\n"line\nbreak","cr\rx",,plain\r\n');
});

test('what a spreadsheet would run is kept from it; figures below zero stay figures', () => {
  expect(csv([['=1+1', ' -2', '＠sum', -3, 'a=b']])).toBe("'=1+1,' -2,'＠sum,-3,a=b\r\n");
});

test('whatever goes out is read back as the same', () => {
  const cell = fc
    .string({ unit: 'grapheme', maxLength: 12 })
    .filter((text) => !/^[\s"']*[=+\-@＝＋－＠\t\r]/u.test(text));
  fc.assert(
    fc.property(fc.array(fc.array(cell, { minLength: 2, maxLength: 2 }), { minLength: 1, maxLength: 8 }), (rows) => {
      expect(parse(csv(rows), { record_delimiter: '\r\n', bom: false })).toEqual(rows);
    }),
  );
});
