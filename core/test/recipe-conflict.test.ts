import fc from 'fast-check';
import { conflictsIn, type Constraint } from '../src/recipe/conflict';
import type { LinearSolver, Row } from '../src/recipe/linear';
import { loadSolver } from './recipe-fixtures';

let solver: LinearSolver;
beforeAll(async () => void (solver = await loadSolver()));

const row = (terms: Record<string, number>, sense: Row['sense'], right: number): Row => ({
  terms: Object.entries(terms),
  sense,
  right,
});
const limit = (id: string, ...rows: Row[]): Constraint => ({ id, words: `limit ${id}`, rows, soft: true });
const least = (id: string, variable: string, value: number) => limit(id, row({ [variable]: 1 }, '>=', value));
const most = (id: string, variable: string, value: number) => limit(id, row({ [variable]: 1 }, '<=', value));

/** Contradictions and ways out by the letters of their limits. */
function found(all: readonly Constraint[], frame: readonly Row[] = []): { sets: string[]; giveUp: string[] } {
  const { sets, giveUp } = conflictsIn(solver, frame, all);
  const letters = (group: readonly { id: string }[]): string => group.map(({ id }) => id).join('');
  return { sets: sets.map(letters), giveUp: giveUp.map(letters) };
}

test('where all can be kept there is nothing to give up', () => {
  expect(found([least('a', 'x', 5), most('b', 'x', 8)])).toEqual({ sets: [], giveUp: [] });
  expect(found([])).toEqual({ sets: [], giveUp: [] });
});

test('two that contradict each other: either can be given up', () => {
  expect(found([least('a', 'x', 8), least('c', 'y', 1), most('b', 'x', 5)])).toEqual({
    sets: ['ab'],
    giveUp: ['a', 'b'],
  });
});

test('one against two that say nearly the same: only the one is enough, and it is in one set only', () => {
  const { sets, giveUp } = found([least('a', 'x', 8), most('b', 'x', 5), most('c', 'x', 6)]);
  expect(sets).toHaveLength(1);
  expect(['ab', 'ac']).toContain(sets[0]);
  expect(giveUp).toEqual(['a']);
});

test('what contradicts the house’s own frame stands alone', () => {
  expect(found([least('a', 'x', 8), most('b', 'y', 3)], [row({ x: 1 }, '<=', 5)])).toEqual({
    sets: ['a'],
    giveUp: ['a'],
  });
});

test('three together: x from 4, y from 4, and no more than 6 of both', () => {
  const all = [least('a', 'x', 4), least('b', 'y', 4), limit('c', row({ x: 1, y: 1 }, '<=', 6))];
  expect(found(all)).toEqual({ sets: ['abc'], giveUp: ['a', 'b', 'c'] });
});

test('two contradictions apart: both are said, and one of each has to go', () => {
  const { sets, giveUp } = found([least('a', 'x', 8), most('b', 'x', 5), least('c', 'y', 3), most('d', 'y', 1)]);
  expect(sets).toEqual(['ab', 'cd']);
  expect(giveUp).toHaveLength(1);
  expect(giveUp[0]).toMatch(/^[ab][cd]$/);
});

test('the smallest is found behind a larger one that comes first', () => {
  const all = [
    least('a', 'x', 4),
    least('b', 'y', 4),
    limit('c', row({ x: 1, y: 1 }, '<=', 6)),
    least('d', 'z', 2),
    most('e', 'z', 1),
  ];
  expect(found(all).sets[0]).toBe('de');
});

test('a limit of two rows is given up whole', () => {
  const between = limit('a', row({ x: 1 }, '>=', 4), row({ x: 1 }, '<=', 5));
  expect(found([between, least('b', 'x', 6), most('c', 'x', 3)]).giveUp).toEqual([
    expect.stringMatching(/^(ab|ac|bc)$/),
  ]);
});

interface Bound {
  variable: string;
  isLeast: boolean;
  value: number;
}
const bounds = fc.array(
  fc.record({ variable: fc.constantFrom('x', 'y'), isLeast: fc.boolean(), value: fc.integer({ min: 1, max: 9 }) }),
  { minLength: 1, maxLength: 7 },
);
const fits = (rows: readonly Bound[]): boolean =>
  ['x', 'y'].every((variable) => {
    const own = rows.filter((one) => one.variable === variable);
    const low = Math.max(0, ...own.filter(({ isLeast }) => isLeast).map(({ value }) => value));
    return own.every(({ isLeast, value }) => isLeast || value >= low);
  });
const subsets = <T>(of: readonly T[]): T[][] =>
  Array.from({ length: 2 ** of.length }, (_, bits) => of.filter((_one, index) => (bits >> index) & 1));

test('of bounds by chance: contradictions are true and as small as any; the ways out are all there are, and the shortest', () => {
  fc.assert(
    fc.property(bounds, (rows) => {
      const all = rows.map(({ variable, isLeast, value }, index) =>
        (isLeast ? least : most)(String(index), variable, value),
      );
      const { sets, giveUp } = conflictsIn(solver, [], all);
      const of = (group: readonly { id: string }[]): Bound[] => group.flatMap(({ id }) => rows[Number(id)] ?? []);
      const without = (group: readonly Bound[]): Bound[] => rows.filter((one) => !group.includes(one));
      if (fits(rows)) return expect([sets, giveUp]).toEqual([[], []]);
      for (const set of sets) {
        expect(fits(of(set))).toBe(false);
        for (const one of set) expect(fits(of(set.filter((other) => other !== one)))).toBe(true);
      }
      const names = sets.flat().map(({ id }) => id);
      expect(new Set(names).size).toBe(names.length);
      const smallest = Math.min(...subsets(rows).flatMap((some) => (fits(some) ? [] : [some.length])));
      expect(sets[0]).toHaveLength(smallest);
      const fewest = Math.min(...subsets(rows).flatMap((some) => (fits(without(some)) ? [some.length] : [])));
      for (const group of giveUp) {
        expect(fits(without(of(group)))).toBe(true);
        expect(group).toHaveLength(fewest);
      }
      // Where one is enough, every one that is enough is said.
      if (fewest === 1) expect(giveUp).toHaveLength(rows.filter((one) => fits(without([one]))).length);
      else expect(giveUp).toHaveLength(1);
      return undefined;
    }),
    { numRuns: 60, seed: 11 },
  );
});
