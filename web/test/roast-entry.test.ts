import type { BenchView, HoldingView } from '@wunsch/core/api/types';
import { ROUTE_TEMPLATES } from '@wunsch/core/workshop/routes';
import { routeCautions } from '../src/bench/cautions';
import { strokeOf } from '../src/charts/strokes';

const bench = (station: BenchView['station'], routeId: string): BenchView =>
  ({ station, waiting: [{ routeId } as HoldingView], grinds: [] }) as unknown as BenchView;

describe('cautions of a route', () => {
  test('unroasted mass is kept cool at the grinder, and said to have had no kill step', () => {
    const [text] = routeCautions(bench('grind', 'unroasted'), ROUTE_TEMPLATES);
    expect(text).toContain('42 °C');
    expect(text).toContain('the local authority decides');
  });

  test('a nib roast is raw at the winnower and scorches at the roaster', () => {
    expect(routeCautions(bench('winnow', 'nib-roast'), ROUTE_TEMPLATES)[0]).toContain('no kill step');
    expect(routeCautions(bench('roast', 'nib-roast'), ROUTE_TEMPLATES)[0]).toContain('scorch');
  });

  test('an ordinary route, and a batch of bought nibs, add nothing', () => {
    for (const route of ['whole-bean', 'from-nibs', 'tablet'])
      expect(routeCautions(bench('winnow', route), ROUTE_TEMPLATES)).toEqual([]);
  });
});

test('six lines over one another have six colours, and six strokes where colours fail', () => {
  const strokes = [0, 1, 2, 3, 4, 5].map(strokeOf);
  expect(new Set(strokes.map(({ colour }) => colour)).size).toBe(6);
  expect(new Set(strokes.map(({ dash }) => dash)).size).toBeGreaterThanOrEqual(5);
});
