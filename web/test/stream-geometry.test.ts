import { floorShape, flowShape } from '../src/stream/geometry';

test('pools are drawn at one scale; only what is far thicker than the rest is broken', () => {
  const shape = floorShape(
    [
      { standingMg: 900e6, passedMg: 0 },
      { standingMg: 20e6, passedMg: 0 },
      { standingMg: 40e6, passedMg: 0 },
    ],
    100,
    50,
  );
  expect(shape.broken[1]).toBe(false);
  expect(shape.broken[0]).toBe(true);
  expect((shape.halves[2] ?? 0) / (shape.halves[1] ?? 1)).toBeCloseTo(2, 6);
  expect(shape.halves[0]).toBe(50);
});

test('an empty workshop still has a line to follow', () => {
  const shape = floorShape(
    Array.from({ length: 10 }, () => ({ standingMg: 0, passedMg: 0 })),
    100,
    50,
  );
  expect(shape.outline).not.toContain('NaN');
  expect(shape.halves.every((half) => half > 0 && half < 3)).toBe(true);
});

test('a batch is as thick as its grams; losses and joins only where there are some', () => {
  const shape = flowShape(
    [
      { inMg: 10e6, joinedMg: 0, goodMg: 8e6, lossMg: 2e6 },
      { inMg: 10e6, joinedMg: 2e6, goodMg: 10e6, lossMg: 0 },
    ],
    100,
    100,
    40,
  );
  expect(shape.unitsPerMg).toBeCloseTo(1e-5, 12);
  expect(shape.tongues[0]).not.toBe('');
  expect(shape.tongues[1]).toBe('');
  expect(shape.joins[0]).toBe('');
  expect(shape.joins[1]).not.toBe('');
});
