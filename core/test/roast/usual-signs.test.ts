import { climbAgainst, plannedClimb } from '../../src/roast/live';
import { usualSigns } from '../../src/roast/usual-signs';
import { SIGNS } from '../../src/roast/words';

const load = (lengthS: number, signs: [string, number][]) => ({
  lengthS,
  signs: signs.map(([what, second]) => ({ what, second })),
});

test('without a past the usual signs stand in their order over the length of the roast', () => {
  const rows = usualSigns([], 1800);
  expect(rows.map(({ what }) => what)).toEqual([...SIGNS]);
  expect(rows.every(({ n }) => n === 0)).toBe(true);
  expect(rows[0]?.second).toBe(540);
});

test('with a past of three each stands where it came, scaled to this length; own words join from three on', () => {
  const past = [
    load(1800, [
      ['bread', 600],
      ['cracks like rain', 1500],
      ['bread', 900],
    ]),
    load(1800, [
      ['bread', 660],
      ['cracks like rain', 1560],
    ]),
    load(900, [
      ['bread', 330],
      ['cracks like rain', 750],
    ]),
    load(0, [['bread', 3]]),
  ];
  const rows = usualSigns(past, 3600);
  // Shares 600/1800, 660/1800 and 330/900: the middle one is 0.3667.
  expect(rows.find(({ what }) => what === 'bread')).toEqual({ what: 'bread', second: 1320, n: 3 });
  expect(rows.find(({ what }) => what === 'cracks like rain')?.n).toBe(3);
  expect(usualSigns(past.slice(0, 2), 3600).some(({ what }) => what === 'cracks like rain')).toBe(false);
  expect([...rows].sort((a, b) => a.second - b.second)).toEqual(rows);
});

test('the planned climb is the slope of the planned curve; what is near it is as planned', () => {
  const minutes = [0, 5, 10, 20];
  const beanC = [20, 70, 100, 120];
  expect(plannedClimb(minutes, beanC, 2)).toBeCloseTo(10, 9);
  expect(plannedClimb(minutes, beanC, 15)).toBeCloseTo(2, 9);
  expect(plannedClimb(minutes, beanC, 10)).toBeCloseTo(4, 9);
  expect(plannedClimb(minutes, beanC, 19.8)).toBeNull();
  expect(climbAgainst(2.3, 2)).toBe('as planned');
  expect(climbAgainst(0.9, 2)).toBe('slower than planned');
  expect(climbAgainst(12.9, 10)).toBe('faster than planned');
});
