import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { BenchView, HoldingView } from '@wunsch/core/api/types';
import { ROUTE_TEMPLATES } from '@wunsch/core/workshop/routes';
import { routeCautions } from '../src/bench/cautions';
import { strokeOf } from '../src/charts/strokes';

const bench = (station: BenchView['station'], routeId: string): BenchView =>
  ({ station, waiting: [{ routeId } as HoldingView], grinds: [] }) as unknown as BenchView;

const screenOf = (station: string): string => readFileSync(join(__dirname, `../src/${station}/screen.ts`), 'utf8');

describe('cautions of a route', () => {
  const words = { unroasted: 'no heat killed anything', nibRoast: 'raw until it is roasted' };

  test('stand at a station that has something unroasted, and where nibs are roasted and not their beans', () => {
    expect(routeCautions(bench('grind', 'unroasted'), ROUTE_TEMPLATES, words)).toEqual([words.unroasted]);
    expect(routeCautions(bench('winnow', 'nib-roast'), ROUTE_TEMPLATES, words)).toEqual([words.nibRoast]);
    expect(routeCautions(bench('sort', 'unroasted'), ROUTE_TEMPLATES, {})).toEqual([]);
  });

  test('an ordinary route, and a batch of bought nibs, add nothing', () => {
    for (const route of ['whole-bean', 'from-nibs', 'tablet'])
      expect(routeCautions(bench('winnow', route), ROUTE_TEMPLATES, words)).toEqual([]);
  });

  test('unroasted mass is kept cool at the grinder; a nib roast is raw at the winnower and scorches at the roaster', () => {
    expect(screenOf('grind')).toMatch(/unroasted:[^]*temp\(42\)[^]*the local authority decides/);
    expect(screenOf('winnow')).toMatch(/nibRoast:[^]*no kill step/);
    expect(screenOf('roast')).toMatch(/nibRoast:[^]*scorch/);
  });
});

test('six lines over one another have six colours, and six strokes where colours fail', () => {
  const strokes = [0, 1, 2, 3, 4, 5].map(strokeOf);
  expect(new Set(strokes.map(({ colour }) => colour)).size).toBe(6);
  expect(new Set(strokes.map(({ dash }) => dash)).size).toBeGreaterThanOrEqual(5);
});
