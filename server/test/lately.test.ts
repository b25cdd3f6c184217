import fc from 'fast-check';
import { Lately } from '../src/store/lately';

/** The same by a list, the one asked for longest ago first. */
class Slow {
  private rows: [number, number][] = [];
  constructor(private readonly most: number) {}

  get(key: number): number | undefined {
    const row = this.rows.find(([own]) => own === key);
    if (!row) return undefined;
    this.rows = [...this.rows.filter((other) => other !== row), row];
    return row[1];
  }

  set(key: number, value: number): void {
    if (this.rows.length >= this.most) this.rows.shift();
    const row = this.rows.find(([own]) => own === key);
    if (row) row[1] = value;
    else this.rows.push([key, value]);
  }
}

test('what was asked for longest ago goes first, whatever is asked in between', () => {
  const deed = fc.record({ sets: fc.boolean(), key: fc.integer({ min: 0, max: 12 }) });
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 6 }), fc.array(deed, { maxLength: 200 }), (most, deeds) => {
      const [quick, slow] = [new Lately<number, number>(most), new Slow(most)];
      deeds.forEach(({ sets, key }, i) => {
        if (sets) {
          quick.set(key, i);
          slow.set(key, i);
        } else expect(quick.get(key)).toBe(slow.get(key));
        expect(quick.size).toBeLessThanOrEqual(most);
      });
    }),
    { seed: 63, numRuns: 300 },
  );
});

test('room is made only where none is left, and says what went', () => {
  const lately = new Lately<string, number>(2);
  lately.set('a', 1);
  expect(lately.makeRoom()).toBeUndefined();
  lately.set('b', 2);
  lately.get('a');
  expect(lately.makeRoom()).toBe(2);
  expect([lately.size, lately.get('a'), lately.get('b')]).toEqual([1, 1, undefined]);
});
