import { SILK, silkNow, simulatedSilkC } from '../src/temper/silk';

/** Readings a minute apart, each temperature held for so many minutes. */
const held = (...parts: (readonly [tempC: number, minutes: number])[]) =>
  parts
    .flatMap(([tempC, minutes]) => Array<number>(minutes).fill(tempC))
    .map((tempC, i) => ({ second: 60 * i, tempC }));

test('silk is melted out, comes down, is held for a day and is ready', () => {
  expect(silkNow([])).toBeNull();
  expect(silkNow(held([30, 5]))).toMatchObject({ phase: 'melting', sentence: '15.0 °C to go until it is melted out.' });
  expect(silkNow(held([46, 20], [38, 5]))).toMatchObject({ phase: 'cooling' });
  const hour = silkNow(held([46, 20], [33.6, 60]));
  expect(hour).toMatchObject({ phase: 'holding', sentence: 'In its hold: 19 h more.' });
  expect(hour?.heldH).toBeCloseTo(1, 6);
  const day = silkNow(held([46, 20], [33.5, 60 * SILK.hours + 1]));
  expect(day).toMatchObject({ phase: 'ready', sentence: 'Held for 20 h: it should be a soft, cloudy paste.' });
  expect(day?.heldC).toBeCloseTo(33.5, 6);
});

test('hours out of the hold do not count; warm enough for the crystal to melt they begin again', () => {
  const cold = silkNow(held([46, 20], [33.6, 61], [32, 120]));
  expect(cold).toMatchObject({ phase: 'cold' });
  expect(cold?.heldH).toBeCloseTo(1, 1);
  const lost = silkNow(held([46, 20], [33.6, 600], [35.5, 10]));
  expect(lost).toMatchObject({ phase: 'lost', heldH: 0 });
  expect(silkNow(held([46, 20], [33.6, 600], [35.5, 10], [33.6, 121]))?.heldH).toBeCloseTo(2, 1);
  expect(silkNow(held([46, 20], [33.6, 60], [34.5, 3]))?.sentence).toContain('take the heat down');
});

test('a made-up warm box makes silk within a day and a half, most of the time in its hold', () => {
  for (const seed of [1, 2, 3]) {
    const rows = Array.from({ length: 30 * 60 }, (_, minute) => ({
      second: 60 * minute,
      tempC: simulatedSilkC(60 * minute, seed),
    }));
    expect(silkNow(rows)?.phase).toBe('ready');
    expect(silkNow(rows.slice(0, 600))?.phase).not.toBe('ready');
    expect(simulatedSilkC(7200, seed)).toBe(rows[120]?.tempC);
  }
});
