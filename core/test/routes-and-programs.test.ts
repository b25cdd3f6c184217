import { ROUTE_TEMPLATES } from '../src/workshop/routes';
import { nextPlace, type Route } from '../src/work/stations';
import { readProgram, writeProgram } from '../src/roast/program-text';

const route = (id: string): Route => ROUTE_TEMPLATES.find((row) => row.id === id) ?? (ROUTE_TEMPLATES[0] as Route);

test('goods go on along their route, in its own order', () => {
  expect(nextPlace(route('whole-bean'), 'grind')).toBe('rest');
  expect(nextPlace(route('straight-through'), 'grind')).toBe('temper');
  expect(nextPlace(route('nib-roast'), 'sort')).toBe('winnow');
  expect(nextPlace(route('nib-roast'), 'winnow')).toBe('roast');
  expect(nextPlace(route('nib-roast'), 'roast')).toBe('grind');
  expect(nextPlace(route('unroasted'), 'sort')).toBe('winnow');
  expect(nextPlace(route('tablet'), 'grind')).toBe('mould');
  expect(nextPlace(route('whole-bean'), 'pack')).toBe('store');
});

test('work off the route goes on to the next station that is on it', () => {
  expect(nextPlace(route('from-nibs'), 'roast')).toBe('grind');
  expect(nextPlace(route('tablet'), 'rest')).toBe('mould');
});

test('a program is read as makers write it', () => {
  const { steps, unreadable } = readProgram('150 °C 6 min load cold beans\n\n130, 12\n275F 10 min\nhot', 'C');
  expect(steps[0]).toEqual({ setC: 150, minutes: 6, note: 'load cold beans' });
  expect(steps[1]).toEqual({ setC: 130, minutes: 12, note: '' });
  expect(steps[2]?.setC).toBeCloseTo(135, 6);
  expect(unreadable).toEqual([5]);
});

test('a program written out reads back the same', () => {
  const steps = [
    { setC: 140, minutes: 7.5, note: 'stir' },
    { setC: 120, minutes: 10, note: '' },
  ];
  for (const unit of ['C', 'F'] as const)
    expect(readProgram(writeProgram(steps, unit), unit)).toEqual({ steps, unreadable: [] });
});

test('a line that is no step is told, not guessed at, and quickly', () => {
  const lines = ['160 °C ten minutes', '150 °C', '1500 °C 5 min', '150 °C 0 min', `150 ${' '.repeat(5000)}x`];
  const began = Date.now();
  const { steps, unreadable } = readProgram(lines.join('\n'), 'C');
  expect(steps).toEqual([]);
  expect(unreadable).toEqual([1, 2, 3, 4, 5]);
  // Reading that backtracks would take minutes.
  expect(Date.now() - began).toBeLessThan(5000);
  expect(readProgram('150 °C   6,5 min   load', 'C').steps).toEqual([{ setC: 150, minutes: 6.5, note: 'load' }]);
  expect(readProgram("302F 8' slow", 'C').steps[0]?.minutes).toBe(8);
});
