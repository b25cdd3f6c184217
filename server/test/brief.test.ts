import { brief, briefError } from '../src/http/brief';

test('an error is logged as far as somebody reads, and no further', () => {
  expect(brief('short')).toBe('short');
  const long = `Failed query: insert\nparams: ${'0,'.repeat(5_000_000)}`;
  expect(brief(long).length).toBeLessThan(2100);
  expect(brief(long)).toMatch(/^Failed query: insert[^]* … \(9,99\d,\d{3} letters left out\)$/);
  const told = briefError(new Error(long));
  expect(told.type).toBe('Error');
  expect(told.message.length + told.stack.length).toBeLessThan(4200);
});
