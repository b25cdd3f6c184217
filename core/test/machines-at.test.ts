import { machineFacts } from '../src/workshop/schemas';
import { machinesAt } from '../src/workshop/machines';

const OLD = { id: 'old', station: 'grind', retired: true };
const SMALL = { id: 'small', station: 'grind' };
const LARGE = { id: 'large', station: 'grind', retired: false };
const OVEN = { id: 'oven', station: 'roast' };
const ALL = [OLD, SMALL, LARGE, OVEN];
const ids = (chosen?: string | null): string[] => machinesAt(ALL, 'grind', chosen).map(({ id }) => id);

test('work is given to machines of its station that are still used', () => {
  expect(ids()).toEqual(['small', 'large']);
  expect(machinesAt(ALL, 'roast')).toEqual([OVEN]);
  expect(machinesAt(ALL, 'sort')).toEqual([]);
});

test('one that was chosen before it was retired stays in its list, and only that', () => {
  expect(ids('old')).toEqual(['old', 'small', 'large']);
  expect(ids('oven')).toEqual(['small', 'large']);
  expect(ids(null)).toEqual(['small', 'large']);
});

test('any list will do', () => {
  expect(machinesAt(new Map(ALL.map((row) => [row.id, row])).values(), 'grind')).toEqual([SMALL, LARGE]);
});

test('a machine is used unless somebody says otherwise; its least is no more than its most', () => {
  const facts = { name: 'Small stones', station: 'grind', minG: 4000, maxG: 8000 };
  expect(machineFacts.parse(facts).retired).toBeUndefined();
  expect(machineFacts.parse({ ...facts, retired: true }).retired).toBe(true);
  expect(machineFacts.safeParse({ ...facts, retired: 'yes' }).success).toBe(false);
  expect(machineFacts.safeParse({ ...facts, minG: 9000 }).error?.issues[0]).toMatchObject({
    path: ['minG'],
    message: 'is more than the most',
  });
});
